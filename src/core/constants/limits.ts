import type { Constant } from './constant';

export const CLASS_HOSE_VELOCITY: Constant = {
  value: 20,
  unit: 'm/s',
  source: 'EN 60335-2-69 Annex AA: M and H machines warn below this air velocity in the hose',
};

export const BASELINE_WARN_LOSS: Constant = {
  value: 0.15,
  unit: '1',
  source: 'Moorwind default, a modelling choice: warn at this share of the baseline lost, inclusive',
};

export const BASELINE_ACT_LOSS: Constant = {
  value: 0.25,
  unit: '1',
  source: 'Moorwind default, a modelling choice: act at this share of the baseline lost, inclusive',
};

export const BASELINE_GAIN_QUESTION: Constant = {
  value: 0.05,
  unit: '1',
  source: 'Moorwind default, a modelling choice: more flow than the baseline by this share asks about a lost filter',
};

export const CENTRE_PROFILE_FACTOR: Constant = {
  value: 0.82,
  unit: '1',
  source: 'Mean over centre velocity of the 1/7-power law, 0.8167 rounded; ACGIH practice uses 0.9, so it is asked',
};

export const VERDICT_REPEATS: Constant = {
  value: 3,
  unit: '1',
  source: 'common practice, no published source: at least three repeats for a comparison',
};

export const CONFIDENCE: Constant = { value: 0.95, unit: '1', source: 'JCGM 100:2008 (GUM) section 6, usual level' };

export const INDICATOR_FROM: Constant = {
  value: 10,
  unit: 's',
  source: 'common practice, no published source: an indicator is judged 10-15 s after the start',
};
