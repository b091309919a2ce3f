import type { MachineModel } from '../path/machine-path';
import { type MachineTraits } from './fault';
import type { DustHazard } from '../dust/level';
import { type HazardLevel, type Operation, operationKey, priceOf, type TestState } from './operation';
import { type Column, foresee } from './prediction-cache';
import type { Case, Posterior } from './posterior';
import { curedBy } from './repair';
import type { Interventions } from './signature';
import { lossOf, type Losses } from './loss';
import { notOffered, standingStages } from './within';

/** A school of the trade for the order of tests. */
export const SCHOOLS = ['best', 'nozzleInward', 'takeOut', 'swap'] as const;
export type School = (typeof SCHOOLS)[number];

/** Whether an order of tests may be followed in this dust: filters are taken out and the machine run in plain dust only. Source: handbook of the trade, sections 10 and 16. */
export const schoolAllowed = (school: School, level: DustHazard): boolean => school !== 'takeOut' || level === 'plain';

export interface Asking {
  readonly hazard: HazardLevel;
  /** State the machine is in now. */
  readonly state: TestState;
  readonly interventions: Interventions;
  /** Tests done, and tests the technician would rather not do. */
  readonly not: readonly Operation[];
}

export interface Proposal {
  readonly operation: Operation;
  /** Expected information about the faults, in bits. */
  readonly bits: number;
  readonly minutes: number;
  /** Reduction of the expected loss of acting by this test, minutes. */
  readonly saves: number;
}

/** Explanations that together hold this much are enough to choose a test by. */
const ENOUGH = 0.99;
const MOST_EXPLANATIONS = 240;
const LEAST_WEIGHT = 1e-6;
const BINS = 16;

/** Every test this machine's own path allows. */
export const operationsOf = (model: MachineModel, traits: MachineTraits): readonly Operation[] => {
  const at = (want: (s: MachineModel['stages'][number]) => boolean) =>
    model.stages.flatMap((s, i) => (want(s) && !s.missing ? [i] : []));
  const media = at((s) => s.spec.air.form === 'medium' && s.kind !== 'gas');
  const fan = model.stages.find((s) => s.kind === 'fan')?.spec.air;
  const curve = fan?.form === 'fan' ? fan.curve.kind : null;
  const places = ['toolEnd', 'hoseEnd', 'inlet'] as const;
  return [
    ...places.flatMap((place): readonly Operation[] => [
      { kind: 'flow', place },
      { kind: 'hand', place },
      { kind: 'sealed', place },
    ]),
    ...media.flatMap((position): readonly Operation[] => [
      { kind: 'stageDp', position },
      { kind: 'takeOut', position },
      { kind: 'swap', position },
      { kind: 'weigh', position },
    ]),
    ...at((s) => s.spec.fit.gaugePa !== null).map((position): Operation => ({ kind: 'gauge', position })),
    // Only a medium that is pulsed in place can be purged; a HEPA is not.
    ...at(
      (s) =>
        s.spec.fit.gaugePa !== null && (s.kind === 'prefilter' || s.kind === 'mainFilter' || s.kind === 'canister'),
    ).map((position): Operation => ({ kind: 'purge', position })),
    ...at((s) => s.kind === 'bag').map((position): Operation => ({ kind: 'lookBag', position })),
    ...at((s) => s.spec.air.form === 'medium' && s.kind !== 'bag').map((position): Operation => ({
      kind: 'cleanSide',
      position,
    })),
    ...(model.stages.some((s) => s.kind === 'gas' && !s.missing) ? [{ kind: 'smell' as const }] : []),
    { kind: 'listen' },
    { kind: 'settings' },
    { kind: 'lookNozzle' },
    { kind: 'lookHose' },
    { kind: 'particles' },
    { kind: 'smoke' },
    ...(traits.hasLamp
      ? [{ kind: 'lamp' as const }, { kind: 'lampCoverOff' as const }, { kind: 'disc' as const }]
      : []),
    ...(curve === 'universal' || curve === 'centrifugal' ? [{ kind: 'voltage' as const }] : []),
    ...(curve === 'pneumatic' ? [{ kind: 'supply' as const }] : []),
  ];
};

