// Machines of the other yard, drawn from a table of its own: what such machines move and pull by common practice, with
// the drop shared out among the stages. The engine is told the kind, the hose and the baselines, nothing else.
import { calibrate } from '@/core/calibrate/calibrate';
import type { Observation } from '@/core/calibrate/observation';
import type { MachineKind } from '@/core/machine/kinds';
import type { MachineModel, PathParameters } from '@/core/path/machine-path';
import { gapOfPlace } from '@/core/path/path-places';
import { templateParameters } from '@/core/path/pressure-profile';
import type { StageKind } from '@/core/path/stage-kinds';
import type { Random } from '../../../../demo/random';
import { CLEAN_STATE, modelOf, templateMachine } from '../../../support/machines';
import { entryAt, type Spot } from '../true-machine';
import { type Hole, type OwnAir, type OwnFan, type Segment, settle } from './air';

export interface Known {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  readonly calibrated: boolean;
  readonly baselines: Readonly<Record<string, number>>;
}

export interface OwnMachine {
  readonly kind: MachineKind;
  readonly known: Known;
  /** Sound, as on the day of the case: a little leakier and dustier than when its baselines were taken. */
  readonly air: OwnAir;
  /** Each stage with nothing in it, as a new part would be. */
  readonly clean: readonly Segment[];
  /** Tools that share the air. */
  readonly tools: number;
  readonly induction: boolean;
}

/** Suction sealed, free flow of the bare fan, flow at work with all on it; Pa and m3/s. Common practice, no published source. */
const PLATES: Record<MachineKind, readonly [p0Pa: number, qMaxM3s: number, atWorkM3s: number]> = {
  shopVacuum: [19_500, 0.066, 0.04],
  mExtractor: [24_500, 0.07, 0.037],
  hExtractor: [23_500, 0.066, 0.034],
  hepaTank: [24_000, 0.062, 0.036],
  grinderExtractor: [23_000, 0.15, 0.08],
  pneumaticHepa: [21_000, 0.085, 0.04],
  singleStageCollector: [2100, 0.42, 0.24],
  cycloneCollector: [2900, 0.5, 0.26],
  fumeExtractor: [2600, 0.09, 0.05],
  floorCleaner: [19_000, 0.05, 0.031],
  centralUnit: [27_000, 0.075, 0.05],
};

/** Parts of the drop at work by stage, and how they go with the flow. Common practice, no published source. */
const SHARES: Partial<Record<StageKind, readonly [share: number, exponent: number, doubt: number]>> = {
  nozzle: [0.2, 1.98, 0.04],
  shroud: [0.3, 1.98, 0.04],
  hood: [0.12, 1.98, 0.04],
  wye: [0.05, 1.95, 0.05],
  hose: [0.42, 1.85, 0.06],
  duct: [0.35, 1.88, 0.06],
  inlet: [0.05, 2, 0.03],
  dropChamber: [0.06, 1.95, 0.05],
  cyclone: [0.2, 1.95, 0.05],
  ring: [0.06, 1.95, 0.05],
  bag: [0.05, 1.15, 0.1],
  mainFilter: [0.07, 1.12, 0.1],
  prefilter: [0.05, 1.15, 0.1],
  hepa: [0.08, 1.05, 0.05],
  canister: [0.08, 1.1, 0.1],
  gas: [0.08, 1.3, 0.1],
  exhaustFilter: [0.06, 1.1, 0.08],
  muffler: [0.1, 1.9, 0.06],
  exhaust: [0.05, 1.9, 0.06],
};

const INDUCTION: ReadonlySet<MachineKind> = new Set(['singleStageCollector', 'cycloneCollector', 'fumeExtractor']);

const BORES: Partial<Record<MachineKind, number>> = {
  singleStageCollector: 0.125,
  cycloneCollector: 0.15,
  grinderExtractor: 0.05,
  centralUnit: 0.05,
  fumeExtractor: 0.08,
  shopVacuum: 0.038,
};

export const spread = (random: Random, share: number): number => Math.exp(share * random.normal());
export const range = (random: Random, low: number, high: number): number => low + (high - low) * random.uniform();

const liftAt = (fan: OwnFan, q: number): number => fan.p0Pa * (1 - (q / fan.qMaxM3s) ** fan.bend);

/** The gap in front of the first stage that a word names, as the trade counts places. */
export const gapAt = (kinds: readonly StageKind[], spot: Spot): number => gapOfPlace(kinds, spot);

const segmentsOf = (random: Random, model: MachineModel, fan: OwnFan, atWork: number): readonly Segment[] => {
  const kinds = model.stages.map((x) => x.kind);
  const wye = kinds.indexOf('wye');
  // The lower bag of a collector hangs beside the air.
  const beside = (i: number) => kinds[i] === 'bag' && model.stages[i]?.spec.air.form !== 'medium';
  const parts = kinds.map((kind, i) => (beside(i) ? 1e-4 : (SHARES[kind]?.[0] ?? 0.05)) * spread(random, 0.35));
  const total = kinds.reduce((sum, kind, i) => (kind === 'fan' ? sum : sum + (parts[i] ?? 0)), 0);
  const lift = liftAt(fan, atWork);
  return kinds.map((kind, i) => {
    const [, exponent, doubt] = SHARES[kind] ?? [0, 1.9, 0.05];
    const n = exponent + doubt * random.normal();
    const ways = i < wye ? 2 : 1;
    return { a: (lift * (parts[i] ?? 0)) / total / (atWork / ways) ** n, n, ways };
  });
};

