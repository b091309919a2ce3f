import type { MachineModel } from '../path/machine-path';
import type { MachineTraits } from './fault';
import { type EXPOSURE_MINUTES, type Operation, priceOf, type TestState } from './operation';
import { expectedOf, type Expected, type TestBench } from './outcome';
import type { Case, Posterior } from './posterior';

/** A school of the trade for the order of tests. */
export type School = 'best' | 'takeOut' | 'swap' | 'nozzleInward';

export interface Asking {
  readonly hazard: keyof typeof EXPOSURE_MINUTES;
  /** State the machine is in now. */
  readonly state: TestState;
  readonly out: readonly number[];
  readonly fresh: readonly number[];
  /** Tests done, and tests the technician would rather not do. */
  readonly not: readonly Operation[];
}

export interface Proposal {
  readonly operation: Operation;
  /** Expected information in bits. */
  readonly bits: number;
  readonly minutes: number;
}

/** Explanations that together hold this much are enough to choose a test by. */
const ENOUGH = 0.995;
const MOST_EXPLANATIONS = 700;
const BINS = 24;

/** Every test this machine's own path allows. */
export const operationsOf = (model: MachineModel, traits: MachineTraits): readonly Operation[] => {
  const at = (want: (s: MachineModel['stages'][number]) => boolean) => model.stages.flatMap((s, i) => (want(s) && !s.missing ? [i] : []));
  const media = at((s) => s.spec.air.form === 'medium' && s.kind !== 'gas');
  const fan = model.stages.find((s) => s.kind === 'fan')?.spec.air;
  const curve = fan?.form === 'fan' ? fan.curve.kind : null;
  const places = ['toolEnd', 'hoseEnd', 'inlet'] as const;
  return [
    ...places.flatMap((place): readonly Operation[] => [{ kind: 'flow', place }, { kind: 'hand', place }, { kind: 'sealed', place }]),
    ...media.flatMap((position): readonly Operation[] => [{ kind: 'stageDp', position }, { kind: 'takeOut', position }, { kind: 'swap', position }, { kind: 'weigh', position }]),
    ...at((s) => s.spec.fit.gaugePa !== null).map((position): Operation => ({ kind: 'gauge', position })),
    ...at((s) => s.kind === 'bag').map((position): Operation => ({ kind: 'lookBag', position })),
    ...at((s) => s.kind === 'hepa' || s.kind === 'mainFilter' || s.kind === 'canister').map((position): Operation => ({ kind: 'cleanSide', position })),
    { kind: 'listen' },
    { kind: 'settings' },
    { kind: 'lookNozzle' },
    { kind: 'lookHose' },
    { kind: 'particles' },
    { kind: 'smoke' },
    ...(traits.hasLamp ? [{ kind: 'lamp' as const }, { kind: 'lampCoverOff' as const }, { kind: 'disc' as const }] : []),
    ...(curve === 'universal' ? [{ kind: 'voltage' as const }] : []),
    ...(curve === 'pneumatic' ? [{ kind: 'supply' as const }] : []),
  ];
};

/** Entropy in bits. Source: Shannon 1948. @example entropyBits([0.5, 0.5]) // 1 */
export const entropyBits = (shares: readonly number[]): number => shares.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0);

interface Considered {
  readonly index: number;
  readonly weight: number;
  /** Which cause it stands for: severity aside. */
  readonly cause: string;
}

const considered = (c: Case, { weights }: Posterior): readonly Considered[] => {
  const sorted = c.hypotheses.map((h, index) => ({ index, weight: weights[index] ?? 0, cause: h.faults.map((f) => `${f.kind} ${f.position}`).sort().join(' + ') })).sort((a, b) => b.weight - a.weight);
  let sum = 0;
  const kept: Considered[] = [];
  for (const h of sorted) {
    if (sum >= ENOUGH || kept.length >= MOST_EXPLANATIONS) break;
    kept.push(h);
    sum += h.weight;
  }
  return kept.map((h) => ({ ...h, weight: h.weight / sum }));
};

