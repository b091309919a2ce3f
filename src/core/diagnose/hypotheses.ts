import type { Fault, FaultPlace } from './fault';

/** One explanation: nothing wrong, one fault, or two, each this severe; with its weight before any evidence. */
export interface Hypothesis {
  readonly faults: readonly Fault[];
  readonly prior: number;
}

/** How much the record speaks for or against a fault: 1 says nothing. */
export type RecordFactor = (place: FaultPlace) => number;

/** Share of complaints with nothing wrong, and with a second fault. Moorwind defaults, modelling choices. */
const NOTHING = 0.06;
const PAIRS = 0.3;
/** Faults that follow from one another are paired this much more often than by chance. */
const CHAIN = 4;

/** Dust let past by one stage loads the next; a lost flow lets the nozzle plug. Source: common practice, no published source. */
const follows = (a: FaultPlace, b: FaultPlace): boolean => {
  const lets = a.kind === 'misseated' || a.kind === 'torn' || a.kind === 'missing';
  if (lets && b.kind === 'blocked' && b.position > a.position) return true;
  return a.kind === 'blocked' && b.kind === 'blocked' && b.position < a.position;
};

const priorOfPair = (a: FaultPlace, b: FaultPlace): number => (follows(a, b) || follows(b, a) ? CHAIN : 1);

const apart = (a: FaultPlace, b: FaultPlace): boolean => a.position !== b.position || (a.kind !== b.kind && a.kind !== 'missing' && b.kind !== 'missing');

const faultsOf = ({ kind, position, severities }: FaultPlace): readonly Fault[] => severities.map((severity) => ({ kind, position, severity }));

/**
 * Every explanation a machine's own path allows: nothing wrong, each fault alone, each two together, on the same grid
 * of severities for both. Priors sum to 1. Source: weights are Moorwind defaults, moved by the record.
 */
export const hypothesesOf = (places: readonly FaultPlace[], record: RecordFactor = () => 1): readonly Hypothesis[] => {
  const weights = places.map((p) => p.weight * Math.max(0, record(p)));
  const total = weights.reduce((sum, w) => sum + w, 0);
  const nothing: Hypothesis = { faults: [], prior: total > 0 ? NOTHING : 1 };
  if (!(total > 0)) return [nothing];
  const singles = places.flatMap((place, i): readonly Hypothesis[] => {
    const prior = ((1 - NOTHING - PAIRS) * (weights[i] ?? 0)) / total / place.severities.length;
    return prior > 0 ? faultsOf(place).map((f) => ({ faults: [f], prior })) : [];
  });
  const pairs = places.flatMap((a, i) =>
    places.slice(i + 1).flatMap((b, k) => {
      const weight = (weights[i] ?? 0) * (weights[i + 1 + k] ?? 0) * priorOfPair(a, b);
      return weight > 0 && apart(a, b) ? [{ a, b, weight }] : [];
    }),
  );
  const pairTotal = pairs.reduce((sum, p) => sum + p.weight, 0);
  const doubles = pairs.flatMap(({ a, b, weight }): readonly Hypothesis[] => {
    const prior = (PAIRS * weight) / pairTotal / (a.severities.length * b.severities.length);
    return faultsOf(a).flatMap((x) => faultsOf(b).map((y) => ({ faults: [x, y], prior })));
  });
  const all = [nothing, ...singles, ...doubles];
  const sum = all.reduce((s, h) => s + h.prior, 0);
  return all.map((h) => ({ ...h, prior: h.prior / sum }));
};
