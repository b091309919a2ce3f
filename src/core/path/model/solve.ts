import { SOLVER_STEPS, SOLVER_TOLERANCE } from '../../constants/path';
import { fail, failure, ok, type Result } from '../../failure/failure';
import { bracketedNewton, type Root } from '../../numeric/root';
import { type FanCoefficients, fanLiftPa, freeFlowM3s } from './fan';
import { addLeak, march, type MarchState, newTraces, readyChain, type ReadyChain, type Traces } from './march';
import { mouthFlow, type ReadyMouth } from './mouth';
import { type AirPath, AS_BUILT, checkCondition, checkPath, type Condition } from './path';

/** The working point of an air path, and how the solver ended. */
export interface OperatingPoint {
  readonly status: 'converged';
  readonly iterations: number;
  /** Remaining error of the loop closed at the room, Pa (or m3/s for a closed end). */
  readonly residual: number;
  /** Gauge pressure at each node of the trunk, Pa; 0 before the start. */
  readonly pressuresPa: readonly number[];
  /** Flow through each element of the trunk, m3/s at room density; 0 before the start. */
  readonly flowsM3s: readonly number[];
  /** What leaks in at each node of the trunk, m3/s; negative blows out. */
  readonly inflowsM3s: readonly number[];
  readonly mouths: readonly { readonly pressuresPa: readonly number[]; readonly flowsM3s: readonly number[] }[];
  /** Air that comes in at the tools, m3/s. */
  readonly toolFlowM3s: number;
  readonly fanFlowM3s: number;
  readonly fanLiftPa: number;
}

interface Problem {
  readonly trunk: ReadyChain;
  readonly fan: FanCoefficients;
  readonly mouths: readonly ReadyMouth[];
  readonly trace: Traces;
  readonly condition: Condition;
  readonly nodes: number;
}

const startAt = ({ condition, mouths }: Problem): { node: number; open: boolean } => {
  if (condition.start) return { node: condition.start.node, open: condition.start.state === 'open' };
  return { node: 0, open: mouths.length === 0 };
};

/** A way that would carry this many times the fan's free flow is out of reach already. */
const MOST_OF_FREE = 4;

/** Sets the state at the first node for a value of the unknown: the flow of an open start, the pressure of another. */
const enter = (problem: Problem, x: number, s: MarchState): void => {
  const { condition, mouths, trunk, trace } = problem;
  const { node, open } = startAt(problem);
  if (open) {
    s.p = 0;
    s.dp = 0;
    s.q = x;
    s.dq = 1;
    return;
  }
  s.p = x;
  s.dp = 1;
  s.q = 0;
  s.dq = 0;
  if (condition.start?.state === 'drawn') s.q = condition.start.flowM3s;
  else {
    for (const mouth of mouths) {
      const { flow, slope } = mouthFlow(mouth, x, MOST_OF_FREE * freeFlowM3s(problem.fan));
      s.q += flow;
      s.dq += slope;
    }
  }
  trace.inflowsM3s[node] = addLeak(trunk.leaks[node] ?? 0, s);
};

const evaluator = (problem: Problem) => {
  const s: MarchState = { p: 0, dp: 0, q: 0, dq: 0 };
  const { node, open } = startAt(problem);
  const { closedAt } = problem.condition;
  const to = closedAt ?? problem.nodes - 1;
  // An open start's pressure falls with its flow; a closed start's rises with its pressure, so it is turned round.
  const sign = open ? 1 : -1;
  return (x: number, out: { value: number; slope: number }): void => {
    enter(problem, sign * x, s);
    march(problem.trunk, { from: node, to, trace: problem.trace }, s);
    if (closedAt !== null) problem.trace.inflowsM3s[to] = addLeak(problem.trunk.leaks[to] ?? 0, s);
    out.value = closedAt === null ? s.p : -s.q;
    out.slope = (closedAt === null ? s.dp : -s.dq) * sign;
  };
};

const solveRoot = (problem: Problem): Root => {
  const { fan } = problem;
  const { open } = startAt(problem);
  const high = open ? freeFlowM3s(fan) : fan.c0;
  const closed = problem.condition.closedAt !== null;
  return bracketedNewton({
    low: 0,
    // A hair beyond: with nothing in the way the root lies on the edge itself.
    high: high * (1 + 1e-12),
    start: high * (open ? 0.6 : 0.7),
    tolerance: SOLVER_TOLERANCE.value * (closed ? freeFlowM3s(fan) : fan.c0),
    evaluate: evaluator(problem),
    maxSteps: SOLVER_STEPS.value,
  });
};

