// What goes wrong in the other yard, how often, how badly, and where: by its own count.
import type { FaultKind, MachineTraits } from '@/core/diagnose/fault';
import { sealNode } from '@/core/path/machine-path';
import type { Random } from '../../../../demo/random';
import { type Hole, type OwnAir, settle } from './air';
import { gapAt, type OwnMachine, range, spread } from './machines';

export interface OwnFault {
  readonly kind: FaultKind;
  readonly position: number;
  readonly lay: (air: OwnAir) => OwnAir;
  /** Share of the dust it lets past. */
  readonly past: number;
  /** Share of the tool's flow it leaves by itself. */
  readonly leaves: number;
  readonly volts: number;
  readonly supply: number;
}

const plain = { past: 0, leaves: 1, volts: 1, supply: 1 } as const;

const withSegment = (air: OwnAir, at: number, factor: number): OwnAir => ({
  ...air,
  segments: air.segments.map((s, i) => (i === at ? { ...s, a: s.a * factor } : s)),
});
const withHole = (air: OwnAir, hole: Hole): OwnAir => ({ ...air, holes: [...air.holes, hole] });
const withSpeed = (air: OwnAir, speed: number): OwnAir => ({
  ...air,
  fan: { ...air.fan, speed: air.fan.speed * speed },
});

export const toolFlow = (air: OwnAir): number => settle(air, { gap: 0, sealed: false }).entersM3s;

/** The size on a logarithm at which a fault leaves a share of the flow. */
const sized = (
  air: OwnAir,
  leaves: number,
  lay: (size: number) => (air: OwnAir) => OwnAir,
  [low, high]: readonly [number, number],
) => {
  const wanted = leaves * toolFlow(air);
  let [a, b] = [Math.log(low), Math.log(high)];
  for (let i = 0; i < 40; i += 1) {
    const middle = (a + b) / 2;
    if (toolFlow(lay(Math.exp(middle))(air)) > wanted) a = middle;
    else b = middle;
  }
  return lay(Math.exp((a + b) / 2));
};

const media = (m: OwnMachine): readonly number[] =>
  m.known.model.stages.flatMap((s, i) => (s.spec.air.form === 'medium' ? [i] : []));
export const kindsOf = (m: OwnMachine) => m.known.model.stages.map((s) => s.kind);

/** Seats and lids that can leak: behind the machine's inlet, on the side its seal is on. */
const seats = (m: OwnMachine): readonly number[] => {
  const fan = m.air.fan.at;
  const seal = sealNode(m.known.model);
  const from = seal > fan ? fan + 1 : gapAt(kindsOf(m), 'inlet');
  const to = seal > fan ? m.air.segments.length : fan;
  const all = Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i);
  // With nothing between the hose and the fan it is the fan's own collar, which stays when the hose is off.
  return all.length > 0 ? all : [fan];
};

const pick = <T>(random: Random, list: readonly T[]): T =>
  list[Math.min(list.length - 1, Math.floor(random.uniform() * list.length))] as T;

/** Most faults cost a third to two thirds; some leave hardly a breath. */
const leftOver = (random: Random): number =>
  random.uniform() < 0.12 ? range(random, 0.03, 0.15) : range(random, 0.15, 0.8);

const leak = (m: OwnMachine, random: Random, at: number, leaves: number) => {
  const [along, p] = [random.uniform(), range(random, 0.5, 0.62)];
  return sized(m.air, leaves, (c) => (air) => withHole(air, { at, along, c, m: p }), [1e-9, 1]);
};

type Maker = (m: OwnMachine, random: Random, position: number, leaves: number) => OwnAir | ((air: OwnAir) => OwnAir);