const plogp = (p: number): number => (p > 0 ? -p * Math.log2(p) : 0);

/** Entropy in bits. Source: Shannon 1948. Valid: shares of 0 to 1 that add up to 1. @example entropyBits([0.5, 0.5]) // 1 */
export const entropyBits = (shares: readonly number[]): number => shares.reduce((sum, p) => sum + plogp(p), 0);

interface Considered {
  readonly index: number;
  readonly weight: number;
}

const considered = ({ weights }: Posterior): readonly Considered[] => {
  const order: number[] = [];
  weights.forEach((w, i) => {
    if (w > LEAST_WEIGHT) order.push(i);
  });
  order.sort((a, b) => (weights[b] ?? 0) - (weights[a] ?? 0));
  const kept: Considered[] = [];
  let sum = 0;
  for (const index of order) {
    if (sum >= ENOUGH || kept.length >= MOST_EXPLANATIONS) break;
    const weight = weights[index] ?? 0;
    kept.push({ index, weight });
    sum += weight;
  }
  return kept.map((h) => ({ ...h, weight: h.weight / sum }));
};

/** Bins even in the logarithm between the least and the most that is expected, and each explanation's share of them. */
const binned = (column: Extract<Column, { kind: 'numbers' }>, kept: readonly Considered[]): readonly Float64Array[] => {
  const logs = kept.map((h) => column.logAt(h.index));
  const [low, high] = [Math.min(...logs) - 0.1, Math.max(...logs) + 0.1];
  const width = (high - low) / BINS;
  return kept.map((h, i) => {
    const sd = Math.max(column.roughAt(h.index), width / 2);
    const shares = new Float64Array(BINS);
    let total = 0;
    for (let k = 0; k < BINS; k += 1) {
      const z = (low + (k + 0.5) * width - (logs[i] ?? 0)) / sd;
      const share = Math.exp(-0.5 * z * z) + 1e-4;
      shares[k] = share;
      total += share;
    }
    for (let k = 0; k < BINS; k += 1) shares[k] = (shares[k] ?? 0) / total;
    return shares;
  });
};

const sharesOf = (column: Column, kept: readonly Considered[]): readonly Float64Array[] => {
  if (column.kind === 'numbers') return binned(column, kept);
  return kept.map((h) => {
    const e = column.at(h.index);
    return e.kind === 'words' ? Float64Array.from(Object.values(e.words)) : new Float64Array(1);
  });
};

interface Weighing {
  readonly c: Case;
  readonly kept: readonly Considered[];
  readonly asking: Asking;
  readonly losses: Losses;
}

/** Uncertainty about the faults one by one, in bits, and what acting on it now may cost, in minutes. */
const uncertaintyOf = (
  masses: Float64Array,
  total: number,
  losses: Losses,
): { readonly bits: number; readonly loss: number } => {
  const chance = (f: number): number => Math.min(1, (masses[f] ?? 0) / total);
  let bits = 0;
  for (let f = 0; f < masses.length; f += 1) {
    const p = chance(f);
    if (p > 0) bits += (plogp(p) + plogp(1 - p)) * (losses.weight[f] ?? 1);
  }
  return { bits, loss: losses.stages.reduce((sum, stage) => sum + lossOf(stage, chance, losses), 0) };
};

const valueOf = (
  op: Operation,
  { c, kept, asking, losses }: Weighing,
): { readonly bits: number; readonly saves: number } => {
  const shares = sharesOf(foresee(c, op, asking.interventions), kept);
  const outcomes = shares[0]?.length ?? 0;
  const before = new Float64Array(c.causes.length);
  const byOutcome = Array.from({ length: outcomes }, () => new Float64Array(c.causes.length));
  const totals = new Float64Array(outcomes);
  kept.forEach((h, i) => {
    const row = shares[i];
    const causes = c.causesOf[h.index] ?? [];
    for (const f of causes) before[f] = (before[f] ?? 0) + h.weight;
    for (let o = 0; o < outcomes; o += 1) {
      const joint = (row?.[o] ?? 0) * h.weight;
      totals[o] = (totals[o] ?? 0) + joint;
      const masses = byOutcome[o];
      if (masses) for (const f of causes) masses[f] = (masses[f] ?? 0) + joint;
    }
  });
  const now = uncertaintyOf(before, 1, losses);
  let [bits, loss] = [0, 0];
  for (let o = 0; o < outcomes; o += 1) {
    const total = totals[o] ?? 0;
    const masses = byOutcome[o];
    if (!masses || !(total > 0)) continue;
    const after = uncertaintyOf(masses, total, losses);
    bits += total * after.bits;
    loss += total * after.loss;
  }
  return { bits: Math.max(0, now.bits - bits), saves: Math.max(0, now.loss - loss) };
};

