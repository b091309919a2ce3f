import { PlainAnswer } from '@/contracts/action-answer';
import type { LogLookBody, LogUsageBody, MachineAwayBody } from '@/contracts/plan';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { dayAt } from '@/core/calendar/calendar-date';
import { findMachine, machineIdOf } from '../../repositories/machines';
import { loadSite } from '../../repositories/site';
import { type Away, insertAway, loadAway } from '../../repositories/plans';
import { insertLook, insertUsage } from '../../repositories/wear';
import { refusedBy } from './state-dust';
import { type Context, runOnce } from './user-action';

/** Run hours of a machine on a day; the newest entry of a day counts. */
export const logUsage = async (
  { db, now }: Context,
  tag: string,
  body: LogUsageBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `usage ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const refused = refusedBy(machine);
    if (refused) return refused;
    if (body.day > dayAt(at, (await loadSite(tx)).timeZone)) return fail(failure('usage.future', 'day'));
    const { day, hours, dust, by } = body;
    return ok({ id: await insertUsage(tx, { machineId: machine.id, day, hours, dust, at, by }) });
  });
};

/** How full a stage was seen to be on a day. */
export const logLook = async (
  { db, now }: Context,
  tag: string,
  body: LogLookBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `look ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const refused = refusedBy(machine);
    if (refused) return refused;
    if (!machine.stages.some((s) => s.id === body.stageId)) return fail(failure('stage.unknown', 'stageId', { tag }));
    if (body.day > dayAt(at, (await loadSite(tx)).timeZone)) return fail(failure('look.future', 'day'));
    const { stageId, day, share, by } = body;
    return ok({ id: await insertLook(tx, { stageId, day, share, at, by }) });
  });
};

/** Days on which a machine is not at hand, so that nothing is planned on them. */
export const logAway = async (
  { db, now }: Context,
  tag: string,
  body: MachineAwayBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `away ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machineId = await machineIdOf(tx, tag);
    if (machineId === null) return fail(failure('machine.unknown', '', { tag }));
    if (body.to < body.from) return fail(failure('away.backwards', 'to'));
    const { from, to, why, by } = body;
    return ok({ id: await insertAway(tx, { machineId, from, to, why, at, by }) });
  });
};

/** Days a machine is away, by the newest entry; null without one. */
export const awayOf = async ({ db }: Pick<Context, 'db'>, machineId: number): Promise<Away | null> =>
  (await loadAway(db)).get(machineId) ?? null;
