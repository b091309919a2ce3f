import { stated } from '@/core/dust/assess';
import { addDays, dayAt } from '@/core/calendar/calendar-date';
import type { Rule } from '@/core/interval/rules';
import type { Accuracy } from '@/core/measure/accuracy';
import { parseTestEntry } from '@/core/measure/test-entry';
import type { Instrument } from '@/core/record/records';
import { fromSi, type QuantityKind, toSi } from '@/core/units';
import type { Db } from '@/server/db/connect';
import { insertChange } from '@/server/repositories/changes';
import { insertCollected } from '@/server/repositories/dusts';
import { saveSite } from '@/server/repositories/site';
import { insertMovement } from '@/server/repositories/stock';
import { insertTest } from '@/server/repositories/tests';
import { pastOf, type PastEvent } from './history';
import { insertBaselines } from './baselines';
import { insertCases } from './cases';
import { insertJobs } from './jobs';
import { insertPathEdits } from './path-edits';
import { insertExaminations, proveSeat } from './proofs';
import { seeded } from './random';
import type { MachineSpec, RigSpec } from './scenario';
import { insertOrders, insertWear } from './wear';
import { CREW, momentOf, type Seeding } from './seeding';
import { SITE } from './site';
import { insertTools } from './tools';
import { specOf } from './truth';
import { insertUpgrades } from './upgrades';
import { MACHINES, PARTS } from './yard-data';

interface MeterSpec {
  readonly name: string;
  readonly reads: QuantityKind;
  readonly accuracy: Accuracy;
  readonly calibrationDueInDays: number;
}

const limits = (relative: number, absoluteSi: number, resolutionSi: number): Accuracy => ({
  meaning: 'limits',
  coverageFactor: 2,
  relative,
  absoluteSi,
  resolutionSi,
});

const METERS: readonly MeterSpec[] = [
  {
    name: 'Flow hood meter',
    reads: 'flow',
    accuracy: limits(0.03, toSi('flow', 0.2, 'L/s'), toSi('flow', 0.1, 'L/s')),
    calibrationDueInDays: 120,
  },
  { name: 'Vane anemometer 2', reads: 'velocity', accuracy: limits(0.015, 0.1, 0.1), calibrationDueInDays: -20 },
  {
    name: 'Water-column gauge',
    reads: 'pressure',
    accuracy: limits(0.01, 50, toSi('pressure', 1, 'inH2O')),
    calibrationDueInDays: 300,
  },
  { name: 'Particle counter', reads: 'count', accuracy: limits(0.1, 0, 1), calibrationDueInDays: 90 },
  { name: 'Socket power meter, volts', reads: 'voltage', accuracy: limits(0.01, 0.5, 0.1), calibrationDueInDays: 200 },
  { name: 'Micromanometer, 2500 Pa', reads: 'pressure', accuracy: limits(0.01, 2, 1), calibrationDueInDays: 210 },
  {
    name: 'Socket power meter, amperes',
    reads: 'current',
    accuracy: limits(0.02, 0.05, 0.01),
    calibrationDueInDays: 200,
  },
];

const idOf = (map: ReadonlyMap<string, number>, key: string): number => {
  const id = map.get(key);
  if (id === undefined) throw new Error(`the demo names "${key}", which it does not have`);
  return id;
};

interface Inserted {
  readonly id: number;
  readonly stageIds: ReadonlyMap<string, number>;
}

