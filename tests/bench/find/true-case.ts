import type { Complaint } from '@/core/diagnose/complaint';
import type { FaultKind, MachineTraits } from '@/core/diagnose/fault';
import type { HazardLevel } from '@/core/diagnose/operation';
import type { MachineRecord } from '@/core/diagnose/record-prior';
import type { MachineKind } from '@/core/machine/kinds';
import type { MachineClass } from '@/core/filter/machine-class';
import { CLEAN, type MachineModel, type PathState } from '@/core/path/machine-path';
import { type Random, seeded } from '../../../demo/random';
import { between, chance, pick, sealAt, type Standing, trueFlow, type TrueMachine, trueMachine } from './true-machine';

/** A fault as it really is: its size is a size of its own, on no grid. */
export interface TrueFault {
  readonly kind: FaultKind;
  readonly position: number;
  /** What it does to the air. */
  readonly lay: (m: Standing) => Standing;
  /** Share of the dust it lets past, for the looks. */
  readonly past: number;
  /** Tool flow left with this fault alone, of the sound machine's. */
  readonly leaves: number;
}

export interface TrueCase {
  readonly seed: number;
  readonly machine: TrueMachine;
  readonly faults: readonly TrueFault[];
  readonly traits: MachineTraits;
  readonly hazard: HazardLevel;
  readonly complaint: Complaint;
  readonly record: MachineRecord;
  readonly volts: number;
  readonly supplyPa: number | null;
  /** The threshold of its low-flow lamp, as flow; null without one. */
  readonly lampM3s: number | null;
  readonly random: Random;
}

const withStage = (
  m: Standing,
  position: number,
  change: (s: (typeof m.state.stages)[number]) => (typeof m.state.stages)[number],
): Standing => ({
  ...m,
  state: { ...m.state, stages: { ...m.state.stages, [position]: change(m.state.stages[position] ?? CLEAN) } },
});
const withLeak = (m: Standing, node: number, areaM2: number): Standing => ({
  ...m,
  state: { ...m.state, leaksM2: { ...m.state.leaksM2, [node]: (m.state.leaksM2[node] ?? 0) + areaM2 } },
});
const withDrive = (m: Standing, lift: number, flow: number): Standing => ({
  ...m,
  model: {
    ...m.model,
    stages: m.model.stages.map((s) =>
      s.spec.air.form === 'fan' && s.spec.air.curve.kind === 'points'
        ? {
            ...s,
            spec: {
              ...s.spec,
              air: {
                ...s.spec.air,
                curve: {
                  ...s.spec.air.curve,
                  p0Pa: s.spec.air.curve.p0Pa * lift,
                  bPaSM3: (s.spec.air.curve.bPaSM3 * lift) / flow,
                  cPaS2M6: (s.spec.air.curve.cPaS2M6 * lift) / flow ** 2,
                  rangeM3s: [0, s.spec.air.curve.rangeM3s[1] * flow] as const,
                },
              },
            },
          }
        : s,
    ),
  },
  parameters: { ...m.parameters, p0Pa: m.parameters.p0Pa * lift, qMaxM3s: m.parameters.qMaxM3s * flow },
});

/** The size of a fault that leaves a share of the flow, by halving on a logarithm. */
const sized = (
  m: Standing,
  leaves: number,
  lay: (size: number) => (m: Standing) => Standing,
  [low, high]: readonly [number, number],
): ((m: Standing) => Standing) => {
  const was = trueFlow(m, 'toolEnd');
  let [a, b] = [Math.log(low), Math.log(high)];
  for (let i = 0; i < 40; i += 1) {
    const middle = (a + b) / 2;
    if (trueFlow(lay(Math.exp(middle))(m), 'toolEnd') > leaves * was) a = middle;
    else b = middle;
  }
  return lay(Math.exp((a + b) / 2));
};

const fanAt = (model: MachineModel) => model.stages.findIndex((s) => s.kind === 'fan');

interface Drawing {
  readonly random: Random;
  readonly machine: TrueMachine;
  readonly leaves: number;
}

