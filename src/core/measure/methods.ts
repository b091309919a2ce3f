import type { QuantityKind } from '../units';

export const METHOD_NAMES = [
  'flowMeter',
  'anemometer',
  'anemometerTraverse',
  'pitot',
  'pitotTraverse',
  'orifice',
  'sealedSuction',
  'suctionCurve',
  'stageDp',
  'gaugeZone',
  'filterMass',
  'particles',
  'hand',
  'indicator',
  'lineVoltage',
  'current',
  'supplyPressure',
  'brushSpeed',
] as const;
export type Method = (typeof METHOD_NAMES)[number];

/** The result quantity of a method. */
export type Measurand =
  | 'flow'
  | 'suction'
  | 'stageDp'
  | 'mass'
  | 'voltage'
  | 'current'
  | 'supplyPressure'
  | 'speed'
  | 'airPower'
  | 'particles'
  | 'word';

/** How its readings hang together: repeats of one figure, points of a traverse or curve, two counts, or words. */
export type Form = 'series' | 'curve' | 'particles' | 'word';

/** The page of the method chooser that lists it. */
export type MethodGroup = 'flow' | 'suction' | 'filter' | 'dust' | 'feel' | 'supply';

/** Inputs the bench asks for besides the readings. */
export type MethodNeed =
  | 'bore'
  | 'profileFactor'
  | 'plan'
  | 'orifice'
  | 'plates'
  | 'stage'
  | 'newMass'
  | 'counting'
  | 'word'
  | 'zone'
  | 'light';

export interface MethodFacts {
  readonly group: MethodGroup;
  readonly form: Form;
  /** The quantity the meter shows. */
  readonly reads: QuantityKind;
  readonly measurand: Measurand;
  /** The quantity of the result. */
  readonly result: QuantityKind;
  readonly needs: readonly MethodNeed[];
}

const series = (
  group: MethodGroup,
  reads: QuantityKind,
  measurand: Measurand,
): Omit<MethodFacts, 'needs' | 'result'> => ({ group, form: 'series', reads, measurand });

const flow = (reads: QuantityKind, needs: readonly MethodNeed[]): MethodFacts => ({
  ...series('flow', reads, 'flow'),
  result: 'flow',
  needs,
});

const word = (group: MethodGroup, needs: readonly MethodNeed[]): MethodFacts => ({
  group,
  form: 'word',
  reads: 'count',
  measurand: 'word',
  result: 'count',
  needs,
});

export const METHODS: Record<Method, MethodFacts> = {
  flowMeter: flow('flow', []),
  anemometer: flow('velocity', ['bore', 'profileFactor']),
  anemometerTraverse: flow('velocity', ['plan']),
  pitot: flow('pressure', ['bore', 'profileFactor']),
  pitotTraverse: flow('pressure', ['plan']),
  orifice: flow('pressure', ['orifice']),
  sealedSuction: { ...series('suction', 'pressure', 'suction'), result: 'pressure', needs: [] },
  suctionCurve: {
    group: 'suction',
    form: 'curve',
    reads: 'pressure',
    measurand: 'airPower',
    result: 'power',
    needs: ['plates'],
  },
  stageDp: { ...series('filter', 'pressure', 'stageDp'), result: 'pressure', needs: ['stage'] },
  gaugeZone: word('filter', ['stage', 'zone']),
  filterMass: { ...series('filter', 'mass', 'mass'), result: 'mass', needs: ['stage', 'newMass'] },
  particles: {
    group: 'dust',
    form: 'particles',
    reads: 'count',
    measurand: 'particles',
    result: 'countConcentration',
    needs: ['counting'],
  },
  hand: word('feel', ['word']),
  indicator: word('feel', ['light']),
  lineVoltage: { ...series('supply', 'voltage', 'voltage'), result: 'voltage', needs: [] },
  current: { ...series('supply', 'current', 'current'), result: 'current', needs: [] },
  supplyPressure: { ...series('supply', 'pressure', 'supplyPressure'), result: 'pressure', needs: [] },
  brushSpeed: { ...series('supply', 'rotation', 'speed'), result: 'rotation', needs: [] },
};

/** Conditions a reading must meet to count. Source: common practice, no published source. */
export const PRECONDITIONS = [
  'speedHigh',
  'bleedClosed',
  'hoseAsBaseline',
  'settled',
  'rigSealed',
  'meterZeroed',
  'brushStated',
] as const;
export type Precondition = (typeof PRECONDITIONS)[number];

const AIR: readonly Precondition[] = ['speedHigh', 'bleedClosed', 'hoseAsBaseline'];

/** The preconditions to be ticked for a method, in the order a technician meets them. Source: common practice, no published source. */
export const preconditionsFor = (input: { method: Method; hasBrush: boolean }): readonly Precondition[] => {
  const brush = input.hasBrush ? (['brushStated'] as const) : [];
  switch (METHODS[input.method].group) {
    case 'flow':
    case 'suction':
      return [...AIR, ...brush, 'settled', 'rigSealed', 'meterZeroed'];
    case 'filter':
      return input.method === 'filterMass' ? ['meterZeroed'] : [...AIR, ...brush, 'settled', 'meterZeroed'];
    case 'dust':
      return ['speedHigh', 'settled', 'meterZeroed'];
    case 'feel':
      return [...AIR, ...brush, 'settled'];
    case 'supply':
      return ['speedHigh', ...brush, 'settled'];
  }
};
