import { createHash } from 'node:crypto';
import { imageSize } from 'image-size';
import { fail, failure, ok, type Result } from '@/core/failure/failure';

/** Largest picture of a camera, bytes; a picture that the page shrinks has a tenth of it. */
export const MAX_PHOTO_BYTES = 8 * 1024 * 1024;
/** A picture larger than any camera's is a trap for who opens it. Pixels of one side, and of the whole. */
const MOST_SIDE = 20_000;
const MOST_PIXELS = 120e6;

const MEDIA: Readonly<Record<string, string>> = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

const starts = (bytes: Uint8Array, at: number, wanted: readonly number[]): boolean =>
  wanted.every((byte, i) => bytes[at + i] === byte);

/**
 * A picture must end as its format says: bytes behind it can be another file. A camera's data behind a JPEG is
 * accepted. Source: ISO/IEC 15948 11.2.5 (IEND); RIFF.
 */
const endsAsItsKind = (media: string, bytes: Uint8Array): boolean => {
  const { length } = bytes;
  if (media === 'image/png') return starts(bytes, length - 8, [0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82]);
  if (media === 'image/jpeg') return true;
  const riff = new DataView(bytes.buffer, bytes.byteOffset, length).getUint32(4, true) + 8;
  return riff === length || riff + 1 === length;
};

/** The format of a picture by its bytes, independent of its name. */
export const mediaTypeOf = (bytes: Uint8Array): Result<string> => {
  try {
    const { type, width, height } = imageSize(bytes);
    const media = MEDIA[type ?? ''];
    const sound = width > 0 && height > 0 && Math.max(width, height) <= MOST_SIDE && width * height <= MOST_PIXELS;
    return media && sound && endsAsItsKind(media, bytes) ? ok(media) : fail(failure('photo.not-image', 'photo'));
  } catch {
    return fail(failure('photo.not-image', 'photo'));
  }
};

/** The picture of a request: its kind, and its hash, so that another picture under one id is another request. */
export const pictureOf = (bytes: Uint8Array): Result<{ readonly media: string; readonly hash: string }> => {
  if (bytes.byteLength > MAX_PHOTO_BYTES) return fail(failure('photo.too-large', 'photo', { most: MAX_PHOTO_BYTES }));
  const media = mediaTypeOf(bytes);
  return media.ok ? ok({ media: media.value, hash: createHash('sha256').update(bytes).digest('hex') }) : media;
};