const felt = (kind: FaultKind, position: number, { random, machine, leaves }: Drawing): TrueFault => {
  const medium = machine.model.stages[position]?.spec.air.form === 'medium';
  const make = (lay: (size: number) => (m: Standing) => Standing, range: readonly [number, number]): TrueFault => ({
    kind,
    position,
    lay: sized(machine, leaves, lay, range),
    past: 0,
    leaves,
  });
  switch (kind) {
    case 'blocked':
      return medium
        ? make(
            (size) => (m) => withStage(m, position, (s) => ({ ...CLEAN, ...s, loadPaSM3: s.loadPaSM3 + size })),
            [1e2, 1e10],
          )
        : make((size) => (m) => withStage(m, position, (s) => ({ ...CLEAN, ...s, blockFactor: size })), [1, 1e6]);
    case 'hoseHoled': {
      const node = chance(random, 0.7) ? position + 1 : position;
      return make((size) => (m) => withLeak(m, Math.max(1, node), size), [1e-7, 0.1]);
    }
    case 'leakingSeal': {
      const node = chance(random, 0.75) ? position : Math.max(1, position - 1);
      return make((size) => (m) => withLeak(m, node, size), [1e-7, 0.1]);
    }
    case 'weakFan': {
      const bend = between(random, 0.7, 1.3);
      return make((size) => (m) => withDrive(m, size ** -2, size ** -bend), [1, 3]);
    }
    case 'wrongSetting':
      return make((size) => (m) => withDrive(m, size ** -2, size ** -1), [1, 3]);
    default:
      throw new Error(`${kind} is not felt by size`);
  }
};

const SUPPLY_PA = 6.2e5;

const silentFault = (kind: FaultKind, position: number, random: Random): TrueFault => {
  const past = between(random, 0.15, 1);
  const ease = kind === 'missing' ? 1 : between(random, 0.1, 0.6) * past;
  const lay = (m: Standing): Standing => {
    if (kind === 'reversed' || kind === 'spentGas') return m;
    if (kind === 'leakingSeal') return withLeak(m, position, between(random, 2e-5, 2e-4));
    return withStage(m, position, (s) =>
      kind === 'missing'
        ? { ...CLEAN, removed: true }
        : {
            ...CLEAN,
            ...s,
            loadPaSM3: s.loadPaSM3 * (1 - ease),
            blockFactor: s.blockFactor * (1 - 0.4 * ease),
          },
    );
  };
  return { kind, position, lay, past, leaves: 1 };
};

type Draw = (leaves: number) => TrueFault;

/** Faults of a kind of machine and how often they come, by the yard's own count, not the engine's. */
const drawsOf = (
  random: Random,
  machine: TrueMachine,
  traits: MachineTraits,
): readonly (readonly [weight: number, felt: boolean, draw: Draw])[] => {
  const { stages } = machine.model;
  const fan = fanAt(machine.model);
  const of =
    (kind: FaultKind, position: number): Draw =>
    (leaves) =>
      felt(kind, position, { random, machine, leaves });
  const flat =
    (fault: TrueFault): Draw =>
    () =>
      fault;
  return [
    ...stages.flatMap((s, i): readonly (readonly [number, boolean, Draw])[] => {
      if (s.spec.air.form === 'medium' && s.kind !== 'gas')
        return [[s.kind === 'bag' ? 5 : s.kind === 'hepa' ? 1.5 : 3.5, true, of('blocked', i)]];
      if (s.kind === 'hose' || s.kind === 'duct')
        return [
          [2.2, true, of('blocked', i)],
          [1, true, of('hoseHoled', i)],
        ];
      if (s.kind === 'nozzle' || s.kind === 'shroud' || s.kind === 'hood') return [[1.8, true, of('blocked', i)]];
      return s.kind === 'cyclone' || s.kind === 'inlet' ? [[0.5, true, of('blocked', i)]] : [];
    }),
    [1, true, of('leakingSeal', sealAt(machine.model))],
    [0.9, true, of('weakFan', fan)],
    [0.8, true, of('wrongSetting', fan)],
    ...(traits.selectorM !== null
      ? [[0.5, false, flat({ kind: 'wrongSelector', position: fan, lay: (m) => m, past: 0, leaves: 1 })] as const]
      : []),
    ...(traits.hasLamp
      ? [[0.5, false, flat({ kind: 'indicatorOut', position: fan, lay: (m) => m, past: 0, leaves: 1 })] as const]
      : []),
    ...(traits.hasBrush
      ? [[1, false, flat({ kind: 'brushJammed', position: 0, lay: (m) => m, past: 0, leaves: 1 })] as const]
      : []),
    [
      0.3,
      false,
      flat({ kind: 'bearings', position: fan, lay: (m) => withDrive(m, 0.96, 0.98), past: 0, leaves: 0.98 }),
    ],
  ];
};

