import type { CheckKind, ProcedureId, StepKey } from '../step';

/** The state that a procedure must reach at its end. */
interface Goal {
  /** Ready to work: run, measured, off. `packed`: closed and sealed. `asItWas`: shut and off, nothing measured. */
  readonly ends: 'ready' | 'packed' | 'asItWas';
  /** Stages that must get new parts: its own stage, every part in its scope, or none. */
  readonly renews: 'own' | 'none';
  /** Every place that holds dust is out or cleaned. */
  readonly clears: boolean;
  /** Steps it cannot do without, in this order. Source: handbook of the trade, section 11. */
  readonly order: readonly (StepKey | CheckKind)[];
}

const change = (...order: readonly (StepKey | CheckKind)[]): Goal => ({
  ends: 'ready',
  renews: 'own',
  clears: false,
  order,
});

/** A new procedure without its goal does not compile. */
export const GOALS: Record<ProcedureId, Goal> = {
  plainBag: change('open', 'compartmentClean', 'fitNew', 'latch'),
  safetyBag: change(
    'plugInlet',
    'open',
    'closeBreathers',
    'sealMouth',
    'tieNeck',
    'bagOld',
    'compartmentClean',
    'fitNew',
    'breathersInside',
    'contactClear',
  ),
  endlessLiner: change(
    'pulse',
    'letSettle',
    'switchOff',
    'twistAndCut',
    'bagOld',
    'fitNew',
    'drawDown',
    'tieOff',
    'strapRim',
  ),
  cycloneBag: change('switchOn', 'breakSuction', 'open', 'letInletsClose', 'drawIntoBag', 'fitNew', 'close', 'latch'),
  filterBags: change('crackOpen', 'switchOn', 'drawIntoBag', 'fitNew', 'bagCount', 'close', 'latch'),
  tankBagHeadAside: change(
    'crackOpen',
    'switchOn',
    'setHeadAside',
    'drawIntoBag',
    'fitNew',
    'headOn',
    'latch',
    'switchOff',
  ),
  tankBagSecondVacuum: change(
    'connectSecond',
    'crackOpen',
    'switchOn',
    'setHeadAside',
    'startSecond',
    'drawIntoBag',
    'fitNew',
    'removeSecond',
    'closePort',
    'stopSecond',
    'headOn',
    'switchOff',
    'latch',
  ),
  prefilterWrap: change(
    'crackOpen',
    'switchOn',
    'setHeadAside',
    'fitNew',
    'wrapAllRound',
    'headOn',
    'latch',
    'switchOff',
  ),
  screwHepa: change('open', 'releaseFixings', 'fitNew', 'tightenFixings', 'threadFlush', 'wrapAllRound', 'close'),
  boltedMainFilter: change(
    'plugInlet',
    'open',
    'releaseFixings',
    'bagOld',
    'compartmentClean',
    'fitNew',
    'tightenFixings',
    'close',
  ),
  stackedFilter: change('open', 'fitNew', 'undersideClean', 'close', 'latch'),
  gasStage: change(
    'open',
    'releaseFixings',
    'bagOld',
    'compartmentClean',
    'fitNew',
    'undersideClean',
    'tightenFixings',
    'close',
  ),
  purge: { ends: 'asItWas', renews: 'none', clears: false, order: ['switchOn', 'pulse', 'switchOff'] },
  wash: {
    ends: 'ready',
    renews: 'none',
    clears: false,
    order: ['open', 'close', 'wash', 'startDrying', 'dry', 'open', 'putOldBack', 'close'],
  },
  collectorEmpty: change(
    'noEmbers',
    'closeGates',
    'cleanCanister',
    'letSettle',
    'bagOld',
    'fitNew',
    'openGates',
    'ringTight',
  ),
  centralCan: change('open', 'bagOld', 'compartmentClean', 'fitNew', 'seamRear', 'tabFlush', 'close'),
  plainFilter: change('bagOld', 'compartmentClean', 'fitNew', 'close', 'latch'),
  hosePlug: {
    ends: 'ready',
    renews: 'none',
    clears: false,
    order: ['reverseHose', 'reverseRun', 'switchOff', 'lookThrough', 'stripNozzle', 'close'],
  },
  service: {
    ends: 'packed',
    renews: 'none',
    clears: true,
    order: ['nameSpare', 'wipeOutside', 'decontaminate', 'nothingLeft', 'decontaminationNote', 'packMachine'],
  },
  indicatorCheck: {
    ends: 'asItWas',
    renews: 'none',
    clears: false,
    order: [
      'filtersFresh',
      'discOn',
      'switchOn',
      'lightOn',
      'switchOff',
      'discOff',
      'switchOn',
      'lightOut',
      'switchOff',
    ],
  },
  commissioning: { ends: 'ready', renews: 'none', clears: false, order: ['bonded', 'measureBaseline', 'startTimer'] },
  fullSet: change('open', 'capOld', 'bagOld', 'compartmentClean', 'fitNew', 'close'),
  linerSection: {
    ends: 'ready',
    renews: 'none',
    clears: false,
    order: ['pulse', 'letSettle', 'switchOff', 'twistAndCut', 'bagOld', 'drawDown', 'tieOff'],
  },
  decontamination: {
    ends: 'ready',
    renews: 'own',
    clears: true,
    order: ['wipeOutside', 'wipe', 'decontaminate', 'nothingLeft', 'fitNew'],
  },
};
