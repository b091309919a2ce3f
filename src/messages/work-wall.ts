import type { First, WhyNot } from '@/core/for-work/judge-machine';

/** What keeps a machine from a dust, in a word or two: for the wall. */
export const SHORT_WHY: Readonly<Record<WhyNot, string>> = {
  dustRefused: 'none here',
  machineRefused: 'sealed',
  somebodyAtIt: 'in work',
  away: 'away',
  drying: 'drying',
  classWithdrawn: 'filter not right',
  classTooLow: 'class too low',
  classNone: 'no class',
  collector: 'collector',
  moreFlow: 'look: more air',
  floorOnly: 'floors',
  fumeOnly: 'fume',
  noGas: 'no gas stage',
  sparks: 'sparks',
  conductive: 'conducts',
  mixes: 'holds worse',
  handTool: 'duct',
  waterOnly: 'with water only',
  notWet: 'dry only',
  hoseTooSlow: 'too slow',
  tooLittleAir: 'too little air',
};

export const SHORT_FIRST: Readonly<Record<First, string>> = {
  questions: 'ask',
  keepsWorse: 'holds worse',
  case: 'case open',
  measure: 'measure',
  due: 'change due',
  full: 'change first',
  mayFill: 'spare at hand',
  bonding: 'bonding open',
  flowUnsure: 'measure',
  selector: 'selector',
  wetSetOut: 'fit dry set',
  examine: 'examine',
  hepaNotClassed: 'ask: HEPA',
  belowUsual: 'little air',
  noAir: 'measure',
};