const silentDraws = (random: Random, machine: TrueMachine): readonly (readonly [number, TrueFault])[] =>
  machine.model.stages.flatMap((s, i): readonly (readonly [number, TrueFault])[] => {
    if (s.kind === 'ring') return [[0.8, silentFault('leakingSeal', i, random)]];
    if (s.kind === 'gas') return [[0.8, silentFault('spentGas', i, random)]];
    if (s.spec.air.form !== 'medium') return [];
    return [
      [s.kind === 'bag' ? 1.4 : 0.8, silentFault('misseated', i, random)],
      [0.5, silentFault('torn', i, random)],
      [0.2, silentFault('missing', i, random)],
    ];
  });

const weighted = <T>(random: Random, list: readonly (readonly [number, T])[]): T => {
  const total = list.reduce((sum, [w]) => sum + w, 0);
  let at = random.uniform() * total;
  for (const [w, x] of list) {
    at -= w;
    if (at <= 0) return x;
  }
  return (list.at(-1) as readonly [number, T])[1];
};

export const layAll = (machine: Standing, faults: readonly TrueFault[]): Standing =>
  faults.reduce((m, f) => f.lay(m), { model: machine.model, parameters: machine.parameters, state: machine.state });

const letsPast = (f: TrueFault) =>
  f.kind === 'misseated' || f.kind === 'torn' || f.kind === 'missing' || (f.kind === 'leakingSeal' && f.past > 0);

const drawFaults = (
  random: Random,
  machine: TrueMachine,
  traits: MachineTraits,
): { readonly faults: readonly TrueFault[]; readonly volts: number; readonly supply: number } => {
  const draws = drawsOf(random, machine, traits);
  const one = (low: number, high: number, feltOnly = false): TrueFault =>
    weighted(
      random,
      draws.filter(([, f]) => f || !feltOnly).map(([w, , d]) => [w, d] as const),
    )(between(random, low, high));
  const none = { volts: 1, supply: 1 };
  const kind = random.uniform();
  if (kind < 0.05) return { faults: [], ...none };
  const silent = silentDraws(random, machine);
  if (kind < 0.6) {
    const drive = random.uniform();
    const pneumatic = machine.kind === 'pneumaticHepa';
    if (pneumatic && drive < 0.15) {
      const supply = between(random, 0.4, 0.7);
      return {
        faults: [
          {
            kind: 'lowSupply',
            position: fanAt(machine.model),
            lay: (m) => withDrive(m, supply ** 1.1, supply ** 0.55),
            past: 0,
            leaves: supply,
          },
        ],
        volts: 1,
        supply,
      };
    }
    const universal = machine.known.model.stages.some(
      (s) => s.spec.air.form === 'fan' && s.spec.air.curve.kind === 'universal',
    );
    if (universal && drive < 0.04) {
      const volts = between(random, 0.58, 0.75);
      return {
        faults: [
          {
            kind: 'lowVoltage',
            position: fanAt(machine.model),
            lay: (m) => withDrive(m, volts ** 1.1, volts ** 0.55),
            past: 0,
            leaves: volts,
          },
        ],
        volts,
        supply: 1,
      };
    }
    return { faults: [one(0.25, 0.8)], ...none };
  }
  if (kind < 0.7) return { faults: [weighted(random, silent)], ...none };
  const first = one(0.35, 0.8, true);
  if (kind < 0.8) {
    // Let past by one stage, loaded in the next: the chain of the trade.
    const past = silent.filter(([, f]) => letsPast(f) && f.position < first.position);
    if (past.length > 0) return { faults: [weighted(random, past), first], ...none };
  }
  const second = chance(random, 0.85) ? one(0.4, 0.8, true) : weighted(random, silent);
  const same = second.position === first.position && (second.kind === first.kind || second.kind === 'missing');
  return { faults: same ? [first] : [first, second], ...none };
};