/** A flow that the start demands, but that the fan cannot move even with no suction there. */
const demandsTooMuch = (problem: Problem): boolean => {
  if (problem.condition.start?.state !== 'drawn') return false;
  const out = { value: 0, slope: 0 };
  evaluator(problem)(0, out);
  return out.value < 0;
};

/** Beyond the last measured point by more than this share of it, a fitted curve is not used. */
const EDGE = 1e-6;

const pointOf = (problem: Problem, root: Root): Result<OperatingPoint> => {
  const { trace, fan, trunk, mouths } = problem;
  const fanFlowM3s = trace.flowsM3s[trunk.fanAt] ?? 0;
  const [low, high] = fan.rangeM3s;
  if (fanFlowM3s < low - EDGE * high || fanFlowM3s > high * (1 + EDGE)) {
    return fail(failure('path.outside-curve', 'fan', { flowM3s: fanFlowM3s, lowM3s: low, highM3s: high }));
  }
  const { node, open } = startAt(problem);
  const start = problem.condition.start;
  const ofMouths = start === null ? mouths : [];
  const toolFlowM3s = open
    ? (trace.flowsM3s[node] ?? 0)
    : start?.state === 'drawn'
      ? start.flowM3s
      : ofMouths.reduce((sum, m) => sum + (m.trace.flowsM3s[m.from] ?? 0), 0);
  return ok({
    status: 'converged',
    iterations: root.iterations,
    residual: root.residual,
    ...trace,
    mouths: ofMouths.map((m) => ({ pressuresPa: m.trace.pressuresPa, flowsM3s: m.trace.flowsM3s })),
    toolFlowM3s,
    fanFlowM3s,
    fanLiftPa: fanLiftPa(fan, fanFlowM3s),
  });
};

/** A path checked and made ready, to be solved under many conditions. */
export interface ReadyPath {
  readonly path: AirPath;
  readonly trunk: ReadyChain;
  /** The ways in front of a Y, in the order of the path's. */
  readonly ways: readonly ReadyChain[];
  readonly fan: FanCoefficients;
}

/** Checks a path and makes it ready for its air and drive. Returns what is wrong by name. */
export const readyPath = (path: AirPath): Result<ReadyPath> => {
  const fan = checkPath(path);
  if (!fan.ok) return fan;
  return ok({
    path,
    fan: fan.value,
    trunk: readyChain(path.trunk, path.air, fan.value),
    ways: path.mouths.map((way) => readyChain(way, path.air, null)),
  });
};

/** Solves a ready path; errors and limits as `solvePath`. Source: as `solvePath`. */
export const solveReady = ({ path, trunk, ways, fan }: ReadyPath, condition: Condition): Result<OperatingPoint> => {
  const named = checkCondition(path, condition);
  if (!named.ok) return named;
  const mouths = ways.map((chain, i): ReadyMouth => {
    const opening = condition.mouths[i] ?? { node: 0, state: 'open' };
    return { chain, opening, from: opening.node, trace: newTraces(chain.length), guess: { x: 0, p: 0, slope: 0 } };
  });
  const problem: Problem = {
    trunk,
    fan,
    mouths,
    condition,
    trace: newTraces(path.trunk.elements.length),
    nodes: path.trunk.elements.length + 1,
  };
  if (demandsTooMuch(problem)) return fail(failure('path.no-point', 'start', { freeM3s: freeFlowM3s(fan) }));
  const root = solveRoot(problem);
  if (!root.converged)
    return fail(failure('path.not-settled', '', { iterations: root.iterations, residual: root.residual }));
  return pointOf(problem, root);
};

/**
 * The operating point of an air path: pressures, flows and leaks, found from one unknown (the tool flow, or the suction
 * where a Y joins or a gauge seals) by marching up to the room on the exhaust side and closing the loop there.
 * Source: series and parallel pipes with a fan (White, Fluid Mechanics, 6.10 and ch. 11); leaks Q = C_d A sqrt(2 dp/rho).
 * Valid: a fan curve that falls; air at room density throughout. Returns the element, leak, fan or place that is wrong
 * by name; `path.no-point` when the fan cannot move what is demanded; `path.outside-curve` for a fitted fan curve used
 * beyond its points; `path.not-settled` with the residual when the steps run out.
 */
export const solvePath = (path: AirPath, condition: Condition = AS_BUILT): Result<OperatingPoint> => {
  const ready = readyPath(path);
  return ready.ok ? solveReady(ready.value, condition) : ready;
};