/** Shares of a number's outcome over bins that are even in the logarithm, from a fiftieth of the sound figure to four times it. */
const binsOf = (expected: Extract<Expected, { kind: 'number' }>, soundMean: number): readonly number[] => {
  const [low, high] = [Math.log(soundMean / 50), Math.log(soundMean * 4)];
  const middle = Math.log(Math.max(expected.mean, soundMean / 50));
  const sd = Math.max(expected.relative, (high - low) / BINS / 2);
  const raw = Array.from({ length: BINS }, (_, i) => Math.exp(-0.5 * ((low + ((i + 0.5) * (high - low)) / BINS - middle) / sd) ** 2) + 1e-6);
  const total = raw.reduce((a, b) => a + b, 0);
  return raw.map((r) => r / total);
};

const sharesOf = (expected: Expected, soundMean: number): readonly number[] => (expected.kind === 'words' ? Object.values(expected.words) : soundMean > 0 ? binsOf(expected, soundMean) : [1]);

const informationOf = (op: Operation, c: Case, { kept, bench }: { readonly kept: readonly Considered[]; readonly bench: TestBench }): number => {
  const sound = expectedOf(op, bench.sound, bench);
  const soundMean = sound.kind === 'number' ? sound.mean : 0;
  const byOutcome: Map<string, number>[] = [];
  const totals: number[] = [];
  const causes = new Map<string, number>();
  for (const h of kept) {
    const signature = c.signatures[h.index];
    if (!signature) continue;
    causes.set(h.cause, (causes.get(h.cause) ?? 0) + h.weight);
    sharesOf(expectedOf(op, signature, bench), soundMean).forEach((share, o) => {
      const joint = share * h.weight;
      const row = (byOutcome[o] ??= new Map<string, number>());
      row.set(h.cause, (row.get(h.cause) ?? 0) + joint);
      totals[o] = (totals[o] ?? 0) + joint;
    });
  }
  const after = byOutcome.reduce((sum, row, o) => {
    const total = totals[o] ?? 0;
    return total > 0 ? sum + total * entropyBits([...row.values()].map((v) => v / total)) : sum;
  }, 0);
  return Math.max(0, entropyBits([...causes.values()]) - after);
};

/**
 * Tests in the order of what they are expected to settle for their price: information about the cause per minute.
 * Source: expected information (Lindley 1956) over price; prices are common practice and Moorwind defaults.
 */
export const proposals = (c: Case, posterior: Posterior, asking: Asking): readonly Proposal[] => {
  const kept = considered(c, posterior);
  const bench: TestBench = { ...c.bench, out: asking.out, fresh: asking.fresh };
  const done = new Set(asking.not.map((op) => JSON.stringify(op)));
  const open = operationsOf(c.bench.suspect.model, c.bench.traits).filter((op) => !done.has(JSON.stringify(op)) && !('position' in op && asking.out.includes(op.position)));
  return open
    .map((operation): Proposal => ({ operation, bits: informationOf(operation, c, { kept, bench }), minutes: priceOf(operation, asking) }))
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes);
};

const FIXED: Record<Exclude<School, 'best'>, (model: MachineModel) => readonly Operation[]> = {
  takeOut: (m) => m.stages.flatMap((s, position) => (s.spec.air.form === 'medium' && !s.missing ? [{ kind: 'takeOut' as const, position }] : [])),
  swap: (m) => m.stages.flatMap((s, position) => (s.spec.air.form === 'medium' && !s.missing && s.kind !== 'gas' ? [{ kind: 'swap' as const, position }] : [])),
  nozzleInward: () => [{ kind: 'lookNozzle' }, { kind: 'flow', place: 'toolEnd' }, { kind: 'flow', place: 'hoseEnd' }, { kind: 'lookHose' }, { kind: 'flow', place: 'inlet' }, { kind: 'sealed', place: 'inlet' }],
};

/** The next test of a school; null when the school has none left. The probabilities are the same in every school. */
export const nextOf = (school: School, c: Case, { posterior, asking }: { readonly posterior: Posterior; readonly asking: Asking }): Operation | null => {
  if (school === 'best') return proposals(c, posterior, asking)[0]?.operation ?? null;
  const done = new Set(asking.not.map((op) => JSON.stringify(op)));
  return FIXED[school](c.bench.suspect.model).find((op) => !done.has(JSON.stringify(op))) ?? null;
};
