import type { PathAir } from './air';
import { type Drop, type DropOf } from './drop-of';
import { dropOf, parabolaOf } from './drop';
import type { Chain } from './element';
import { type FanCoefficients } from './fan';
import { LEAK_LINEAR_PA, leakConductance } from './leak';

/** A chain made ready for one air and one drive. The fan is the element without a drop. */
export interface ReadyChain {
  readonly length: number;
  /** R1 and R2 of the elements that are plain parabolas, kept flat: they are nearly all, and the march is the inner loop. */
  readonly r1: readonly number[];
  readonly r2: readonly number[];
  /** The drop of the others; null for a parabola and for the fan. */
  readonly drops: readonly (DropOf | null)[];
  readonly fan: FanCoefficients | null;
  /** -1 without a fan. */
  readonly fanAt: number;
  readonly leaks: readonly number[];
}

export const readyChain = ({ elements, leaksM2 }: Chain, air: PathAir, fan: FanCoefficients | null): ReadyChain => {
  const parabolas = elements.map((e) => parabolaOf(e, air));
  return {
    length: elements.length,
    r1: parabolas.map((p) => (p ? p[0] : 0)),
    r2: parabolas.map((p) => (p ? p[1] : 0)),
    drops: elements.map((e, i) => (parabolas[i] || e.kind === 'fan' ? null : dropOf(e, air))),
    fan,
    fanAt: elements.findIndex((e) => e.kind === 'fan'),
    leaks: leaksM2.map((areaM2) => (areaM2 === 0 ? 0 : leakConductance({ areaM2, densityKgM3: air.densityKgM3 }))),
  };
};

/** Pressure and flow at a place of the march, with their slopes in the unknown. */
export interface MarchState {
  p: number;
  dp: number;
  q: number;
  dq: number;
}

/** Records of a march: gauge pressure at each node, flow through each element, inflow of each leak. */
export interface Traces {
  readonly pressuresPa: number[];
  readonly flowsM3s: number[];
  readonly inflowsM3s: number[];
}

const zeros = (count: number): number[] => {
  const list: number[] = [];
  for (let i = 0; i < count; i += 1) list.push(0);
  return list;
};

export const newTraces = (elements: number): Traces => ({
  pressuresPa: zeros(elements + 1),
  flowsM3s: zeros(elements),
  inflowsM3s: zeros(elements + 1),
});

const LINEAR_ROOT = Math.sqrt(LEAK_LINEAR_PA);

/** Adds what leaks in at a node to the flow. m3/s. Source: orifice equation, Q proportional to the root of the pressure. Valid: a conductance of 0 or more. */
export const addLeak = (conductance: number, s: MarchState): number => {
  if (conductance === 0) return 0;
  const size = Math.abs(s.p);
  const root = size > LEAK_LINEAR_PA ? Math.sqrt(size) : LINEAR_ROOT;
  const inflow =
    size > LEAK_LINEAR_PA ? (s.p < 0 ? conductance * root : -conductance * root) : (-conductance * s.p) / LINEAR_ROOT;
  const slope = size > LEAK_LINEAR_PA ? -conductance / (2 * root) : -conductance / LINEAR_ROOT;
  s.q += inflow;
  s.dq += slope * s.dp;
  return inflow;
};

export interface Span {
  readonly from: number;
  readonly to: number;
  readonly trace: Traces;
}

const drop: Drop = { pa: 0, slope: 0 };

/**
 * Carries pressure and flow along a chain from node `from` to node `to`, leaks included, fan lifting, and leaves the
 * trace. The leak of the last node is not taken: the caller says what lies there.
 */
export const march = (chain: ReadyChain, { from, to, trace }: Span, s: MarchState): void => {
  trace.pressuresPa[from] = s.p;
  for (let i = from; i < to; i += 1) {
    trace.flowsM3s[i] = s.q;
    const size = Math.abs(s.q);
    const part = chain.drops[i];
    if (part) {
      part(s.q, drop);
      s.p -= drop.pa;
      s.dp -= drop.slope * s.dq;
    } else if (i === chain.fanAt && chain.fan) {
      const { c0, c1, c2 } = chain.fan;
      s.p += c0 - s.q * (c1 + c2 * size);
      s.dp -= (c1 + 2 * c2 * size) * s.dq;
    } else {
      const [r1, r2] = [chain.r1[i] ?? 0, chain.r2[i] ?? 0];
      s.p -= s.q * (r1 + r2 * size);
      s.dp -= (r1 + 2 * r2 * size) * s.dq;
    }
    trace.pressuresPa[i + 1] = s.p;
    if (i + 1 < to) trace.inflowsM3s[i + 1] = addLeak(chain.leaks[i + 1] ?? 0, s);
  }
};