const complaintOf = (random: Random, c: Omit<TrueCase, 'complaint' | 'record'>): Complaint => {
  const standing = layAll(c.machine, c.faults);
  const flow = trueFlow(standing, 'toolEnd');
  const ratio = flow / trueFlow(c.machine, 'toolEnd');
  const lit =
    c.lampM3s !== null &&
    (c.faults.some((f) => f.kind === 'indicatorOut') ||
      flow < c.lampM3s * (c.faults.some((f) => f.kind === 'wrongSelector') ? 1.7 : 1));
  if (ratio < 0.85) return lit && chance(random, 0.35) ? 'light' : chance(random, 0.12) ? 'labours' : 'noSuction';
  if (c.faults.some((f) => f.kind === 'brushJammed')) return 'noSuction';
  if (c.faults.some((f) => f.kind === 'bearings')) return 'labours';
  if (lit) return 'light';
  if (c.faults.some((f) => f.kind === 'spentGas')) return 'smell';
  if (c.faults.some(letsPast)) return chance(random, 0.7) ? 'dust' : 'round';
  return pick(random, ['noSuction', 'light', 'dust', 'labours'] as const);
};

const recordOf = (random: Random, machine: TrueMachine, faults: readonly TrueFault[]): MachineRecord => ({
  wet: false,
  blinding: false,
  causes: [],
  stages: machine.model.stages.map((s, i) => {
    const mine = faults.filter((f) => f.position === i);
    const medium = s.spec.air.form === 'medium';
    return {
      lifeUsed:
        !medium || chance(random, 0.2)
          ? null
          : mine.some((f) => f.kind === 'blocked')
            ? between(random, 0.35, 1.5)
            : between(random, 0.02, 1.05),
      justOpened:
        medium && chance(random, mine.some((f) => f.kind === 'misseated' || f.kind === 'missing') ? 0.55 : 0.15),
    };
  }),
});

export const KINDS: readonly MachineKind[] = [
  'shopVacuum',
  'mExtractor',
  'hExtractor',
  'hepaTank',
  'grinderExtractor',
  'pneumaticHepa',
  'singleStageCollector',
  'cycloneCollector',
  'fumeExtractor',
  'floorCleaner',
  'centralUnit',
];

const CLASS: Partial<Record<MachineKind, MachineClass>> = {
  mExtractor: 'M',
  hExtractor: 'H',
  hepaTank: 'HEPA',
  grinderExtractor: 'HEPA',
  pneumaticHepa: 'HEPA',
};

const HAZARDS: Partial<Record<MachineKind, readonly HazardLevel[]>> = {
  hExtractor: ['contained'],
  hepaTank: ['contained', 'controlled'],
  grinderExtractor: ['controlled', 'contained'],
  pneumaticHepa: ['contained'],
  floorCleaner: ['plain'],
};

/** A machine with hidden faults, from a seed. */
export const trueCase = (seed: number): TrueCase => {
  const random = seeded(seed);
  const kind = KINDS[seed % KINDS.length] ?? 'shopVacuum';
  let machine = trueMachine(random, kind);
  while (!machine) machine = trueMachine(random, kind);
  const hasLamp = kind === 'mExtractor' || kind === 'hExtractor' || (kind === 'hepaTank' && chance(random, 0.5));
  const traits: MachineTraits = {
    hasLamp,
    hasBrush: kind === 'floorCleaner',
    selectorM: hasLamp ? machine.known.model.hoseBoreM : null,
    machineClass: CLASS[kind] ?? null,
  };
  const { faults, volts, supply } = drawFaults(random, machine, traits);
  const bore = machine.known.model.hoseBoreM ?? 0.036;
  const c = {
    seed,
    machine,
    faults,
    traits,
    hazard: pick(random, HAZARDS[kind] ?? (['plain', 'controlled'] as const)),
    volts: 230 * volts * (1 + 0.01 * random.normal()),
    supplyPa: kind === 'pneumaticHepa' ? SUPPLY_PA * supply * (1 + 0.02 * random.normal()) : null,
    lampM3s: hasLamp ? 20 * (Math.PI / 4) * bore ** 2 * (1 + 0.05 * random.normal()) : null,
    random,
  };
  return { ...c, complaint: complaintOf(random, c), record: recordOf(random, machine, faults) };
};

export type { PathState };