const FELT: Partial<Record<FaultKind, Maker>> = {
  blocked: (m, _, at, leaves) => sized(m.air, leaves, (f) => (air) => withSegment(air, at, f), [1, 1e9]),
  hoseHoled: (m, random, at, leaves) => leak(m, random, at, leaves),
  leakingSeal: (m, random, _, leaves) => leak(m, random, pick(random, seats(m)), leaves),
  weakFan: (m, random, _, leaves) => {
    const slip = range(random, 0.3, 1.2);
    return sized(
      m.air,
      leaves,
      (f) => (air) => ({
        ...air,
        fan: { ...air.fan, p0Pa: air.fan.p0Pa / f ** 2, qMaxM3s: air.fan.qMaxM3s / f ** slip },
      }),
      [1, 12],
    );
  },
  // A speed turned down, or a bleed left open between the inlet and the filters: air from the room instead of the tool.
  wrongSetting: (m, random, _, leaves) =>
    random.uniform() < 0.5
      ? sized(m.air, leaves, (f) => (air) => withSpeed(air, 1 / f), [1, 12])
      : leak(
          m,
          random,
          Math.max(0, gapAt(kindsOf(m), 'inlet') - (m.air.fan.at <= gapAt(kindsOf(m), 'inlet') ? 1 : 0)),
          leaves,
        ),
};

export const feltFault = (m: OwnMachine, random: Random, kind: FaultKind, position: number, least = 0): OwnFault => {
  const leaves = Math.max(least, leftOver(random));
  const lay = FELT[kind]?.(m, random, position, leaves);
  if (typeof lay !== 'function') throw new Error(`${kind} is not felt`);
  return { ...plain, kind, position, lay, leaves };
};

const nothing = (air: OwnAir): OwnAir => air;

export const silentFault = (m: OwnMachine, random: Random, kind: FaultKind, position: number): OwnFault => {
  const past = kind === 'missing' ? 1 : range(random, 0.08, 0.9);
  const ease = kind === 'missing' ? 0.02 : 1 - past * range(random, 0.05, 0.5);
  const lay =
    kind === 'reversed' || kind === 'spentGas'
      ? nothing
      : kind === 'leakingSeal'
        ? (air: OwnAir) =>
            withHole(air, { at: position, along: random.uniform(), c: 2e-4 * spread(random, 0.6), m: 0.5 })
        : (air: OwnAir) => withSegment(air, position, ease);
  const fixed = lay(m.air);
  return {
    ...plain,
    kind,
    position,
    past,
    lay: kind === 'leakingSeal' ? (air) => ({ ...air, holes: [...air.holes, ...fixed.holes.slice(-1)] }) : lay,
  };
};

type Weighted = readonly (readonly [weight: number, fault: () => OwnFault])[];

