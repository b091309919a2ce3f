import type { Fault, FaultPlace } from './fault';

/** One explanation: nothing wrong, one fault, two, or a short chain, each this severe; with its weight before any evidence. */
export interface Hypothesis {
  readonly faults: readonly Fault[];
  readonly prior: number;
}

/** Weight for or against a fault; 1 is neutral. */
export type Factor = (place: FaultPlace) => number;

/** What moves the priors: the record speaks of every fault, the complaint only of the one that is felt. */
export interface Spoken {
  readonly record: Factor;
  readonly complaint: Factor;
}

const SAYS_NOTHING: Spoken = { record: () => 1, complaint: () => 1 };

/** Share of complaints with nothing wrong, with a second fault, and with a chain of three. Moorwind defaults, modelling choices. */
const NOTHING = 0.05;
const PAIRS = 0.32;
const CHAINS = 0.03;
/** Faults that follow from one another are paired this much more often than by chance. */
const CHAIN = 4;
/**
 * Faults without symptoms stay until inspected, so they accompany a complaint this many times as often as by chance.
 */
const UNNOTICED = 2;
/** Severity of the first fault of a chain: about half; the grades cover the rest. */
const FIRST_OF_CHAIN = 0.55;
/** Grades in a chain of three: a triple is there to be thought of, not to be measured. */
const CHAIN_GRADES = [0.2, 0.4, 0.6, 0.8] as const;

const letsPast = (p: FaultPlace): boolean => p.kind === 'misseated' || p.kind === 'torn' || p.kind === 'missing';

/**
 * Dust that passes one stage loads the next; a lost flow lets the nozzle plug. Source: common practice, no published
 * source.
 */
const follows = (a: FaultPlace, b: FaultPlace): boolean => {
  if (letsPast(a) && b.kind === 'blocked' && b.position > a.position) return true;
  return a.kind === 'blocked' && b.kind === 'blocked' && b.position < a.position;
};

const unnoticed = (p: FaultPlace): boolean => letsPast(p) || p.kind === 'reversed' || p.kind === 'spentGas';

const priorOfPair = (a: FaultPlace, b: FaultPlace): number =>
  (follows(a, b) || follows(b, a) ? CHAIN : 1) * (unnoticed(a) !== unnoticed(b) ? UNNOTICED : 1);

const apart = (a: FaultPlace, b: FaultPlace): boolean =>
  a.position !== b.position || (a.kind !== b.kind && a.kind !== 'missing' && b.kind !== 'missing');

const faultsOf = ({ kind, position, severities, nodes }: FaultPlace): readonly Fault[] =>
  nodes === undefined
    ? severities.map((severity) => ({ kind, position, severity }))
    : nodes.flatMap((node) =>
        severities.map((severity) => ({ kind, position, severity, ...(node === null ? {} : { node }) })),
      );

const pairsOf = (
  places: readonly FaultPlace[],
  weights: readonly number[],
  said: readonly number[],
): readonly Hypothesis[] => {
  const pairs = places.flatMap((a, i) =>
    places.slice(i + 1).flatMap((b, k) => {
      // One of the two explains the complaint; the other need not.
      const weight =
        (weights[i] ?? 0) *
        (weights[i + 1 + k] ?? 0) *
        Math.max(said[i] ?? 0, said[i + 1 + k] ?? 0) *
        priorOfPair(a, b);
      return weight > 0 && apart(a, b) ? [{ a, b, weight }] : [];
    }),
  );
  const total = pairs.reduce((sum, p) => sum + p.weight, 0);
  return pairs.flatMap(({ a, b, weight }): readonly Hypothesis[] => {
    const [first, second] = [faultsOf(a), faultsOf(b)];
    const prior = (PAIRS * weight) / total / (first.length * second.length);
    return first.flatMap((x) => second.map((y) => ({ faults: [x, y], prior })));
  });
};

/** A bag that lets dust past, the filter behind it blinded, and the mouth plugged for want of air: the trade's own chain. */
const chainsOf = (places: readonly FaultPlace[], weights: readonly number[]): readonly Hypothesis[] => {
  const blocked = places.map((p, i) => ({ p, i })).filter(({ p }) => p.kind === 'blocked');
  const mouth = blocked[0];
  const chains = places.flatMap((cause, i) => {
    if (cause.kind !== 'misseated' && cause.kind !== 'torn') return [];
    const next = blocked.find(({ p }) => p.position > cause.position);
    if (!next || !mouth || mouth.p.position >= cause.position) return [];
    return [
      {
        cause,
        next: next.p,
        mouth: mouth.p,
        weight: (weights[i] ?? 0) * (weights[next.i] ?? 0) * (weights[mouth.i] ?? 0),
      },
    ];
  });
  const total = chains.reduce((sum, c) => sum + c.weight, 0);
  if (!(total > 0)) return [];
  return chains.flatMap(({ cause, next, mouth: end, weight }): readonly Hypothesis[] => {
    const prior = (CHAINS * weight) / total / CHAIN_GRADES.length ** 2;
    const first: Fault = { kind: cause.kind, position: cause.position, severity: FIRST_OF_CHAIN };
    const graded = (p: FaultPlace): readonly Fault[] =>
      CHAIN_GRADES.map((severity) => ({ kind: p.kind, position: p.position, severity }));
    return graded(next).flatMap((x) => graded(end).map((y) => ({ faults: [first, x, y], prior })));
  });
};

/**
 * Every explanation a machine's own path allows: nothing wrong, each fault alone, each two together on the same grid of
 * severities, and the short chains. Priors sum to 1. Source: weights are Moorwind defaults, moved by the record.
 */
export const hypothesesOf = (
  places: readonly FaultPlace[],
  { record, complaint }: Spoken = SAYS_NOTHING,
): readonly Hypothesis[] => {
  const weights = places.map((p) => p.weight * Math.max(0, record(p)));
  const said = places.map((p) => Math.max(0, complaint(p)));
  const total = weights.reduce((sum, w, i) => sum + w * (said[i] ?? 0), 0);
  const nothing: Hypothesis = { faults: [], prior: total > 0 ? NOTHING : 1 };
  if (!(total > 0)) return [nothing];
  const singles = places.flatMap((place, i): readonly Hypothesis[] => {
    const faults = faultsOf(place);
    const prior = ((1 - NOTHING - PAIRS - CHAINS) * (weights[i] ?? 0) * (said[i] ?? 0)) / total / faults.length;
    return prior > 0 ? faults.map((f) => ({ faults: [f], prior })) : [];
  });
  const all = [nothing, ...singles, ...pairsOf(places, weights, said), ...chainsOf(places, weights)];
  const sum = all.reduce((s, h) => s + h.prior, 0);
  return all.map((h) => ({ ...h, prior: h.prior / sum }));
};
