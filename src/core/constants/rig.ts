import type { Constant } from './constant';

/** How well a rig is known. Limits, so divided by sqrt 3 before use. All of them Moorwind defaults, a modelling choice. */
export const RIG_LIMITS = {
  boreM: { value: 2e-4, unit: 'm', source: 'Moorwind default: a bore measured with a calliper, limits of 0.2 mm' },
  profileFactor: {
    value: 0.04,
    unit: '1',
    source: 'Moorwind default: half the way from the 1/7-power law (0.82) to ACGIH practice (0.9)',
  },
  traverse: {
    value: 0.01,
    unit: '1',
    source: 'Moorwind default after ISO 3966: numerical integration of a fully developed profile',
  },
  plateCoefficient: {
    value: 0.01,
    unit: '1',
    source: 'Half the range 0.60 to 0.62 of a sharp-edged plate (ASTM F558 family)',
  },
  density: { value: 0.005, unit: '1', source: 'Moorwind default: temperature to 1 K and pressure to 0.3 %' },
} as const satisfies Record<string, Constant>;

export const PLATE_COEFFICIENT: Constant = {
  value: 0.61,
  unit: '1',
  source: 'Sharp-edged plate drawing from the free room, 0.60 to 0.62 (ASTM F558 family)',
};

export const AIR_ISENTROPIC_EXPONENT: Constant = {
  value: 1.4,
  unit: '1',
  source: 'Diatomic gas at room temperature, ISO 5167-1',
};
