import type { Constant } from './constant';

const WIDTH =
  'Moorwind default, a modelling choice: how far a machine may lie from its kind (standard deviation of the logarithm)';

/** Weight of a typical figure before anything is measured. */
export const TEMPLATE_WIDTH = {
  lift: { value: 0.25, unit: '1', source: WIDTH },
  flow: { value: 0.35, unit: '1', source: WIDTH },
  leak: { value: 1, unit: '1', source: WIDTH },
  path: { value: 0.8, unit: '1', source: WIDTH },
} as const satisfies Record<string, Constant>;

/** Standard uncertainty of a reading that has none of its own (under three repeats, no meter on record). */
export const UNSTATED_UNCERTAINTY: Constant = {
  value: 0.03,
  unit: '1',
  source: 'Moorwind default, a modelling choice: share of the reading',
};

export const CONTRADICTION: Constant = {
  value: 0.999,
  unit: '1',
  source:
    'Moorwind choice: residuals less likely than 1 in 1000 contradict each other (chi-square, NIST/SEMATECH e-Handbook 1.3.6.6.6)',
};

/** Where the data have shrunk a parameter to less than this of its typical width, it was learned from them. */
export const LEARNED_BELOW: Constant = { value: 0.6, unit: '1', source: 'Moorwind choice' };
