import type { Constant } from './constant';

/** The room air an air path is described for; media scale with viscosity and fittings with density away from it. */
export const REFERENCE_VISCOSITY: Constant = {
  value: 1.813e-5,
  unit: 'Pa s',
  source: "Sutherland's law at 20 degC (White, Viscous Fluid Flow, table 1-2)",
};

export const LAMINAR_LIMIT: Constant = {
  value: 2300,
  unit: '1',
  source: 'Reynolds number to which pipe flow is taken as laminar (White, Fluid Mechanics, ch. 6)',
};

export const TURBULENT_FROM: Constant = {
  value: 4000,
  unit: '1',
  source: 'Reynolds number from which Colebrook-White holds (White, Fluid Mechanics, ch. 6)',
};

export const LEAK_COEFFICIENT: Constant = {
  value: 0.61,
  unit: '1',
  source: 'Discharge of a sharp-edged opening, high Reynolds number (Kirchhoff, pi/(pi+2) = 0.611)',
};

export const ENTRY_K: Constant = {
  value: 0.5,
  unit: '1',
  source: 'Plain pipe end drawing from the room or a tank (White, Fluid Mechanics, fig. 6.21)',
};

export const EXIT_K: Constant = {
  value: 1,
  unit: '1',
  source: 'Pipe blowing into a tank: its whole velocity pressure is lost (White, Fluid Mechanics, fig. 6.22)',
};

export const CORRUGATED_FRICTION: Constant = {
  value: 0.045,
  unit: '1',
  source: 'Moorwind default, a modelling choice: Darcy factor of a corrugated hose, 0.04 to 0.05 until calibrated',
};

export const DUCT_ROUGHNESS: Constant = {
  value: 1.5e-4,
  unit: 'm',
  source: 'Galvanised steel (Moody 1944; White, Fluid Mechanics, table 6.1)',
};

/** A lid seal in good order leaks a little: 5 to 20 mm2. */
export const SEAL_LEAK: Constant = {
  value: 12e-6,
  unit: 'm2',
  source: 'Moorwind default, a modelling choice: middle of 5 to 20 mm2',
};

/** How exact an operating point is: a share of the fan's lift at no flow. */
export const SOLVER_TOLERANCE: Constant = {
  value: 1e-9,
  unit: '1',
  source: 'Moorwind choice: far below any gauge, and reached in a few Newton steps',
};

export const SOLVER_STEPS: Constant = {
  value: 200,
  unit: '1',
  source: 'Moorwind choice: halving alone ends in about 60',
};
