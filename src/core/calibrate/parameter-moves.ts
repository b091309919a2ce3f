import { NORMAL_95 } from '../numeric/normal';
import { TEMPLATE_WIDTH } from '../constants/calibration';
import type { PathParameters } from '../path/machine-path';
import type { Calibration } from './calibrate';
import type { Basis } from './machine-model';

type Name = keyof PathParameters;
const NAMES: readonly Name[] = ['p0Pa', 'qMaxM3s', 'leakM2', 'pathScale'];
const TYPICAL: Readonly<Record<Name, number>> = {
  p0Pa: TEMPLATE_WIDTH.lift.value,
  qMaxM3s: TEMPLATE_WIDTH.flow.value,
  leakM2: TEMPLATE_WIDTH.leak.value,
  pathScale: TEMPLATE_WIDTH.path.value,
};
/** A lift above the air's own pressure is none. Pa. */
const MOST_LIFT_PA = 101_000;

const fittedWidth = ({ fitted }: Calibration, name: Name): number => {
  const found = fitted.find((f) => f.name === name);
  return found && found.low > 0 ? Math.log(found.high / found.low) / (2 * NORMAL_95) : TYPICAL[name];
};

/** How far each parameter may be off: standard deviation of its logarithm. */
const widthOf = (basis: Basis, name: Name): number =>
  basis.kind === 'calibrated' ? fittedWidth(basis.calibration, name) : TYPICAL[name];

/** Every parameter moved up and down by its own standard deviation, one at a time. Source: the calibration, or the width of the kind. Valid: parameters above 0. */
export const parameterMoves = (
  parameters: PathParameters,
  basis: Basis,
): readonly (readonly [up: PathParameters, down: PathParameters])[] =>
  NAMES.map((name) => {
    const width = widthOf(basis, name);
    const moved = (by: number): PathParameters => {
      const value = parameters[name] * Math.exp(by);
      return { ...parameters, [name]: name === 'p0Pa' ? Math.min(value, MOST_LIFT_PA) : value };
    };
    return [moved(width), moved(-width)];
  });
