import { PlainAnswer } from '@/contracts/action-answer';
import type { InstrumentBody, PartBody } from '@/contracts/registers';
import { dayAt } from '@/core/calendar/calendar-date';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Instrument } from '@/core/record/records';
import { loadInstruments, saveInstrument, testsWith } from '../../repositories/instruments';
import { loadSite } from '../../repositories/site';
import { insertMovement, loadMerges, loadParts, savePart } from '../../repositories/stock';
import { type Context, runOnce } from './user-action';

type Done = Result<{ readonly id: number }>;

const sameText = (a: string, b: string): boolean => a.trim().toUpperCase() === b.trim().toUpperCase();

/** Enters a part with its stock on the shelf, or changes one. Two parts never share a code. */
export const keepPart = async ({ db, now }: Context, body: PartBody): Promise<Done> => {
  const at = now();
  return runOnce(db, { kind: 'part', body, at, answers: PlainAnswer }, async (tx) => {
    const parts = await loadParts(tx);
    if (body.id !== null && !parts.some((p) => p.id === body.id)) return fail(failure('part.unknown', 'id'));
    if (parts.some((p) => p.id !== body.id && sameText(p.code, body.code)))
      return fail(failure('part.code-taken', 'code', { code: body.code }));
    const { name, packSize, bin, supplier, price, leadDays, shelfDays, minimum, medium, areaM2, rating } = body;
    if (body.id !== null && !body.retired && (await loadMerges(tx)).has(body.id))
      return fail(failure('part.merge', 'retired', { why: 'alreadyMerged' }));
    const today = dayAt(at, (await loadSite(tx)).timeZone);
    const code = body.code.toUpperCase();
    const retiredOn = body.retired ? today : null;
    const id = await savePart(tx, body.id, {
      code,
      name,
      packSize,
      bin,
      supplier,
      price,
      leadDays,
      shelfDays,
      minimum,
      retiredOn,
      medium,
      areaM2,
      rating,
    });
    if (body.id === null && body.onHand !== null && body.onHand > 0)
      await insertMovement(tx, {
        partId: id,
        quantity: body.onHand,
        reason: 'opening',
        at,
        by: body.by,
        of: { kind: 'none' },
        note: 'on the shelf when it was entered',
      });
    return ok({ id });
  });
};

/** Enters or changes a meter. Its quantity cannot change once tests use it. */
export const keepInstrument = async ({ db, now }: Context, body: InstrumentBody): Promise<Done> => {
  const at = now();
  return runOnce(db, { kind: 'instrument', body, at, answers: PlainAnswer }, async (tx) => {
    const all = await loadInstruments(tx);
    const before = all.find((i) => i.id === body.id);
    if (body.id !== null && !before) return fail(failure('instrument.unknown', 'id'));
    if (all.some((i) => i.id !== body.id && sameText(i.name, body.name)))
      return fail(failure('instrument.name-taken', 'name', { name: body.name }));
    if (before && before.reads !== body.reads && (await testsWith(tx, before.id)) > 0)
      return fail(failure('instrument.used', 'reads', { name: before.name }));
    const { name, reads, accuracy, certificate, calibrationDueOn } = body;
    const today = dayAt(at, (await loadSite(tx)).timeZone);
    const kept = { name, reads, accuracy, certificate, calibrationDueOn, retiredOn: body.retired ? today : null };
    return ok({ id: await saveInstrument(tx, body.id, kept) });
  });
};

/** The meters on file; those still used first. */
export const loadMeters = async ({ db }: Pick<Context, 'db'>): Promise<readonly Instrument[]> => {
  const all = await loadInstruments(db);
  return [...all.filter((i) => !i.retired), ...all.filter((i) => i.retired)];
};
