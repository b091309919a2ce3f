import { SOLVER_STEPS } from '../../constants/path';
import { bracketedNewton } from '../../numeric/root';
import { addLeak, march, type MarchState, type ReadyChain, type Traces } from './march';
import type { InletState } from './path';

/** One way in front of a Y, ready to be asked for its flow at a junction pressure. */
export interface ReadyMouth {
  readonly chain: ReadyChain;
  readonly opening: InletState;
  readonly from: number;
  readonly trace: Traces;
  /** The last answer, where the next search starts. */
  readonly guess: { x: number; p: number; slope: number };
}

/** Marches the mouth from its opening; x is the flow of an open one, the suction of a closed one. */
const run = (mouth: ReadyMouth, x: number, s: MarchState): void => {
  const { chain, opening, from, trace } = mouth;
  const open = opening.state === 'open';
  s.p = open ? 0 : -x;
  s.dp = open ? 0 : -1;
  s.q = opening.state === 'open' ? x : opening.flowM3s;
  s.dq = open ? 1 : 0;
  if (!open) trace.inflowsM3s[from] = addLeak(chain.leaks[from] ?? 0, s);
  march(chain, { from, to: chain.length, trace }, s);
};

/**
 * The flow of a mouth at a junction pressure of 0 or less, and its slope. A mouth that would deliver more than `most`
 * (far above the fan's flow) is limited to it: the outer search turns back by itself.
 */
export const mouthFlow = (mouth: ReadyMouth, junctionPa: number, most: number): { flow: number; slope: number } => {
  const s: MarchState = { p: 0, dp: 0, q: 0, dq: 0 };
  const { guess } = mouth;
  const found = bracketedNewton({
    low: 0,
    high: mouth.opening.state === 'open' ? most : -junctionPa * 4 + 1,
    // Where the last answer and its slope point to.
    start: guess.x + (guess.slope === 0 ? 0 : (junctionPa - guess.p) / guess.slope),
    tolerance: Math.max(1e-9, -junctionPa * 1e-11),
    evaluate: (x, out) => {
      run(mouth, x, s);
      out.value = s.p - junctionPa;
      out.slope = s.dp;
    },
    maxSteps: SOLVER_STEPS.value,
  });
  Object.assign(guess, { x: found.root, p: s.p, slope: s.dp });
  // What leaks in where the way joins; a way that is closed just there has it already.
  const { chain, from, trace } = mouth;
  if (from < chain.length) trace.inflowsM3s[chain.length] = addLeak(chain.leaks[chain.length] ?? 0, s);
  // Flow against pressure at the junction end: both vary with the unknown of this way.
  return { flow: s.q, slope: s.dp === 0 ? 0 : s.dq / s.dp };
};
