import { randomBytes } from 'node:crypto';
import { PlainAnswer } from '@/contracts/action-answer';
import type { BondingBody, ToolBody } from '@/contracts/tools';
import { dayAt } from '@/core/calendar/calendar-date';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import type { BondingReading } from '@/core/for-work/bonding';
import { checkTool, type OwnTool } from '@/core/for-work/own-tool';
import { findMachine } from '../../repositories/machines';
import { loadSite } from '../../repositories/site';
import { insertBonding, insertTool, loadBonding, loadTools } from '../../repositories/tools';
import { refusedBy } from './state-dust';
import { type Context, runOnce } from './user-action';

type Done = Result<{ readonly id: number }>;

/** Enters or changes a tool of the yard's own. Two tools in use never share a name. */
export const keepTool = async ({ db, now }: Context, body: ToolBody): Promise<Done> => {
  const at = now();
  return runOnce(db, { kind: 'tool', body, at, answers: PlainAnswer }, async (tx) => {
    const tools = await loadTools(tx);
    if (body.key !== null && !tools.some((t) => t.key === body.key)) return fail(failure('tool.unknown', 'key'));
    const { name, like, sizeM, airM3s, amps, retired } = body;
    const key = body.key ?? `own${randomBytes(4).toString('hex')}`;
    const checked = checkTool({ key, name, like, sizeM, airM3s, amps, retired }, tools);
    return checked.ok ? ok({ id: await insertTool(tx, checked.value, { at, by: body.by }) }) : checked;
  });
};

/** Writes down a continuity reading of a machine. */
export const recordBonding = async ({ db, now }: Context, tag: string, body: BondingBody): Promise<Done> => {
  const at = now();
  return runOnce(db, { kind: `bonding ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const { on, ohm, between, by } = body;
    if (on > dayAt(at, (await loadSite(tx)).timeZone)) return fail(failure('bonding.future', 'on'));
    const refused = refusedBy(machine);
    if (refused) return refused;
    return ok({ id: await insertBonding(tx, machine.id, { on, ohm, between, at, by }) });
  });
};

/** The yard's own tools; those in use first. */
export const loadToolList = async ({ db }: Pick<Context, 'db'>): Promise<readonly OwnTool[]> => {
  const all = await loadTools(db);
  return [...all.filter((t) => !t.retired), ...all.filter((t) => t.retired)];
};

/** The continuity readings of a machine, oldest first. */
export const bondingOf = async ({ db }: Pick<Context, 'db'>, machineId: number): Promise<readonly BondingReading[]> =>
  (await loadBonding(db, machineId)).get(machineId) ?? [];