/** A part that is out, new already, or cured gives no information by taking it out or swapping it. */
const possible = (op: Operation, { out, repairs }: Interventions): boolean => {
  if (!('position' in op)) return true;
  if (out.includes(op.position)) return false;
  return (
    !(op.kind === 'swap' || op.kind === 'weigh' || op.kind === 'takeOut') ||
    !curedBy(repairs, { kind: 'torn', position: op.position })
  );
};

/**
 * Tests in the order of what they are expected to settle for their price: information about the faults per minute.
 * Source: expected information (Lindley 1956) over price; prices are common practice and Moorwind defaults.
 */
export const proposals = (
  c: Case,
  posterior: Posterior,
  { asking, losses }: { readonly asking: Asking; readonly losses: Losses },
): readonly Proposal[] => {
  const weighing: Weighing = { c, kept: considered(posterior), asking, losses };
  const done = new Set(asking.not.map(operationKey));
  const within = {
    stages: standingStages(c.subject.faultSimulator.suspect.model.stages, asking.interventions.repairs),
    traits: c.subject.traits,
    level: asking.hazard,
    out: asking.interventions.out,
  };
  const open = operationsOf(c.subject.faultSimulator.suspect.model, c.subject.traits).filter(
    (op) => !done.has(operationKey(op)) && possible(op, asking.interventions) && notOffered(op, within) === null,
  );
  return open
    .map((operation): Proposal => ({ operation, minutes: priceOf(operation, asking), ...valueOf(operation, weighing) }))
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes);
};

const mediaOf = (m: MachineModel): readonly number[] =>
  m.stages.flatMap((s, position) => (s.spec.air.form === 'medium' && !s.missing ? [position] : []));
const swapped = (m: MachineModel): readonly Operation[] =>
  mediaOf(m).flatMap((position) => (m.stages[position]?.kind === 'gas' ? [] : [{ kind: 'swap' as const, position }]));

export interface Followed {
  readonly model: MachineModel;
  readonly level: DustHazard;
}

/**
 * The order of a fixed school. Parts are taken out and the machine run only in plain dust; otherwise the same question,
 * which stage it is, is answered by the pressure across each, coarse to fine, and then by a new part swapped in.
 */
export const orderOf = (school: Exclude<School, 'best'>, { model, level }: Followed): readonly Operation[] => {
  switch (school) {
    case 'takeOut':
      return level === 'plain'
        ? mediaOf(model).map((position) => ({ kind: 'takeOut', position }))
        : [...mediaOf(model).map((position): Operation => ({ kind: 'stageDp', position })), ...swapped(model)];
    case 'swap':
      return swapped(model);
    case 'nozzleInward':
      return [
        { kind: 'lookNozzle' },
        { kind: 'flow', place: 'toolEnd' },
        { kind: 'flow', place: 'hoseEnd' },
        { kind: 'lookHose' },
        { kind: 'flow', place: 'inlet' },
        { kind: 'sealed', place: 'inlet' },
      ];
  }
};

export interface SchoolAsked extends Followed {
  readonly traits: MachineTraits;
  readonly out: readonly number[];
  readonly not: readonly Operation[];
}

/** The next test of a fixed school that dust and machine allow; null when the school has none left. The probabilities are the same in every school. */
export const nextOfSchool = (
  school: Exclude<School, 'best'>,
  { model, traits, level, out, not }: SchoolAsked,
): Operation | null => {
  const done = new Set(not.map(operationKey));
  return (
    orderOf(school, { model, level }).find(
      (op) => !done.has(operationKey(op)) && notOffered(op, { stages: model.stages, traits, level, out }) === null,
    ) ?? null
  );
};
