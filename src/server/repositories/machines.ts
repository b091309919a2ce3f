import { readStored } from '@/contracts/stored';
import { IntegrityTestName, MachineClassName, MachineKindName, StageKindName } from '@/contracts/enums';
import { RuleJson } from '@/contracts/json-columns';
import { StageSpecJson } from '@/contracts/stage-spec';
import { machineDust } from '@/core/dust/history';
import type { Dust } from '@/core/dust/dust';
import type { RuleRecord } from '@/core/interval/rules';
import type { IntegrityCheck } from '@/core/machine/integrity';
import type { MachineKind } from '@/core/machine/kinds';
import type { Machine, Stage } from '@/core/machine/machine';
import { stageTemplate } from '@/core/machine/stage-templates';
import type { Db } from '../db/connect';
import type { Row } from '../db/tables';
import { type DustRecords, loadDustRecords, loadRegister } from './dusts';
import { grouped } from './grouped';
import { loadExaminations, loadPenetrationTests } from './proofs';
import { loadSite } from './site';
import { loadWear, type Wear } from './wear';
import { dayAt } from '@/core/calendar/calendar-date';

type StageRow = Row<'stage'> & { part_code: string | null; part_name: string | null; started_on: string | null };

const toRule = (row: Row<'rule'>): RuleRecord => ({
  id: row.id,
  stageId: row.stage_id,
  rule: readStored(RuleJson, row.rule_json),
  school: row.school,
});

interface Seat {
  readonly fittedAt: ReadonlyMap<number, string>;
  readonly openedAt: ReadonlyMap<number, string>;
  readonly checks: ReadonlyMap<number, readonly (IntegrityCheck & { readonly stageId: number })[]>;
}

/** The later of two moments by stage. */
const latest = (rows: readonly { readonly stage_id: number; readonly at: string }[]): ReadonlyMap<number, string> => {
  const found = new Map<number, string>();
  for (const { stage_id: id, at } of rows) if (at > (found.get(id) ?? '')) found.set(id, at);
  return found;
};

/** Per stage: its last new part, the last opening of its seat, and its tests; of some stages when they are named. */
const loadSeats = async (db: Db, stageIds: readonly number[] | null): Promise<Seat> => {
  const some = stageIds !== null;
  const ids = stageIds ?? [];
  const openings = await db
    .selectFrom('seat_opening')
    .select(({ fn }) => ['stage_id', fn.max('at').as('at')])
    .$if(some, (q) => q.where('stage_id', 'in', ids))
    .groupBy('stage_id')
    .execute();
  const changed = await db
    .selectFrom('stage_change as c')
    .leftJoin('stage_change as next', 'next.supersedes_id', 'c.id')
    .select(({ fn }) => ['c.stage_id', fn.max('c.performed_at').as('at')])
    .where('next.id', 'is', null)
    .where('c.voided', '=', 0)
    .$if(some, (q) => q.where('c.stage_id', 'in', ids))
    .groupBy('c.stage_id')
    .execute();
  const fitted = await db
    .selectFrom('stage_change as c')
    .leftJoin('stage_change as next', 'next.supersedes_id', 'c.id')
    .select(({ fn }) => ['c.stage_id', fn.max('c.performed_at').as('at')])
    .where('next.id', 'is', null)
    .where('c.voided', '=', 0)
    .where('c.part_id', 'is not', null)
    .$if(some, (q) => q.where('c.stage_id', 'in', ids))
    .groupBy('c.stage_id')
    .execute();
  const checks = await db
    .selectFrom('integrity_check')
    .selectAll()
    .$if(some, (q) => q.where('stage_id', 'in', ids))
    .orderBy('id')
    .execute();
  return {
    fittedAt: new Map(fitted.map((f) => [f.stage_id, f.at])),
    openedAt: latest([...openings, ...changed]),
    checks: grouped(
      checks.map((c) => ({
        stageId: c.stage_id,
        test: IntegrityTestName.parse(c.test),
        passed: c.passed === 1,
        at: c.at,
        by: c.by_initials,
        note: c.note,
      })),
      (c) => c.stageId,
    ),
  };
};

const dayOrNull = (moment: string | undefined, timeZone: string): string | null =>
  moment === undefined ? null : dayAt(moment, timeZone);

