import { namedStage } from '@/core/interval/rules';
import { PathAnswer } from '@/contracts/action-answer';
import type { EditPathBody, NewMachineBody, RetagBody } from '@/contracts/machine-edit';
import { at, fail, failure, type Failure, ok, type Result } from '@/core/failure/failure';
import { dayAt } from '@/core/calendar/calendar-date';
import type { Machine, MachineAirPath } from '@/core/machine/machine';
import {
  type EditedStage,
  modelOfSnapshot,
  pathDifferences,
  type PathSnapshot,
  reshapes,
  snapshotOf,
} from '@/core/machine/path-edit';
import { usualRules } from '@/core/machine/usual-rules';
import { checkMachinePath } from '@/core/path/path-rules';
import type { Db } from '../../db/connect';
import {
  insertMachine,
  insertPathEdit,
  retag,
  saveStages,
  tagTaken,
  updateMachine,
} from '../../repositories/machine-edits';
import { findMachine } from '../../repositories/machines';
import { replaceRules } from '../../repositories/rules';
import { loadSite } from '../../repositories/site';
import { loadParts } from '../../repositories/stock';
import { keepStatement } from './state-dust';
import { type Context, runOnce } from './user-action';

export interface PathEdited {
  readonly id: number;
  readonly tag: string;
}

const unknownParts = async (db: Db, stages: readonly EditedStage[]): Promise<readonly Failure[]> => {
  const parts = await loadParts(db);
  return stages.flatMap((s, i) =>
    s.partId !== null && !parts.some((p) => p.id === s.partId)
      ? [failure('part.unknown', `path.stages.${i}.partId`)]
      : [],
  );
};

const strangers = (machine: Machine, stages: readonly EditedStage[]): readonly Failure[] =>
  stages.flatMap((s, i) => {
    const twice = stages.findIndex((x) => x.id !== null && x.id === s.id) < i;
    const unknown = s.id !== null && !machine.stages.some((x) => x.id === s.id);
    return s.id !== null && (unknown || twice)
      ? [failure('stage.unknown', `path.stages.${i}`, { tag: machine.tag })]
      : [];
  });

/** A stage that another stage's rule names cannot be removed. */
const stillCounted = (machine: MachineAirPath, stages: readonly EditedStage[]): readonly Failure[] => {
  const kept = (id: number) => stages.some((s) => s.id === id);
  const counted = machine.stages
    .filter((s) => kept(s.id))
    .flatMap((s) => s.rules.flatMap(({ rule }) => namedStage(rule) ?? []));
  return machine.stages
    .filter((s) => !kept(s.id) && counted.includes(s.id))
    .map((s) => failure('stage.used', 'path.stages', { stage: s.name }));
};

const checkPath = async (db: Db, path: PathSnapshot): Promise<readonly Failure[]> => {
  const rules = at('path', checkMachinePath(modelOfSnapshot(path), { wet: path.machine.wetSet }));
  return [...(rules.ok ? [] : rules.failures), ...(await unknownParts(db, path.stages))];
};

interface NewStages {
  /** Places of the path whose stages are new. */
  readonly places: readonly number[];
  readonly chosen: NewMachineBody['rules'];
}

/** Lays the rules of new stages: those chosen, else the usual ones of the kind. A count of another stage's changes cannot be asked for before that one is on record. */
const layRules = async (tx: Db, machine: Machine, { places, chosen }: NewStages): Promise<Result<null>> => {
  const { ruleSet } = await loadSite(tx);
  for (const place of places) {
    const stage = machine.stages[place];
    if (!stage) continue;
    const usual = usualRules(stage.kind, {
      kind: machine.kind,
      machineClass: machine.machineClass,
      ruleSet,
      hasGauge: stage.spec.fit.gaugePa !== null,
    });
    const rules = chosen?.[place] ?? usual;
    if (rules.some(({ rule }) => namedStage(rule) !== null))
      return fail(failure('stage.unknown', `rules.${place}`, { tag: machine.tag }));
    await replaceRules(tx, stage.id, rules);
  }
  return ok(null);
};

interface PathChange {
  readonly path: PathSnapshot;
  readonly by: string;
  readonly note: string;
  readonly at: string;
  readonly rules?: NewMachineBody['rules'];
}

