import { modelledMachine } from '../calibrate/machine-model';
import { AS_NEW } from '../path/as-new';
import { dayAt, dayNumber } from '../calendar/calendar-date';
import { CLASS_HOSE_VELOCITY } from '../constants/limits';
import { isTested, type Rule } from '../interval/rules';
import type { Machine, Stage } from '../machine/machine';
import type { GaugeZone } from '../measure/detail';
import { METHODS } from '../measure/methods';
import { reduceTest } from '../measure/reduce-test';
import { mean } from '../numeric/moments';
import { CLEAN, type PathState } from '../path/machine-path';
import { pressureProfile } from '../path/pressure-profile';
import { inForce, type TestRecord } from '../record/records';
import { isSeries, pickBaseline } from '../record/series';

/** An observation of a stage's progress to a rule's limit, on a day (as a number). */
export type Seen =
  /** Share of the limit, with its doubt as a standard deviation; of the whole path, other stages load it too. */
  | {
      readonly kind: 'share';
      readonly day: number;
      readonly share: number;
      readonly deviation: number;
      readonly wholePath: boolean;
    }
  /** Between two shares: a gauge's zone, a light. */
  | { readonly kind: 'zone'; readonly day: number; readonly above: number | null; readonly below: number | null };

/** How the flow of a path and the drop across a stage go with that stage's load. */
interface LoadTable {
  readonly load: Float64Array;
  readonly flow: Float64Array;
  readonly drop: Float64Array;
}

/** Loads that are worked out, Pa s/m3: from nothing to the heaviest there is, in equal ratios. */
const LOADS = Float64Array.from({ length: 28 }, (_, i) => (i === 0 ? 0 : 1e3 * 10 ** ((i - 1) / 5.2)));

const loadTable = (modelled: ReturnType<typeof modelledMachine>, position: number): LoadTable | null => {
  const { model, parameters } = modelled;
  const flow = new Float64Array(LOADS.length);
  const drop = new Float64Array(LOADS.length);
  for (const [i, loadPaSM3] of LOADS.entries()) {
    const state: PathState = { ...AS_NEW, stages: { ...AS_NEW.stages, [position]: { ...CLEAN, loadPaSM3 } } };
    const drawn = pressureProfile({ model, parameters, state });
    if (!drawn.ok || !(drawn.value.toolFlowM3s > 0)) return null;
    flow[i] = drawn.value.toolFlowM3s;
    drop[i] = drawn.value.steps[position]?.dropPa ?? 0;
  }
  return { load: LOADS, flow, drop };
};

/** The load at which a column, rising or falling with it, has a value; 0 before its start, null beyond its end. */
const loadAt = ({ load }: LoadTable, column: Float64Array, value: number): number | null => {
  const rising = (column.at(-1) ?? 0) > (column[0] ?? 0);
  const past = (i: number): boolean => (rising ? (column[i] ?? 0) >= value : (column[i] ?? 0) <= value);
  if (past(0)) return 0;
  const i = column.findIndex((_, k) => past(k));
  if (i < 0) return null;
  const [a, b] = [column[i - 1] ?? 0, column[i] ?? 0];
  const [from, to] = [load[i - 1] ?? 0, load[i] ?? 0];
  return from + (to - from) * (b === a ? 1 : (value - a) / (b - a));
};

interface FlowSeen {
  readonly day: number;
  /** Share of the baseline's flow lost, and its standard deviation. */
  readonly loss: number;
  readonly deviation: number;
}

/** From day to day one flow differs by so much with nothing changed: mains, the bend of a hose, how a meter is held. */
const DAY_TO_DAY = 0.02;

export interface PathSeen {
  readonly flows: readonly FlowSeen[];
  readonly drops: readonly { readonly stageId: number; readonly day: number; readonly pa: number }[];
  readonly zones: readonly {
    readonly stageId: number;
    readonly day: number;
    readonly at: string;
    readonly zone: GaugeZone;
  }[];
  readonly lights: readonly { readonly day: number; readonly on: boolean }[];
  /** Flow of the newest baseline, m3/s; null without one. */
  readonly baselineFlow: number | null;
  /** The table of a stage by its position, made once. */
  readonly table: (position: number) => LoadTable | null;
}

const usable = ({ test }: TestRecord): boolean => test.failedPreconditions.length === 0 && !test.maxHold;