/** What is felt, and how often one comes against another. */
export const feltDraws = (m: OwnMachine, random: Random, traits: MachineTraits, least = 0): Weighted => {
  const fan = m.air.fan.at;
  const of = (kind: FaultKind, at: number) => () => feltFault(m, random, kind, at, least);
  const flat =
    (kind: FaultKind, at: number, over: Partial<OwnFault> = {}) =>
    () => ({ ...plain, kind, position: at, lay: nothing, ...over });
  return [
    ...kindsOf(m).flatMap((kind, i): Weighted => {
      switch (kind) {
        case 'bag':
          // The lower bag of a collector hangs beside the air: full, it takes none away.
          return media(m).includes(i) ? [[6, of('blocked', i)]] : [];
        case 'mainFilter':
        case 'prefilter':
        case 'canister':
        case 'exhaustFilter':
          return [[3, of('blocked', i)]];
        case 'hepa':
          return [[1, of('blocked', i)]];
        case 'gas':
          return [[0.4, of('blocked', i)]];
        case 'hose':
        case 'duct':
          return [
            [2.4, of('blocked', i)],
            [1.3, of('hoseHoled', i)],
          ];
        case 'nozzle':
        case 'shroud':
        case 'hood':
          return [[2, of('blocked', i)]];
        case 'inlet':
        case 'cyclone':
          return [[0.6, of('blocked', i)]];
        default:
          return [];
      }
    }),
    [1.2, of('leakingSeal', sealNode(m.known.model))],
    [0.8, of('weakFan', fan)],
    [1.1, of('wrongSetting', fan)],
    ...(least > 0
      ? []
      : ([
          ...(traits.selectorM === null ? [] : [[0.5, flat('wrongSelector', fan)] as const]),
          ...(traits.hasLamp ? [[0.5, flat('indicatorOut', fan)] as const] : []),
          ...(traits.hasBrush ? [[1.2, flat('brushJammed', 0)] as const] : []),
          [0.3, flat('bearings', fan, { lay: (air) => withSpeed(air, 0.985) })],
          ...(m.induction || m.kind === 'pneumaticHepa'
            ? []
            : [
                [
                  0.5,
                  () => {
                    const [volts, power] = [range(random, 0.6, 0.8), range(random, 0.45, 0.65)];
                    return {
                      ...plain,
                      kind: 'lowVoltage' as const,
                      position: fan,
                      volts,
                      leaves: volts,
                      lay: (air: OwnAir) => withSpeed(air, volts ** power),
                    };
                  },
                ] as const,
              ]),
          ...(m.kind === 'pneumaticHepa'
            ? [
                [
                  2,
                  () => {
                    const supply = range(random, 0.35, 0.7);
                    return {
                      ...plain,
                      kind: 'lowSupply' as const,
                      position: fan,
                      supply,
                      leaves: supply,
                      lay: (air: OwnAir) => ({
                        ...air,
                        fan: { ...air.fan, p0Pa: air.fan.p0Pa * supply, qMaxM3s: air.fan.qMaxM3s * Math.sqrt(supply) },
                      }),
                    };
                  },
                ] as const,
              ]
            : []),
        ] satisfies Weighted)),
  ];
};

/** What lets dust past, and how often. */
export const silentDraws = (m: OwnMachine, random: Random): Weighted => [
  ...media(m).flatMap((i): Weighted => {
    const { kind, spec } = m.known.model.stages[i] ?? {};
    if (kind === 'gas') return [[0.8, () => silentFault(m, random, 'spentGas', i)]];
    return [
      [kind === 'bag' ? 1.2 : 0.7, () => silentFault(m, random, 'misseated', i)],
      [0.6, () => silentFault(m, random, 'torn', i)],
      [0.2, () => silentFault(m, random, 'missing', i)],
      ...(spec && spec.fit.orientation !== 'unmarked'
        ? [[0.1, () => silentFault(m, random, 'reversed', i)] as const]
        : []),
    ];
  }),
  ...kindsOf(m).flatMap((kind, i): Weighted =>
    kind === 'ring' ? [[0.8, () => silentFault(m, random, 'leakingSeal', i)]] : [],
  ),
];

export const drawn = (random: Random, list: Weighted): OwnFault => {
  let at = random.uniform() * list.reduce((sum, [w]) => sum + w, 0);
  for (const [w, make] of list) {
    at -= w;
    if (at <= 0) return make();
  }
  return (list.at(-1) as Weighted[number])[1]();
};

const letsPast = (f: OwnFault): boolean => f.past > 0;

/** The faults of one case: none, one, one that is silent, or two that know of each other or do not. */
export const drawFaults = (m: OwnMachine, random: Random, traits: MachineTraits): readonly OwnFault[] => {
  const dice = random.uniform();
  if (dice < 0.05) return [];
  const silent = silentDraws(m, random);
  if (dice < 0.55) return [drawn(random, feltDraws(m, random, traits))];
  if (dice < 0.67 && silent.length > 0) return [drawn(random, silent)];
  const first = drawn(random, feltDraws(m, random, traits, 0.3));
  if (dice < 0.78) {
    // What one stage let past is caught in the next.
    const before = drawn(random, silent.length > 0 ? silent : feltDraws(m, random, traits, 0.3));
    if (letsPast(before) && before.position < first.position) return [before, first];
  }
  const second =
    random.uniform() < 0.8 || silent.length === 0
      ? drawn(random, feltDraws(m, random, traits, 0.35))
      : drawn(random, silent);
  return second.position === first.position ? [first] : [first, second];
};