const insertMachine = async (s: Seeding, spec: MachineSpec): Promise<Inserted> => {
  const firstDay = addDays(s.today, -spec.inServiceDaysAgo);
  const { id } = await s.db
    .insertInto('machine')
    .values({
      tag: spec.tag,
      name: spec.name,
      kind: spec.kind,
      maker: spec.maker,
      place: spec.place,
      machine_class: spec.machineClass,
      has_brush: spec.hasBrush ? 1 : 0,
      hose_bore_m: spec.hoseBoreM,
      hose_length_m: spec.hoseLengthM,
      hose_selector_m: spec.hoseSelectorM ?? null,
      nominal_volts: 230,
      in_service_on: firstDay,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  if (spec.lastCollected !== 'nothing yet') {
    await insertCollected(s.db, id, {
      ...stated(spec.lastCollected, spec.dust ?? {}),
      since: firstDay,
      at: momentOf(s, spec.inServiceDaysAgo - 0.1),
      by: spec.dust?.lowerBecause ? 'TO' : 'AB',
    });
  }
  const stageIds = new Map<string, number>();
  for (const [position, stage] of spec.stages.entries()) {
    const row = await s.db
      .insertInto('stage')
      .values({
        machine_id: id,
        position,
        kind: stage.kind,
        name: stage.name,
        part_id: stage.part === undefined ? null : idOf(s.partIds, stage.part),
        missing: stage.missing ? 1 : 0,
        do_not_remove: stage.doNotRemove ? 1 : 0,
        first_used_on: firstDay,
        spec_json: stage.knows ? JSON.stringify(specOf(stage, spec)) : null,
      })
      .returning('id')
      .executeTakeFirstOrThrow();
    stageIds.set(stage.name, row.id);
  }
  return { id, stageIds };
};

const insertRules = async (s: Seeding, spec: MachineSpec, stageIds: ReadonlyMap<string, number>): Promise<void> => {
  for (const stage of spec.stages) {
    const rules: Rule[] = [];
    if (stage.days !== undefined) rules.push({ kind: 'calendarDays', days: stage.days });
    if (stage.countOf) {
      const { stage: countedStageName, count } = stage.countOf;
      rules.push({ kind: 'countOfChanges', countedStageId: idOf(stageIds, countedStageName), countedStageName, count });
    }
    if (stage.wear) rules.push(stage.wear);
    if (stage.examined) rules.push({ kind: 'examination', months: 14 });
    for (const rule of rules) {
      const values = {
        stage_id: idOf(stageIds, stage.name),
        rule_json: JSON.stringify(rule),
        school: stage.school ?? '',
      };
      await s.db.insertInto('rule').values(values).execute();
    }
  }
};

/** Reading texts as a person would have typed them from a display with one decimal. */
const readingsOf = (s: Seeding, rig: RigSpec, event: Extract<PastEvent, { kind: 'test' }>) => {
  const noise = event.story?.noise ?? rig.noise;
  const repeats = event.story?.repeats ?? 4;
  return Array.from({ length: repeats }, () => ({
    typed: (rig.clean * event.factor * (1 + noise * s.random.normal())).toFixed(1),
    unit: rig.unit,
    slot: 0,
    how: 'typed' as const,
    struckBecause: null,
  }));
};

interface TestPlace {
  readonly machineId: number;
  readonly spec: MachineSpec;
  readonly rig: RigSpec;
  readonly afterChangeId: number | null;
}

const insertPastTest = async (
  s: Seeding,
  event: Extract<PastEvent, { kind: 'test' }>,
  place: TestPlace,
): Promise<number> => {
  const { rig, spec } = place;
  const instrument = s.meters.find((m) => m.name === rig.instrument) ?? null;
  const entry = {
    method: rig.method,
    place: rig.place,
    readings: readingsOf(s, rig, event),
    bore: rig.boreM === undefined ? null : { typed: String(fromSi('length', rig.boreM, 'mm')), unit: 'mm' },
    profileFactor: rig.profileFactor ?? null,
    hoseBore: spec.hoseBoreM === null ? null : { typed: String(spec.hoseBoreM), unit: 'm' },
    air: {
      temperature: { typed: (14 + 8 * s.random.uniform()).toFixed(0), unit: 'degC' },
      humidity: { typed: (45 + 30 * s.random.uniform()).toFixed(0), unit: '%' },
      pressure: null,
    },
    detail: { kind: 'none' as const },
    volts: event.story?.volts === undefined ? null : { typed: String(event.story.volts), unit: 'V' },
    rigSeries: 1,
    failedPreconditions: [],
  };
  const parsed = parseTestEntry(entry, { altitudeM: SITE.altitudeM, instrument });
  if (!parsed.ok) throw new Error(`demo test of ${spec.tag}: ${parsed.failures.map((f) => f.code).join()}`);
  const performedAt = momentOf(s, event.daysAgo);
  return insertTest(s.db, {
    machineId: place.machineId,
    performedAt,
    recordedAt: performedAt,
    by: CREW[Math.floor(s.random.uniform() * CREW.length)] ?? 'MK',
    note: event.story?.note ?? '',
    parsed: parsed.value,
    isBaseline: event.baseline,
    bagState: event.state,
    afterChangeId: place.afterChangeId,
    configuration: event.story?.configuration ?? '',
    use: { wheelM: null, ductLoad: spec.ductLoad ?? null },
    supersedes: null,
  });
};

const insertPast = async (s: Seeding, spec: MachineSpec, { id: machineId, stageIds }: Inserted): Promise<void> => {
  let lastTestId: number | null = null;
  let lastChange: { id: number; measured: boolean } | null = null;
  for (const event of pastOf(spec, s.random)) {
    if (event.kind === 'test') {
      if (!spec.rig) continue;
      const afterChangeId: number | null = event.state === 'asLeft' && lastChange?.measured ? lastChange.id : null;
      lastTestId = await insertPastTest(s, event, { machineId, spec, rig: spec.rig, afterChangeId });
      continue;
    }
    const stage = spec.stages.find((x) => x.name === event.stage);
    const performedAt = momentOf(s, event.daysAgo);
    const by = CREW[Math.floor(s.random.uniform() * CREW.length)] ?? 'MK';
    const partId = stage?.part === undefined ? null : idOf(s.partIds, stage.part);
    const id: number = await insertChange(s.db, {
      machineId,
      stageId: idOf(stageIds, event.stage),
      performedAt,
      recordedAt: performedAt,
      by,
      note: '',
      reason: stage?.life?.reason ?? 'date',
      partId,
      quantity: partId === null ? 0 : 1,
      beforeTestId: event.measured ? lastTestId : null,
      jobId: null,
      supersedes: null,
    });
    if (partId !== null) {
      await insertMovement(s.db, {
        partId,
        quantity: -1,
        reason: 'taken',
        at: performedAt,
        by,
        of: { kind: 'change', id },
        note: '',
      });
    }
    if (stage)
      await proveSeat(s, {
        machineId,
        stageId: idOf(stageIds, event.stage),
        machineClass: spec.machineClass,
        kind: stage.kind,
        performedAt,
        by,
      });
    lastChange = { id, measured: event.measured };
  }
};

/** Deliveries in whole packs that bring each shelf to what the scenario says it holds today. */
const insertDeliveries = async (s: Seeding): Promise<void> => {
  for (const part of PARTS) {
    const partId = idOf(s.partIds, part.code);
    const taken = await s.db
      .selectFrom('stock_movement')
      .select((eb) => eb.fn.sum<number | null>('quantity').as('sum'))
      .where('part_id', '=', partId)
      .executeTakeFirstOrThrow();
    const needed = part.today - (taken.sum ?? 0);
    const opening = needed % part.packSize;
    const base = { partId, by: 'AB', of: { kind: 'none' } as const };
    await insertMovement(s.db, {
      ...base,
      quantity: opening,
      reason: 'opening',
      at: momentOf(s, 729),
      note: 'counted at the start',
    });
    const packs = (needed - opening) / part.packSize;
    for (let i = 0; i < packs; i += 1) {
      const at = momentOf(s, 720 - (i * 700) / packs);
      await insertMovement(s.db, { ...base, quantity: part.packSize, reason: 'delivery', at, note: 'one pack' });
    }
  }
};

const insertMeters = async (db: Db, today: string): Promise<readonly Instrument[]> => {
  const meters: Instrument[] = [];
  for (const m of METERS) {
    const calibrationDueOn = addDays(today, m.calibrationDueInDays);
    const { id } = await db
      .insertInto('instrument')
      .values({
        name: m.name,
        reads: m.reads,
        accuracy_json: JSON.stringify(m.accuracy),
        calibration_due_on: calibrationDueOn,
      })
      .returning('id')
      .executeTakeFirstOrThrow();
    meters.push({
      id,
      name: m.name,
      reads: m.reads,
      accuracy: m.accuracy,
      calibrationDueOn,
      certificate: '',
      retired: false,
    });
  }
  return meters;
};

export interface SeedOptions {
  /** The moment that counts as now; the history leads up to it. */
  readonly now: string;
  readonly seed: number;
}

/** Writes Curlew Reach Boatyard into an empty, migrated database, in one transaction. Throws when it is not empty. */
export const seedDemo = async (database: Db, { now, seed }: SeedOptions): Promise<void> => {
  await database.transaction().execute(async (db) => {
    if (await db.selectFrom('machine').select('id').executeTakeFirst())
      throw new Error('the database already holds machines');
    const today = dayAt(now, SITE.timeZone);
    await saveSite(db, SITE);
    const partIds = new Map<string, number>();
    for (const { code, name, packSize, bin, price, leadDays, shelfDays } of PARTS) {
      const row = await db
        .insertInto('part')
        .values({ code, name, pack_size: packSize, bin, price, lead_days: leadDays, shelf_days: shelfDays ?? null })
        .returning('id')
        .executeTakeFirstOrThrow();
      partIds.set(code, row.id);
    }
    const meters = await insertMeters(db, today);
    const seeding: Seeding = { db, nowMs: Date.parse(now), today, random: seeded(seed), partIds, meters };
    const machineIds = new Map<string, number>();
    for (const spec of MACHINES) {
      const inserted = await insertMachine(seeding, spec);
      machineIds.set(spec.tag, inserted.id);
      await insertRules(seeding, spec, inserted.stageIds);
      await insertPast(seeding, spec, inserted);
      await insertBaselines(seeding, spec, { ...inserted, seed });
      await insertWear(seeding, spec, inserted);
      await insertExaminations(seeding, spec, inserted.id);
    }
    await insertPathEdits(seeding);
    await insertCases(seeding);
    await insertJobs(seeding);
    await insertDeliveries(seeding);
    await insertOrders(seeding);
    await insertUpgrades(seeding);
    await insertTools(seeding, (tag) => idOf(machineIds, tag));
  });
};
