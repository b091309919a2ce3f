import { STANDARD_DENSITY } from '../../constants/air';
import { REFERENCE_VISCOSITY } from '../../constants/path';

/** The room air that moves through a path. It is taken at room density throughout: a stated limit of the model. */
export interface PathAir {
  readonly densityKgM3: number;
  readonly viscosityPaS: number;
}

export const REFERENCE_AIR: PathAir = { densityKgM3: STANDARD_DENSITY.value, viscosityPaS: REFERENCE_VISCOSITY.value };