const toStage = (
  row: StageRow,
  { rules, seats, looks, timeZone }: Pick<Parts, 'rules' | 'seats' | 'looks' | 'timeZone'>,
  machineKind: MachineKind,
): Stage => ({
  id: row.id,
  position: row.position,
  kind: StageKindName.parse(row.kind),
  spec:
    row.spec_json === null
      ? stageTemplate(StageKindName.parse(row.kind), machineKind)
      : readStored(StageSpecJson, row.spec_json),
  name: row.name,
  part:
    row.part_id !== null && row.part_code !== null && row.part_name !== null
      ? { id: row.part_id, code: row.part_code, name: row.part_name }
      : null,
  missing: row.missing === 1,
  missingSince: row.missing_since,
  doNotRemove: row.do_not_remove === 1,
  // Somebody may have said later from which day its time counts.
  firstUsedOn: row.started_on ?? row.first_used_on,
  fittedOn: dayOrNull(seats.fittedAt.get(row.id), timeZone),
  openedAt: seats.openedAt.get(row.id) ?? null,
  proven: (seats.checks.get(row.id) ?? []).map(({ test, passed, at, by, note }) => ({ test, passed, at, by, note })),
  rules: rules.get(row.id) ?? [],
  looks: (looks.get(row.id) ?? []).map(({ day, share }) => ({ day, share })),
});

interface Parts {
  readonly timeZone: string;
  readonly stages: readonly StageRow[];
  readonly rules: ReadonlyMap<number, readonly RuleRecord[]>;
  readonly seats: Seat;
  readonly looks: ReadonlyMap<number, Wear['looks']>;
  /** Run hours of this machine. */
  readonly hours: Wear['hours'];
  readonly register: readonly Dust[];
  readonly dust: DustRecords;
  readonly proofs: {
    readonly penetration: Awaited<ReturnType<typeof loadPenetrationTests>>;
    readonly examinations: Awaited<ReturnType<typeof loadExaminations>>;
  };
  readonly edits: readonly Pick<Row<'path_edit'>, 'id' | 'machine_id' | 'performed_at' | 'reshapes'>[];
}

/** A machine's dust, and the words of its last statement. */
const dustOf = (
  machineId: number,
  { register, dust, hours }: Parts,
): Pick<Machine, 'dust' | 'hazard' | 'lastCollected'> => {
  const entries = dust.entries.get(machineId) ?? [];
  const of = machineDust(register, { entries, hours, decontaminations: dust.decontaminations.get(machineId) ?? [] });
  const newest = of.collected[0]?.text ?? (of.last ? 'nothing since it was decontaminated' : 'nothing yet');
  return { dust: of, hazard: of.standing.level, lastCollected: newest };
};

const toMachine = (row: Row<'machine'>, parts: Parts): Machine => ({
  id: row.id,
  tag: row.tag,
  name: row.name,
  kind: MachineKindName.parse(row.kind),
  maker: row.maker,
  place: row.place,
  machineClass: MachineClassName.nullable().parse(row.machine_class),
  ...dustOf(row.id, parts),
  hasBrush: row.has_brush === 1,
  hoseBoreM: row.hose_bore_m,
  hoseLengthM: row.hose_length_m,
  hoseSelectorM: row.hose_selector_m,
  nominalVolts: row.nominal_volts,
  wetSet: row.wet_set === 1,
  inServiceOn: row.in_service_on,
  hours: parts.hours.map(({ day, hours, dust }) => ({ day, hours, dust })),
  stages: parts.stages
    .filter((r) => r.retired_on === null)
    .map((r) => toStage(r, parts, MachineKindName.parse(row.kind))),
  examinations: parts.proofs.examinations.filter((e) => e.machineId === row.id),
  penetration: parts.proofs.penetration.filter((t) => t.machineId === row.id),
  retired: parts.stages.filter((r) => r.retired_on !== null).map(({ id, name }) => ({ id, name })),
  editedThrough: Math.max(0, ...parts.edits.map((e) => e.id)),
  timeZone: parts.timeZone,
  reshapedAt: parts.edits.filter((e) => e.reshapes === 1).at(-1)?.performed_at ?? null,
});

