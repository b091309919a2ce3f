import { PlainAnswer } from '@/contracts/action-answer';
import type { PartPhotoQuery } from '@/contracts/registers';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { findPartPhoto, insertPartPhoto, type PartPhoto } from '../../repositories/part-photos';
import { loadParts } from '../../repositories/stock';
import { pictureOf } from '../house/picture';
import { type Context, runOnce } from '../yard/user-action';

/** Keeps a picture of a part; the newest one is shown. */
export const keepPartPhoto = async (
  { db, now }: Context,
  { query, bytes }: { readonly query: PartPhotoQuery; readonly bytes: Uint8Array },
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  const picture = pictureOf(bytes);
  if (!picture.ok) return picture;
  const { media, hash } = picture.value;
  const action = { kind: 'part photo', body: { ...query, picture: hash }, at, answers: PlainAnswer };
  return runOnce(db, action, async (tx) => {
    if (!(await loadParts(tx)).some((p) => p.id === query.partId)) return fail(failure('part.unknown', 'partId'));
    return ok({ id: await insertPartPhoto(tx, { partId: query.partId, at, by: query.by, mediaType: media, bytes }) });
  });
};

/** The picture of that number; null where there is none. */
export const partPhotoOf = ({ db }: Pick<Context, 'db'>, id: number): Promise<PartPhoto | null> =>
  findPartPhoto(db, id);
