import { PlainAnswer } from '@/contracts/action-answer';
import { imageSize } from 'image-size';
import type { PhotoQuery } from '@/contracts/job';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { refuseJobEvent } from '@/core/procedure/job-log';
import { insertJobEvent, loadJobs } from '../repositories/jobs';
import { findMachine } from '../repositories/machines';
import { findPhoto, insertPhoto, type Photo } from '../repositories/proofs';
import { type Context, runOnce } from './user-action';

export const MAX_PHOTO_BYTES = 8 * 1024 * 1024;

const MEDIA: Readonly<Record<string, string>> = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

/** What kind of picture these bytes are, by looking at them and not at what they are called. */
export const mediaTypeOf = (bytes: Uint8Array): Result<string> => {
  try {
    const { type, width, height } = imageSize(bytes);
    const media = MEDIA[type ?? ''];
    return media && width > 0 && height > 0 ? ok(media) : fail(failure('photo.not-image', 'photo'));
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
  const body = { ...query, size: bytes.byteLength };
  if (bytes.byteLength > MAX_PHOTO_BYTES) return fail(failure('photo.too-large', 'photo', { most: MAX_PHOTO_BYTES }));
  const media = mediaTypeOf(bytes);
  if (!media.ok) return media;
  return runOnce(db, { kind: `photo ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const record = (await loadJobs(tx, machine.id)).find((j) => j.id === query.jobId);
    if (!record) return fail(failure('job.unknown', 'jobId'));
    const { by, step, jobId } = query;
    const why = refuseJobEvent(record, { at, by, event: { kind: 'photo', step, photoId: 1 } });
    if (why) return fail(failure('job.refused', 'event', { why }));
    const photoId = await insertPhoto(tx, { jobId, at, by, mediaType: media.value, bytes });
    await insertJobEvent(tx, { jobId, at, by, event: { kind: 'photo', step, photoId } });
    return ok({ id: photoId });
  });
};

/** A photo that was kept; null where there is none of that number. */
export const photoOf = ({ db }: Pick<Context, 'db'>, id: number): Promise<Photo | null> => findPhoto(db, id);
