import { PlainAnswer } from '@/contracts/action-answer';
import type { UpgradePhotoQuery } from '@/contracts/upgrade';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { findUpgradePhoto, insertUpgradePhoto, loadUpgrades, type UpgradePhoto } from '../../repositories/upgrades';
import { pictureOf } from '../house/picture';
import { type Context, runOnce } from '../yard/user-action';

/** Stores a picture of an upgrade; the newest one is shown. */
export const keepUpgradePhoto = async (
  { db, now }: Context,
  { query, bytes }: { readonly query: UpgradePhotoQuery; readonly bytes: Uint8Array },
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  const picture = pictureOf(bytes);
  if (!picture.ok) return picture;
  const { media, hash } = picture.value;
  const action = { kind: 'upgrade photo', body: { ...query, picture: hash }, at, answers: PlainAnswer };
  return runOnce(db, action, async (tx) => {
    const { upgradeId, by } = query;
    if (!(await loadUpgrades(tx)).some((u) => u.id === upgradeId)) return fail(failure('upgrade.unknown', 'upgradeId'));
    return ok({ id: await insertUpgradePhoto(tx, { upgradeId, at, by, mediaType: media, bytes }) });
  });
};

/** The picture of that number; null where there is none. */
export const upgradePhotoOf = ({ db }: Pick<Context, 'db'>, id: number): Promise<UpgradePhoto | null> =>
  findUpgradePhoto(db, id);