/** Every machine with its stages in path order, by tag; one alone when it is named. */
export const loadMachines = async (db: Db, machineId?: number): Promise<readonly Machine[]> => {
  const one = machineId ?? 0;
  const all = machineId === undefined;
  const machines = await db
    .selectFrom('machine')
    .selectAll()
    .$if(!all, (q) => q.where('id', '=', one))
    .orderBy('tag')
    .execute();
  const stages = grouped(
    await db
      .selectFrom('stage')
      .leftJoin('part', 'part.id', 'stage.part_id')
      .selectAll('stage')
      .select(['part.code as part_code', 'part.name as part_name'])
      .select((q) =>
        q
          .selectFrom('stage_start')
          .select('day')
          .whereRef('stage_start.stage_id', '=', 'stage.id')
          .orderBy('stage_start.id', 'desc')
          .limit(1)
          .as('started_on'),
      )
      .$if(!all, (q) => q.where('stage.machine_id', '=', one))
      .orderBy('position')
      .execute(),
    (r) => r.machine_id,
  );
  const edits = grouped(
    await db
      .selectFrom('path_edit')
      .select(['id', 'machine_id', 'performed_at', 'reshapes'])
      .$if(!all, (q) => q.where('machine_id', '=', one))
      .orderBy('id')
      .execute(),
    (e) => e.machine_id,
  );
  const rules = grouped(
    await db
      .selectFrom('rule')
      .innerJoin('stage', 'stage.id', 'rule.stage_id')
      .selectAll('rule')
      .$if(!all, (q) => q.where('stage.machine_id', '=', one))
      .orderBy('rule.id')
      .execute(),
    (r) => r.stage_id,
  );
  const { timeZone } = await loadSite(db);
  const wear = await loadWear(db, machineId);
  const hours = grouped(wear.hours, (h) => h.machineId);
  const shared = {
    timeZone,
    seats: await loadSeats(db, all ? null : [...stages.values()].flat().map((s) => s.id)),
    looks: grouped(wear.looks, (l) => l.stageId),
    rules: new Map([...rules].map(([id, rows]) => [id, rows.map(toRule)])),
    register: await loadRegister(db),
    dust: await loadDustRecords(db, machineId),
    proofs: {
      penetration: await loadPenetrationTests(db, machineId),
      examinations: await loadExaminations(db, machineId),
    },
  };
  return machines.map((row) =>
    toMachine(row, {
      ...shared,
      hours: hours.get(row.id) ?? [],
      stages: stages.get(row.id) ?? [],
      edits: edits.get(row.id) ?? [],
    }),
  );
};

/** The number of the machine of a tag, now or once, without regard to case; null when there is none. */
export const machineIdOf = async (db: Db, tag: string): Promise<number | null> => {
  const exact = await db.selectFrom('machine').select('id').where('tag', '=', tag.trim()).executeTakeFirst();
  if (exact) return exact.id;
  const wanted = tag.trim().toUpperCase();
  const known = await db.selectFrom('machine').select(['id', 'tag']).execute();
  return known.find((m) => m.tag.toUpperCase() === wanted)?.id ?? (await formerlyTagged(db, wanted));
};

const formerlyTagged = async (db: Db, wanted: string): Promise<number | null> => {
  const once = await db.selectFrom('former_tag').select(['machine_id', 'tag']).orderBy('id', 'desc').execute();
  return once.find((f) => f.tag.toUpperCase() === wanted)?.machine_id ?? null;
};

/** The tag a machine has now, by one it had; null when no machine had it. */
export const tagNow = async (db: Db, tag: string): Promise<string | null> => {
  const id = await formerlyTagged(db, tag.trim().toUpperCase());
  if (id === null) return null;
  const row = await db.selectFrom('machine').select('tag').where('id', '=', id).executeTakeFirst();
  return row?.tag ?? null;
};

/** Finds a machine by its tag and loads it alone, with its years of use; null when there is none. */
export const findMachine = async (db: Db, tag: string): Promise<Machine | null> => {
  const id = await machineIdOf(db, tag);
  return id === null ? null : ((await loadMachines(db, id))[0] ?? null);
};

/** The stages that are in use, of every machine. */
export const stageIdsInUse = async (db: Db): Promise<ReadonlySet<number>> => {
  const rows = await db.selectFrom('stage').select('id').where('retired_on', 'is', null).execute();
  return new Set(rows.map((r) => r.id));
};