/** Observations of a machine's path by its tests; days as numbers. */
export const pathSeen = (machine: Machine, tests: readonly TestRecord[]): PathSeen => {
  const standing = inForce(tests);
  const means = new Map<number, number>();
  const meanOf = (t: TestRecord): number | null => {
    const known = means.get(t.id);
    if (known !== undefined) return known;
    const reduced = reduceTest(t.test);
    if (!reduced.ok || !(reduced.value.repeats.mean > 0)) return null;
    means.set(t.id, reduced.value.repeats.mean);
    return reduced.value.repeats.mean;
  };
  const dayOf = (t: TestRecord): number => dayNumber(dayAt(t.performedAt, machine.timeZone));
  const bySeries = new Map<string, TestRecord | null>();
  const baselineFor = (t: TestRecord): TestRecord | null => {
    const { place, method, detail } = t.test;
    const newest = bySeries.get(`${place} ${method}`);
    if (newest !== undefined && newest !== null && newest.performedAt <= t.performedAt) return newest;
    return pickBaseline(tests, {
      place,
      method,
      excludeId: t.id,
      notAfter: t.performedAt,
      stageId: 'stageId' in detail ? detail.stageId : null,
    });
  };
  for (const t of standing) {
    if (!t.isBaseline || !isSeries(t) || METHODS[t.test.method].measurand !== 'flow' || !usable(t)) continue;
    const key = `${t.test.place} ${t.test.method}`;
    const held = bySeries.get(key);
    if (!held || held.performedAt < t.performedAt) bySeries.set(key, t);
  }
  const flows = standing.flatMap((t): readonly FlowSeen[] => {
    if (t.isBaseline || !isSeries(t) || METHODS[t.test.method].measurand !== 'flow' || !usable(t)) return [];
    const baseline = baselineFor(t);
    const [now, then] = [meanOf(t), baseline ? meanOf(baseline) : null];
    if (now === null || then === null) return [];
    return [{ day: dayOf(t), loss: 1 - now / then, deviation: DAY_TO_DAY * (now / then) }];
  });
  const newest = [...bySeries.values()].reduce<TestRecord | null>(
    (a, b) => (a === null || (b !== null && b.performedAt > a.performedAt) ? b : a),
    null,
  );
  const modelled = { made: null as ReturnType<typeof modelledMachine> | null };
  const tables = new Map<number, LoadTable | null>();
  return {
    flows,
    drops: standing.flatMap(({ test: { detail, method, readingsSi }, ...t }) =>
      method === 'stageDp' && detail.kind === 'stage' && readingsSi.length > 0
        ? [{ stageId: detail.stageId, day: dayNumber(dayAt(t.performedAt, machine.timeZone)), pa: mean(readingsSi) }]
        : [],
    ),
    zones: standing.flatMap((t) =>
      t.test.detail.kind === 'zone'
        ? [{ stageId: t.test.detail.stageId, day: dayOf(t), at: t.performedAt, zone: t.test.detail.zone }]
        : [],
    ),
    lights: standing.flatMap((t) =>
      t.test.detail.kind === 'light' ? [{ day: dayOf(t), on: t.test.detail.light !== 'off' }] : [],
    ),
    baselineFlow: newest ? meanOf(newest) : null,
    table: (position) => {
      const known = tables.get(position);
      if (known !== undefined) return known;
      modelled.made ??= modelledMachine(machine, tests);
      const made = loadTable(modelled.made, position);
      tables.set(position, made);
      return made;
    },
  };
};

/**
 * A flow test cannot give the state of a filter more precisely than this share of its limit; nor can a reading in Pa.
 * Modelling choices.
 */
const LEAST_BY_FLOW = 0.1;
const LEAST_BY_DROP = 0.14;
/** Where a gauge without figures of its own turns amber on its way to red. A modelling choice. */
const AMBER_OF_RED = 0.62;
/** A machine that meets its limit by less than this when clean is taken to lose this share. */
const LEAST_LOSS = 0.03;

/** The loss of flow at which a rule is reached; null for rules that no flow reaches. */
const limitLoss = (rule: Rule, machine: Machine, baselineFlow: number | null): number | null => {
  if (rule.kind === 'flowLost') return rule.share;
  if (rule.kind !== 'hoseVelocity' || machine.hoseBoreM === null || baselineFlow === null) return null;
  const least = (CLASS_HOSE_VELOCITY.value * Math.PI * machine.hoseBoreM ** 2) / 4;
  return Math.max(LEAST_LOSS, 1 - least / baselineFlow);
};

/** The load of a stage at which a rule is reached, Pa s/m3; null where the path does not tell it. */
const limitLoad = (
  seen: PathSeen,
  table: LoadTable,
  { rule, stage, machine }: { readonly rule: Rule; readonly stage: Stage; readonly machine: Machine },
): number | null => {
  if (rule.kind === 'gaugeZone') {
    const { gaugePa } = stage.spec.fit;
    return gaugePa && loadAt(table, table.drop, rule.zone === 'red' ? gaugePa.redPa : gaugePa.amberPa);
  }
  const loss = limitLoss(rule, machine, seen.baselineFlow);
  return loss === null ? null : loadAt(table, table.flow, (1 - loss) * (table.flow[0] ?? 0));
};

