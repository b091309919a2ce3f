import { createHash } from 'node:crypto';
import { imageSize } from 'image-size';
import { PlainAnswer } from '@/contracts/action-answer';
import type { PhotoQuery } from '@/contracts/job';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { refuseJobEvent } from '@/core/procedure/job-log';
import { insertJobEvent, loadJobs } from '../repositories/jobs';
import { findMachine } from '../repositories/machines';
import { findPhoto, insertPhoto, type Photo } from '../repositories/proofs';
import { type Context, runOnce } from './user-action';

export const MAX_PHOTO_BYTES = 8 * 1024 * 1024;
/** Photos of one job: a change has some thirty steps. */
export const MOST_PHOTOS = 60;
/** A picture larger than any camera's is a trap for who opens it. Pixels of one side, and of the whole. */
const MOST_SIDE = 20_000;
const MOST_PIXELS = 120e6;

const MEDIA: Readonly<Record<string, string>> = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

const starts = (bytes: Uint8Array, at: number, wanted: readonly number[]): boolean =>
  wanted.every((byte, i) => bytes[at + i] === byte);

/**
 * A picture ends where its kind says: something else behind it is another file in disguise. A camera may write its own
 * data behind a JPEG, which is let be. Source: ISO/IEC 15948 11.2.5 (IEND); RIFF.
 */
const endsAsItsKind = (media: string, bytes: Uint8Array): boolean => {
  const { length } = bytes;
  if (media === 'image/png') return starts(bytes, length - 8, [0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82]);
  if (media === 'image/jpeg') return true;
  const riff = new DataView(bytes.buffer, bytes.byteOffset, length).getUint32(4, true) + 8;
  return riff === length || riff + 1 === length;
};

/** What kind of picture these bytes are, by looking at them and not at what they are called. */
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

/** Keeps a photo taken at a step, with the job. */
export const keepPhoto = async (
  { db, now }: Context,
  tag: string,
  { query, bytes }: { readonly query: PhotoQuery; readonly bytes: Uint8Array },
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  // Another picture under the same id is another request, of whatever size.
  const body = { ...query, picture: createHash('sha256').update(bytes).digest('hex') };
  if (bytes.byteLength > MAX_PHOTO_BYTES) return fail(failure('photo.too-large', 'photo', { most: MAX_PHOTO_BYTES }));
  const media = mediaTypeOf(bytes);
  if (!media.ok) return media;
  return runOnce(db, { kind: `photo ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const record = (await loadJobs(tx, machine.id)).find((j) => j.id === query.jobId);
    if (!record) return fail(failure('job.unknown', 'jobId'));
    const { by, step, jobId } = query;
    if (record.events.filter((e) => e.event.kind === 'photo').length >= MOST_PHOTOS)
      return fail(failure('photo.too-many', 'photo', { most: MOST_PHOTOS }));
    const why = refuseJobEvent(record, { at, by, event: { kind: 'photo', step, photoId: 1 } });
    if (why) return fail(failure('job.refused', 'event', { why }));
    const photoId = await insertPhoto(tx, { jobId, at, by, mediaType: media.value, bytes });
    await insertJobEvent(tx, { jobId, at, by, event: { kind: 'photo', step, photoId } });
    return ok({ id: photoId });
  });
};

/** A photo that was kept; null where there is none of that number. */
export const photoOf = ({ db }: Pick<Context, 'db'>, id: number): Promise<Photo | null> => findPhoto(db, id);
