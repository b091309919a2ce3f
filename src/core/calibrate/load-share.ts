import { CLEAN, type PathState } from '../path/machine-path';
import { pressureProfile } from '../path/pressure-profile';
import type { ModelledMachine } from './machine-model';
import { AS_NEW } from '../path/as-new';

export interface LoadShareInput {
  readonly modelled: Pick<ModelledMachine, 'model' | 'parameters'>;
  /** Position of the stage that loads. */
  readonly position: number;
  /** Share of the flow whose loss is the limit, above 0 and below 1. */
  readonly limitLoss: number;
}

const HALVINGS = 40;
/** No load of the trade is heavier, Pa s/m3. */
const HEAVIEST = 1e9;

/** The load, Pa s/m3, that a loss of flow means for one stage of a path; null where the path has no working point. */
const loadFinder = ({
  modelled: { model, parameters },
  position,
}: Omit<LoadShareInput, 'limitLoss'>): ((loss: number) => number) | null => {
  const flowAt = (loadPaSM3: number): number | null => {
    const state: PathState = { ...AS_NEW, stages: { ...AS_NEW.stages, [position]: { ...CLEAN, loadPaSM3 } } };
    const drawn = pressureProfile({ model, parameters, state });
    return drawn.ok ? drawn.value.toolFlowM3s : null;
  };
  const clean = flowAt(0);
  if (clean === null || !(clean > 0)) return null;
  return (loss) => {
    let [low, high] = [1, HEAVIEST];
    for (let i = 0; i < HALVINGS; i += 1) {
      const middle = Math.sqrt(low * high);
      if ((flowAt(middle) ?? 0) > (1 - loss) * clean) low = middle;
      else high = middle;
    }
    return Math.sqrt(low * high);
  };
};

/** The load of one stage, Pa s/m3, that costs a share of the flow; null where the path has no working point. Source: the air-path model, the load found by halving. Valid: a loss above 0 and below 1. */
export const loadAtLoss = (input: LoadShareInput): number | null => loadFinder(input)?.(input.limitLoss) ?? null;

/**
 * Turns a loss of flow into a share of the limit's load, through the machine's own air path: flow falls slowly at first
 * and fast at the end, load does not. Answers null where the path has no working point. Source: the air-path model of the
 * machine, the load found by halving. Valid: a loss above 0 and below 1; 0 for no loss.
 */
export const loadShareOf = (input: LoadShareInput): ((loss: number) => number) | null => {
  const loadOf = loadFinder(input);
  if (!loadOf) return null;
  const limit = loadOf(input.limitLoss);
  return (loss) => (loss > 0 && loss < 1 ? loadOf(loss) / limit : 0);
};
