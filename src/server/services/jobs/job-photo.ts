import { PlainAnswer } from '@/contracts/action-answer';
import type { PhotoQuery } from '@/contracts/job';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { refuseJobEvent } from '@/core/procedure/job-log';
import { insertJobEvent, loadJobs } from '../../repositories/jobs';
import { findMachine } from '../../repositories/machines';
import { findPhoto, insertPhoto, type Photo } from '../../repositories/proofs';
import { pictureOf } from '../house/picture';
import { type Context, runOnce } from '../yard/user-action';

/** Photos of one job: a change has some thirty steps. */
export const MOST_PHOTOS = 60;
/** Keeps a photo taken at a step, with the job. */
export const keepPhoto = async (
  { db, now }: Context,
  tag: string,
  { query, bytes }: { readonly query: PhotoQuery; readonly bytes: Uint8Array },
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  const picture = pictureOf(bytes);
  if (!picture.ok) return picture;
  const { media, hash } = picture.value;
  const body = { ...query, picture: hash };
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
    const photoId = await insertPhoto(tx, { jobId, at, by, mediaType: media, bytes });
    await insertJobEvent(tx, { jobId, at, by, event: { kind: 'photo', step, photoId } });
    return ok({ id: photoId });
  });
};

/** A stored photo; null for an unknown id. */
export const photoOf = ({ db }: Pick<Context, 'db'>, id: number): Promise<Photo | null> => findPhoto(db, id);
