import { PlainAnswer } from '@/contracts/action-answer';
import type { MergeBody } from '@/contracts/registers';
import { dayAt } from '@/core/calendar/calendar-date';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { heldParts, trialParts } from '@/core/stock/held';
import { whyNotMerged } from '@/core/stock/merge';
import type { Db } from '../../db/connect';
import { loadCases } from '../../repositories/cases';
import { loadOpenJobs } from '../../repositories/jobs';
import { loadMachines } from '../../repositories/machines';
import { loadOpenOrders } from '../../repositories/plans';
import { loadSite } from '../../repositories/site';
import {
  insertMerge,
  insertMovement,
  loadMerges,
  loadParts,
  partOfStages,
  retirePart,
  seatsOfParts,
} from '../../repositories/stock';
import { type Context, runOnce } from '../yard/user-action';

const inHand = async (db: Db, partId: number): Promise<number> =>
  [
    ...heldParts({ jobs: await loadOpenJobs(db), partOf: await partOfStages(db) }),
    ...trialParts(await loadCases(db), await loadMachines(db)),
  ].filter((h) => h.partId === partId).length;

/**
 * Merges two entries of one part: stages that took the first take the second, its stock is booked over, and it is
 * retired. Its earlier records do not change.
 */
export const mergeParts = async ({ db, now }: Context, body: MergeBody): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: 'merge parts', body, at, answers: PlainAnswer }, async (tx) => {
    const parts = await loadParts(tx);
    const [gone, kept] = [body.partId, body.intoId].map((id) => parts.find((p) => p.id === id));
    if (!gone || !kept) return fail(failure('part.unknown', gone ? 'intoId' : 'partId'));
    const seats = await seatsOfParts(tx);
    const why = whyNotMerged({
      gone: { part: gone, seats: seats.get(gone.id) ?? new Set() },
      kept: { part: kept, seats: seats.get(kept.id) ?? new Set() },
      merged: (await loadMerges(tx)).has(gone.id),
      onOrder: (await loadOpenOrders(tx)).filter((o) => o.partId === gone.id).reduce((n, o) => n + o.quantity, 0),
      held: await inHand(tx, gone.id),
    });
    if (why) return fail(failure('part.merge', 'intoId', { why, gone: gone.code, kept: kept.code }));
    const over = { reason: 'correction' as const, at, by: body.by, of: { kind: 'none' as const } };
    if (gone.onHand !== 0) {
      await insertMovement(tx, {
        ...over,
        partId: gone.id,
        quantity: -gone.onHand,
        note: `the same part as ${kept.code}`,
      });
      await insertMovement(tx, { ...over, partId: kept.id, quantity: gone.onHand, note: `was ${gone.code}` });
    }
    await insertMerge(tx, { partId: gone.id, intoId: kept.id, at, by: body.by });
    await retirePart(tx, gone.id, dayAt(at, (await loadSite(tx)).timeZone));
    return ok({ id: kept.id });
  });
};