const zonesSeen = (
  seen: PathSeen,
  stage: Stage,
  {
    rule,
    share,
    counts,
  }: {
    readonly rule: Extract<Rule, { kind: 'gaugeZone' }>;
    readonly share: { readonly amber: number; readonly red: number };
    readonly counts: (reading: PathSeen['zones'][number]) => boolean;
  },
): readonly Seen[] =>
  seen.zones
    .filter((z) => z.stageId === stage.id)
    .flatMap((reading): readonly Seen[] => {
      const { day, zone } = reading;
      const amber = rule.zone === 'amber' ? 1 : share.amber;
      const red = rule.zone === 'red' ? 1 : share.red;
      const above = zone === 'green' ? null : zone === 'amber' ? amber : red;
      const below = zone === 'green' ? amber : zone === 'amber' ? red : null;
      // A gauge across two filters shows no more than this one has, and this one's own share only while the other is fresh.
      const own = counts(reading) ? above : null;
      return own === null && below === null ? [] : [{ kind: 'zone', day, above: own, below }];
    });

/**
 * What tests say of a stage's way to a rule's limit, each as a share of the load at the limit: a loss of flow through the
 * machine's own path, Pa across the stage, the zone of its gauge (red counts for this stage only where the gauge reads
 * across it alone, or the filter before it was fresh), the light. Source: the air-path model of the machine.
 * Valid: rules of flow, hose velocity, gauge and light; others are not seen by tests.
 */
export const seenOf = (
  seen: PathSeen,
  machine: Machine,
  {
    stage,
    rule,
    counts,
  }: {
    readonly stage: Stage;
    readonly rule: Rule;
    /** Whether the colour of a gauge reading counts for the stage. */
    readonly counts: (reading: PathSeen['zones'][number]) => boolean;
  },
): readonly Seen[] => {
  if (rule.kind === 'indicator')
    return seen.lights.map(({ day, on }) => ({ kind: 'zone', day, above: on ? 1 : null, below: on ? null : 1 }));
  if (!isTested(rule)) return [];
  const drops = seen.drops.filter((d) => d.stageId === stage.id);
  const withPath =
    seen.flows.length + drops.length > 0 || (rule.kind === 'gaugeZone' && stage.spec.fit.gaugePa !== null);
  const table = withPath ? seen.table(machine.stages.indexOf(stage)) : null;
  const limit = table ? limitLoad(seen, table, { rule, stage, machine }) : null;
  const gauge = rule.kind === 'gaugeZone' ? rule : null;
  if (!table || limit === null || !(limit > 0))
    return gauge
      ? zonesSeen(seen, stage, {
          rule: gauge,
          share: { amber: AMBER_OF_RED, red: 1 / AMBER_OF_RED },
          counts,
        })
      : [];
  const clean = table.flow[0] ?? 0;
  // More flow than the baseline's is as far to the other side: it is chance, and must not pile up at nought.
  const shareAtLoss = (loss: number): number =>
    (Math.sign(loss) * (loadAt(table, table.flow, (1 - Math.abs(loss)) * clean) ?? table.load.at(-1) ?? 0)) / limit;
  const shareAtDrop = (pa: number): number => (loadAt(table, table.drop, pa) ?? table.load.at(-1) ?? 0) / limit;
  const { gaugePa } = stage.spec.fit;
  const flows = seen.flows.map(({ day, loss, deviation }): Seen => {
    const doubt = shareAtLoss(Math.max(0, loss) + deviation) - shareAtLoss(Math.max(0, loss));
    return { kind: 'share', day, share: shareAtLoss(loss), deviation: Math.max(LEAST_BY_FLOW, doubt), wholePath: true };
  });
  return [
    ...flows,
    ...drops.map(({ day, pa }): Seen => {
      const share = shareAtDrop(pa);
      return {
        kind: 'share',
        day,
        share,
        deviation: Math.hypot(LEAST_BY_DROP, LEAST_BY_DROP * share),
        wholePath: false,
      };
    }),
    ...(gauge
      ? zonesSeen(seen, stage, {
          rule: gauge,
          share: gaugePa
            ? { amber: shareAtDrop(gaugePa.amberPa), red: shareAtDrop(gaugePa.redPa) }
            : { amber: AMBER_OF_RED, red: 1 / AMBER_OF_RED },
          counts,
        })
      : []),
  ].sort((a, b) => a.day - b.day);
};
