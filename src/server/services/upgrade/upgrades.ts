import { entails } from '@/core/deed/entails';
import { PlainAnswer } from '@/contracts/action-answer';
import type { PlanUpgradeBody, UpgradeActionBody } from '@/contracts/upgrade';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Machine } from '@/core/machine/machine';
import { type PathSnapshot, snapshotOf } from '@/core/machine/path-edit';
import { upgradeSteps } from '@/core/upgrade/apply';
import { bookedOf, phaseOf, type UpgradeRecord } from '@/core/upgrade/record';
import type { Db } from '../../db/connect';
import { loadPathEdits } from '../../repositories/machine-edits';
import { findMachine } from '../../repositories/machines';
import { insertSeatOpening } from '../../repositories/proofs';
import { insertUpgrade, insertUpgradeEvent, loadUpgrades } from '../../repositories/upgrades';
import { loadBench } from '../measuring/bench';
import { changePath } from '../yard/edit-path';
import { refusedBy } from '../yard/state-dust';
import { beforeTestOf, planOf } from './upgrade-plan';
import { type Context, runOnce } from '../yard/user-action';

type Done = Result<{ readonly id: number }>;

/** Stores a plan with its present prediction: the proof compares with it, also after the model changes. */
export const planUpgrade = async (context: Context, tag: string, body: PlanUpgradeBody): Promise<Done> => {
  const at = context.now();
  return runOnce(context.db, { kind: `upgrade ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const { bench } = await loadBench({ ...context, db: tx }, tag);
    if (!bench) return fail(failure('machine.unknown', '', { tag }));
    const refused = refusedBy(bench.status.machine);
    if (refused) return refused;
    const plan = planOf(bench, body.changes);
    if (!plan.ok) return plan;
    const [first, last] = [plan.value.today[0], plan.value.today.at(-1)];
    const { by, note, changes, price } = body;
    return ok({
      id: await insertUpgrade(tx, {
        machineId: bench.status.machine.id,
        at,
        by,
        note,
        changes,
        price,
        predicted: { flowM3s: first?.flow.value ?? 0, ratio: last?.ratio ?? { value: 1, low: 1, high: 1 } },
      }),
    });
  });
};

interface Acting {
  readonly tx: Db;
  readonly context: Context;
  readonly machine: Machine;
  readonly upgrade: UpgradeRecord;
  readonly body: UpgradeActionBody;
  readonly at: string;
}

const different = (a: unknown, b: unknown): boolean => JSON.stringify(a) !== JSON.stringify(b);

/** Every seat that hands were at is on record as opened. */
const openSeats = async (
  { tx, machine, upgrade, body, at }: Acting,
  from: PathSnapshot,
  to: PathSnapshot,
): Promise<void> => {
  for (const position of entails(machine, { kind: 'rebuilt', from, to }).seats) {
    const stage = machine.stages[position];
    if (stage) await insertSeatOpening(tx, { stageId: stage.id, why: `upgrade ${upgrade.id}`, at, by: body.by });
  }
};

/** Makes the path a new one where the air goes another way; null where it does not. */
const change = async (acting: Acting, path: PathSnapshot): Promise<Result<number | null>> => {
  const { tx, machine, body, at } = acting;
  const from = snapshotOf(machine);
  if (!different(from, path)) return ok(null);
  const made = await changePath(tx, machine, { path, by: body.by, note: body.note, at });
  if (!made.ok) return made;
  await openSeats(acting, from, path);
  return ok(made.value.id);
};

const book = async (acting: Acting): Promise<Done> => {
  const { tx, context, machine, upgrade, body, at } = acting;
  const edits = await loadPathEdits(tx, machine.id);
  if (edits.some((e) => e.performedAt > upgrade.at)) return fail(failure('upgrade.stale', 'upgradeId'));
  const { bench } = await loadBench({ ...context, db: tx }, machine.tag);
  const test = bench && beforeTestOf(bench);
  if (!test) return fail(failure('upgrade.measure-first', '', { tag: machine.tag }));
  const steps = upgradeSteps(snapshotOf(machine), upgrade.changes, machine.hazard);
  if (!steps.ok) return fail(failure('upgrade.stale', 'upgradeId'));
  const edit = await change(acting, steps.value.at(-1)?.path ?? snapshotOf(machine));
  if (!edit.ok) return edit;
  const event = { kind: 'booked' as const, editId: edit.value, beforeTestId: test.id, note: body.note };
  return ok({ id: await insertUpgradeEvent(tx, upgrade.id, { at, by: body.by, event }) });
};

/** Restores the earlier path; only where nothing was changed after it. */
const undo = async (acting: Acting): Promise<Done> => {
  const { tx, machine, upgrade, body, at } = acting;
  const booked = bookedOf(upgrade);
  const edits = await loadPathEdits(tx, machine.id);
  const own = edits.find((e) => e.id === booked?.editId);
  if (own && edits.at(-1)?.id !== own.id) return fail(failure('upgrade.stale', 'upgradeId'));
  const edit = own ? await change(acting, own.before) : ok(null);
  if (!edit.ok) return edit;
  const event = { kind: 'undone' as const, editId: edit.value, note: body.note };
  return ok({ id: await insertUpgradeEvent(tx, upgrade.id, { at, by: body.by, event }) });
};

/** The phase each action needs. */
const FROM = { book: 'planned', drop: 'planned', undo: 'booked' } as const;

/** Books a planned upgrade as made, undoes one, or drops the plan. */
export const actOnUpgrade = async (context: Context, tag: string, body: UpgradeActionBody): Promise<Done> => {
  const at = context.now();
  return runOnce(context.db, { kind: `upgrade action ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const upgrade = (await loadUpgrades(tx, machine.id)).find((u) => u.id === body.upgradeId);
    if (!upgrade) return fail(failure('upgrade.unknown', 'upgradeId'));
    if (phaseOf(upgrade) !== FROM[body.action])
      return fail(failure('upgrade.phase', 'upgradeId', { phase: phaseOf(upgrade) }));
    const acting = { tx, context, machine, upgrade, body, at };
    if (body.action === 'drop')
      return ok({
        id: await insertUpgradeEvent(tx, upgrade.id, { at, by: body.by, event: { kind: 'dropped', note: body.note } }),
      });
    const refused = refusedBy(machine);
    if (refused) return refused;
    return body.action === 'book' ? book(acting) : undo(acting);
  });
};

/** The upgrades of one machine, oldest first. */
export const upgradesOf = async ({ db }: Pick<Context, 'db'>, machineId: number): Promise<readonly UpgradeRecord[]> =>
  loadUpgrades(db, machineId);