/** An ordinary hole that lets in so much at the suction of the sealed machine. */
const holeOf = (random: Random, kinds: readonly StageKind[], fan: OwnFan, share: number): Hole => {
  const at = Math.min(kinds.length - 1, Math.floor(random.uniform() * kinds.length));
  const m = range(random, 0.5, 0.65);
  const p = fan.p0Pa * (at > fan.at ? 0.05 : 0.9);
  return {
    at: at === fan.at ? Math.max(0, at - 1) : at,
    along: random.uniform(),
    c: (share * fan.qMaxM3s) / p ** m,
    m,
  };
};

interface Read {
  readonly inlet: number;
  readonly toolEnd: number;
  readonly sealed: number;
}

const baselineOf = (random: Random, air: OwnAir, kinds: readonly StageKind[], tools: number): Read => {
  const meter = spread(random, 0.015);
  return {
    inlet: settle(air, { gap: gapAt(kinds, 'inlet'), sealed: false }).entersM3s * meter * spread(random, 0.012),
    toolEnd:
      (settle(air, { gap: 0, sealed: false }).entersM3s / tools) * meter * spread(random, 0.02) * spread(random, 0.012),
    sealed:
      (settle(air, { gap: gapAt(kinds, 'inlet'), sealed: true }).belowPa[gapAt(kinds, 'inlet')] ?? 0) *
      spread(random, 0.012),
  };
};

const observationsOf = (known: MachineModel, kinds: readonly StageKind[], read: Read): readonly Observation[] => {
  const common = { testId: null, state: CLEAN_STATE } as const;
  const flow = (spot: 'inlet' | 'toolEnd'): Observation => ({
    ...common,
    label: spot,
    what: 'flow',
    entry: entryAt(known, spot, false),
    at: 'in',
    value: read[spot],
    standardUncertainty: 0.025 * read[spot],
    expanded: 0.05 * read[spot],
  });
  return [
    flow('inlet'),
    flow('toolEnd'),
    {
      ...common,
      label: 'sealed',
      what: 'suction',
      node: gapAt(kinds, 'inlet'),
      drawnM3s: 0,
      drawnUncertaintyM3s: 0,
      value: read.sealed,
      standardUncertainty: 0.015 * read.sealed,
      expanded: 0.03 * read.sealed,
    },
  ];
};

/** Drop across a stage and the one behind it at work, sound: what a gauge of both is marked by. */
const gaugeMarks = (air: OwnAir, at: number): { readonly amberPa: number; readonly redPa: number } => {
  const { dropsPa } = settle(air, { gap: 0, sealed: false });
  const clean = (dropsPa[at] ?? 0) + (dropsPa[at - 1] ?? 0);
  return { amberPa: Math.round(clean * 2.2), redPa: Math.round(clean * 4) };
};

/** What weeks of use do to a sound machine: dust in its media, and a leak or two that was not there. */
const used = (random: Random, air: OwnAir, kinds: readonly StageKind[]): OwnAir => ({
  ...air,
  segments: air.segments.map((s, i) =>
    ['bag', 'mainFilter', 'prefilter', 'canister', 'hepa'].includes(kinds[i] ?? '')
      ? { ...s, a: s.a * range(random, 1, 1.6) }
      : { ...s, a: s.a * spread(random, 0.03) },
  ),
  holes: [
    ...air.holes.map((h) => ({ ...h, c: h.c * spread(random, 0.3) })),
    holeOf(random, kinds, air.fan, 0.012 * spread(random, 0.8)),
  ],
});

/** Makes a machine of a kind. */
export const ownMachine = (random: Random, kind: MachineKind): OwnMachine => {
  const hoseLengthM = range(random, 2, 6);
  const machine = templateMachine(kind, { hoseLengthM, hoseBoreM: BORES[kind] ?? 0.036 });
  const plain = modelOf(machine);
  const kinds = plain.stages.map((s) => s.kind);
  const [p0, qMax, work] = PLATES[kind];
  const fan: OwnFan = {
    at: kinds.indexOf('fan'),
    p0Pa: p0 * spread(random, 0.1),
    qMaxM3s: qMax * spread(random, 0.1),
    bend: INDUCTION.has(kind) ? range(random, 1.6, 2.4) : range(random, 1.02, 1.5),
    speed: 1,
  };
  const segments = segmentsOf(random, plain, fan, work * spread(random, 0.08) * (1.15 - 0.04 * hoseLengthM));
  const holes = [
    holeOf(random, kinds, fan, 0.015 * spread(random, 0.7)),
    holeOf(random, kinds, fan, 0.01 * spread(random, 0.9)),
  ];
  const air: OwnAir = { segments, holes, fan };
  const tools = kinds.includes('wye') ? 2 : 1;
  const known = {
    ...plain,
    stages: plain.stages.map((s, i) =>
      s.kind === 'hepa' && kind !== 'hepaTank'
        ? {
            ...s,
            spec: { ...s.spec, fit: { ...s.spec.fit, gaugePa: { ...gaugeMarks(air, i), spans: 'unknown' as const } } },
          }
        : s,
    ),
  };
  const read = baselineOf(random, air, kinds, tools);
  const fitted = calibrate(known, observationsOf(known, kinds, read));
  return {
    kind,
    tools,
    induction: INDUCTION.has(kind),
    air: used(random, air, kinds),
    clean: segments,
    known: {
      model: known,
      parameters: fitted.ok ? fitted.value.parameters : templateParameters(known, 12e-6),
      calibrated: fitted.ok,
      baselines: { 'flow inlet': read.inlet, 'flow toolEnd': read.toolEnd, 'sealed inlet': read.sealed },
    },
  };
};