/** Changes the path of a machine inside an action, and keeps what it was. */
export const changePath = async (tx: Db, machine: Machine, change: PathChange): Promise<Result<PathEdited>> => {
  const { path, by, note, at: performedAt } = change;
  const failures = [
    ...strangers(machine, path.stages),
    ...stillCounted(machine, path.stages),
    ...(await checkPath(tx, path)),
  ];
  if (failures.length > 0) return fail(...failures);
  const before = snapshotOf(machine);
  const differences = pathDifferences(before, path);
  if (differences.length === 0) return fail(failure('edit.nothing'));
  const { timeZone } = await loadSite(tx);
  await updateMachine(tx, machine.id, path.machine);
  await saveStages(tx, {
    machineId: machine.id,
    stages: path.stages,
    missingSince: new Map(machine.stages.map((s) => [s.id, s.missingSince])),
    wasMissing: new Set(machine.stages.filter((s) => s.missing).map((s) => s.id)),
    at: performedAt,
    today: dayAt(performedAt, timeZone),
  });
  const edited = await findMachine(tx, machine.tag);
  const places = path.stages.flatMap((s, i) => (s.id === null ? [i] : []));
  const laid = edited ? await layRules(tx, edited, { places, chosen: change.rules }) : ok(null);
  if (!laid.ok) return laid;
  const id = await insertPathEdit(tx, {
    machineId: machine.id,
    performedAt,
    by,
    note,
    before,
    after: path,
    reshapes: reshapes(differences),
  });
  return ok({ id, tag: machine.tag });
};

/** Changes a machine and its air path in one go, and keeps what it was; refused when somebody else was here meanwhile. */
export const editPath = async ({ db, now }: Context, tag: string, body: EditPathBody): Promise<Result<PathEdited>> => {
  const at = now();
  return runOnce(db, { kind: `edit path ${tag}`, body, at, answers: PathAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    if (machine.editedThrough !== body.seen) return fail(failure('edit.stale', 'seen'));
    const { path, by, note, rules } = body;
    return changePath(tx, machine, { path, by, note, at, rules });
  });
};

interface Entering {
  readonly body: Omit<NewMachineBody, 'clientId'>;
  readonly at: string;
}

/** A new machine with its air path, inside an action: its timers run from its first use, today or on a day past. */
export const enterMachine = async (tx: Db, { body, at: performedAt }: Entering): Promise<Result<PathEdited>> => {
  const tag = body.tag.toUpperCase();
  if (await tagTaken(tx, tag)) return fail(failure('machine.tag-taken', 'tag', { tag }));
  const failures = await checkPath(tx, body.path);
  if (failures.length > 0) return fail(...failures);
  const { timeZone } = await loadSite(tx);
  const today = dayAt(performedAt, timeZone);
  const firstUsedOn = body.firstUsedOn ?? today;
  if (firstUsedOn > today) return fail(failure('date.future', 'firstUsedOn', { day: firstUsedOn }));
  const id = await insertMachine(tx, { ...body.path.machine, tag, kind: body.kind, inServiceOn: firstUsedOn });
  const stages = body.path.stages.map((s) => ({ ...s, id: null }));
  await saveStages(tx, {
    machineId: id,
    stages,
    missingSince: new Map(),
    wasMissing: new Set(),
    at: performedAt,
    today: firstUsedOn,
  });
  const made = await findMachine(tx, tag);
  const laid = made ? await layRules(tx, made, { places: stages.map((_, i) => i), chosen: body.rules }) : ok(null);
  if (!laid.ok) return laid;
  const said = made ? await keepStatement(tx, made, { statement: body.dust, by: body.by, at: performedAt }) : null;
  return said && !said.ok ? said : ok({ id, tag });
};

/** Enters a new machine; earlier work can then be recorded with its day. */
export const newMachine = async ({ db, now }: Context, body: NewMachineBody): Promise<Result<PathEdited>> =>
  runOnce(db, { kind: 'new machine', body, at: now(), answers: PathAnswer }, (tx) =>
    enterMachine(tx, { body, at: now() }),
  );

/** Puts a wrong tag right. The old one goes on finding the machine, so that printed labels work, and is given to no other. */
export const correctTag = async ({ db, now }: Context, tag: string, body: RetagBody): Promise<Result<PathEdited>> =>
  runOnce(db, { kind: `retag ${tag}`, body, at: now(), answers: PathAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const wanted = body.tag.toUpperCase();
    if (wanted === machine.tag) return fail(failure('edit.nothing'));
    if (await tagTaken(tx, wanted, machine.id)) return fail(failure('machine.tag-taken', 'tag', { tag: wanted }));
    await retag(tx, machine.id, { from: machine.tag, to: wanted, at: now(), by: body.by });
    return ok({ id: machine.id, tag: wanted });
  });
