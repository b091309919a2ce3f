import { MACHINE_KINDS } from '@/core/machine/kinds';
import { parseTestEntry, type TestEntry } from '@/core/measure/test-entry';
import type { Method } from '@/core/measure/methods';
import type { Place } from '@/core/measure/place';
import { fromSi } from '@/core/units';
import { insertTest } from '@/server/repositories/tests';
import { type Random, seeded } from './random';
import type { MachineSpec, Truth } from './scenario';
import { CREW, momentOf, type Seeding } from './seeding';
import { SITE } from './site';
import { type TrueMachine, trueMachine } from './truth';

/** A reading as a person would have typed it off the meter. */
interface Taken {
  readonly method: Method;
  readonly place: Place;
  readonly instrument: string;
  readonly unit: string;
  readonly decimals: number;
  readonly noise: number;
  readonly detail: TestEntry['detail'];
  /** True value by slot, SI. */
  readonly valuesSi: readonly number[];
  readonly repeats: number;
}

const GAUGE = { instrument: 'Water-column gauge', unit: 'inH2O', decimals: 1 } as const;
const FINE = { instrument: 'Micromanometer, 2500 Pa', unit: 'Pa', decimals: 0 } as const;

const gaugeFor = (pa: number): typeof GAUGE | typeof FINE => (pa < 2400 ? FINE : GAUGE);

const sealedTest = (real: TrueMachine, place: Place): Taken => {
  const pa = real.sealedPa(place);
  return {
    method: 'sealedSuction',
    place,
    ...gaugeFor(pa),
    noise: 0.003,
    detail: { kind: 'none' },
    valuesSi: [pa],
    repeats: 4,
  };
};

const curveTest = (real: TrueMachine, truth: Truth, place: Place): Taken => {
  const holes = [0, ...truth.holesMm];
  const valuesSi = holes.map((mm) => (mm === 0 ? real.sealedPa(place) : real.behindHolePa(place, mm / 1000)));
  const orifices = holes.map((mm) => ({ typed: String(mm), unit: 'mm' }));
  return {
    method: 'suctionCurve',
    place,
    ...gaugeFor(Math.max(...valuesSi)),
    noise: 0.004,
    detail: { kind: 'curve', orifices, coefficient: 0.61 },
    valuesSi,
    repeats: 3,
  };
};

const flowTest = (real: TrueMachine): Taken => ({
  method: 'flowMeter',
  place: 'hoseEnd',
  instrument: 'Flow hood meter',
  unit: 'L/s',
  decimals: 1,
  noise: 0.006,
  detail: { kind: 'none' },
  valuesSi: [real.flowM3s('hoseEnd')],
  repeats: 4,
});

const acrossTests = (
  real: TrueMachine,
  spec: MachineSpec,
  { truth, stageIds }: { truth: Truth; stageIds: ReadonlyMap<string, number> },
): readonly Taken[] =>
  truth.across.map((name): Taken => {
    const position = spec.stages.findIndex((s) => s.name === name);
    const detail = { kind: 'stage' as const, stageId: stageIds.get(name) ?? null };
    return {
      method: 'stageDp',
      place: 'toolEnd',
      ...FINE,
      noise: 0.01,
      detail,
      valuesSi: [real.stageDropPa(position, 'toolEnd')],
      repeats: 3,
    };
  });

const entryOf = (taken: Taken, random: Random): TestEntry => ({
  method: taken.method,
  place: taken.place,
  readings: taken.valuesSi.flatMap((si, slot) =>
    Array.from({ length: taken.repeats }, (_, i) => ({
      typed: fromSi(
        taken.unit === 'L/s' ? 'flow' : 'pressure',
        si * (1 + taken.noise * random.normal()),
        taken.unit,
      ).toFixed(taken.decimals),
      unit: taken.unit,
      slot: taken.method === 'suctionCurve' ? slot : i,
      how: 'typed' as const,
      struckBecause: null,
    })),
  ),
  bore: null,
  profileFactor: null,
  hoseBore: null,
  air: {
    temperature: { typed: '20', unit: 'degC' },
    humidity: { typed: '50', unit: '%' },
    pressure: { typed: '101325', unit: 'Pa' },
  },
  detail: taken.detail,
  volts: null,
  rigSeries: 1,
  failedPreconditions: [],
});

interface SeededMachine {
  readonly id: number;
  readonly stageIds: ReadonlyMap<string, number>;
  readonly seed: number;
}

/** The baselines a careful technician takes of a machine in good order: sealed, curve, flow, and across its filters. */
export const insertBaselines = async (
  s: Seeding,
  spec: MachineSpec,
  { id, stageIds, seed }: SeededMachine,
): Promise<void> => {
  const { truth, rig } = spec;
  if (!truth || !rig) return;
  // A separate random stream, so that the rest of the history does not change.
  const random = seeded(seed + spec.tag.charCodeAt(3) * 31 + spec.tag.charCodeAt(4));
  const real = trueMachine(spec, truth, random);
  const place: Place = MACHINE_KINDS[spec.kind].collector ? 'hoseEnd' : 'inlet';
  const list = [
    ...(rig.method === 'sealedSuction' ? [flowTest(real)] : [sealedTest(real, place)]),
    curveTest(real, truth, place),
    ...acrossTests(real, spec, { truth, stageIds }),
  ];
  const performedAt = momentOf(s, truth.daysAgo ?? spec.inServiceDaysAgo - 0.03);
  for (const taken of list) {
    const instrument = s.meters.find((m) => m.name === taken.instrument) ?? null;
    const parsed = parseTestEntry(entryOf(taken, random), { altitudeM: SITE.altitudeM, instrument });
    if (!parsed.ok)
      throw new Error(`baseline of ${spec.tag}: ${parsed.failures.map((f) => `${f.code} ${f.path}`).join()}`);
    await insertTest(s.db, {
      machineId: id,
      performedAt,
      recordedAt: performedAt,
      by: CREW[0],
      note: '',
      parsed: parsed.value,
      isBaseline: true,
      bagState: 'asLeft',
      afterChangeId: null,
      configuration: '',
      use: { wheelM: null, ductLoad: null },
      supersedes: null,
    });
  }
};
