import { SOLVER_STEPS } from '../../constants/path';
import { bracketedNewton } from '../../numeric/root';
import { addLeak, march, type MarchState, type ReadyChain, type Traces } from './march';
import type { Opening } from './path';

/** One way in front of a Y, ready to be asked for its flow at a junction pressure. */
export interface ReadyMouth {
  readonly chain: ReadyChain;
  readonly opening: Opening;
  readonly from: number;
  readonly trace: Traces;
  /** The last answer, where the next search starts. */
  readonly guess: { x: number };
}

/** Marches the mouth from its opening; x is the flow of an open one, the suction of a closed one. */
const run = (mouth: ReadyMouth, x: number, s: MarchState): void => {
  const { chain, opening, from, trace } = mouth;
  const open = opening.state === 'open';
  Object.assign(s, open ? { p: 0, dp: 0, q: x, dq: 1 } : { p: -x, dp: -1, q: opening.flowM3s, dq: 0 });
  if (!open) trace.inflowsM3s[from] = addLeak(chain.leaks[from] ?? 0, s);
  march(chain, { from, to: chain.length, trace }, s);
};

/**
 * What a mouth delivers at a junction pressure of 0 or less, and how that changes with the pressure. The search bracket
 * is doubled until it holds the answer; a mouth with no resistance at all is refused by `checkElement` long before.
 */
export const mouthFlow = (mouth: ReadyMouth, junctionPa: number): { flow: number; slope: number } => {
  const s: MarchState = { p: 0, dp: 0, q: 0, dq: 0 };
  const evaluate = (x: number, out: { value: number; slope: number }) => {
    run(mouth, x, s);
    out.value = s.p - junctionPa;
    out.slope = s.dp;
  };
  const at = { value: 0, slope: 0 };
  let high = Math.max(mouth.guess.x * 2, mouth.opening.state === 'open' ? 1e-3 : Math.max(1, -junctionPa));
  for (let i = 0; i < 60; i += 1) {
    evaluate(high, at);
    if (at.value <= 0) break;
    high *= 2;
  }
  const found = bracketedNewton({ low: 0, high, start: mouth.guess.x, tolerance: Math.max(1e-9, -junctionPa * 1e-12), evaluate, maxSteps: SOLVER_STEPS.value });
  run(mouth, found.root, s);
  mouth.guess.x = found.root;
  // Flow against pressure at the junction end: both vary with the unknown of this way.
  return { flow: s.q, slope: s.dp === 0 ? 0 : s.dq / s.dp };
};
