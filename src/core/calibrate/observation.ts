import type { Result } from '../failure/failure';
import type { MachineModel, PathParameters, PathState } from '../path/machine-path';
import { type Entry, pressureProfile } from '../path/pressure-profile';

/** One thing measured on a machine in a known state, with how well. SI. */
export type Observation = {
  /** For the reader: which test, and what. */
  readonly label: string;
  readonly testId: number | null;
  readonly value: number;
  readonly standardUncertainty: number;
  /** Half the 95 % interval of the reading. */
  readonly expanded: number;
  readonly state: PathState;
} & (
  | {
      readonly what: 'flow';
      readonly entry: Entry;
      /** At the tool side or behind everything. */ readonly at: 'in' | 'out';
    }
  /** Suction at a node that takes in a known flow: 0 is sealed, an orifice its flow. */
  | { readonly what: 'suction'; readonly node: number; readonly drawnM3s: number; readonly drawnUncertaintyM3s: number }
  | { readonly what: 'stageDp'; readonly entry: Entry; readonly position: number }
);

const entryOf = (o: Observation): Entry =>
  o.what === 'suction' ? { at: 'node', opening: { node: o.node, state: 'drawn', flowM3s: o.drawnM3s } } : o.entry;

/**
 * The reading that the model predicts for an observation, in its own unit. Errors as `pressureProfile`. Source: the
 * air-path model. Valid: as `pressureProfile`.
 */
export const predict = (o: Observation, model: MachineModel, parameters: PathParameters): Result<number> => {
  const solved = pressureProfile({ model, parameters, state: o.state, entry: entryOf(o) });
  if (!solved.ok) return solved;
  const stairs = solved.value;
  switch (o.what) {
    case 'flow':
      return { ok: true, value: o.at === 'in' ? stairs.flowPerToolM3s : stairs.outletFlowM3s };
    case 'suction':
      return { ok: true, value: -(stairs.nodesPa[o.node] ?? 0) };
    case 'stageDp':
      return { ok: true, value: stairs.steps[o.position]?.dropPa ?? 0 };
  }
};

/** How fast the suction at an orifice changes with its flow: the flow's own doubt becomes a doubt of the suction. Pa s/m3. Source: GUM 5.1.2, the sensitivity coefficient. Valid: where the model can be solved; 0 elsewhere. */
export const slopeOfSuction = (
  o: Extract<Observation, { what: 'suction' }>,
  model: MachineModel,
  parameters: PathParameters,
): number => {
  if (o.drawnM3s === 0) return 0;
  const by = o.drawnM3s * 1e-3;
  const [up, down] = [o.drawnM3s + by, o.drawnM3s - by].map((drawnM3s) =>
    predict({ ...o, drawnM3s }, model, parameters),
  );
  return up?.ok && down?.ok ? (up.value - down.value) / (2 * by) : 0;
};
