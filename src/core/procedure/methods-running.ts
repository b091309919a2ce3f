import {
  bagOld,
  disposeOld,
  fitNew,
  latch,
  machineStep,
  type Method,
  runUp,
  seatChecks,
  step,
  takeNew,
} from './method';

// Changes while the machine runs, or with its running head set aside. Source: common practice, no published source.

/** Kept running: the air is drawn into the opening, and what comes loose with it. Only where the maker built it for that. */
export const cycloneBag: Method = (c) => [
  ...takeNew(c),
  machineStep('switchOn', 'running', { caution: 'makersWay' }),
  machineStep('breakSuction', 'running', { opens: 'inlet' }),
  step(c, ['open', 'running'], { opens: 'door', dusty: true }),
  machineStep('letInletsClose', 'running', { closes: 'inlet' }),
  step(c, ['drawIntoBag', 'running'], { dusty: true }),
  ...bagOld(c, 'running'),
  fitNew(c, 'running'),
  ...seatChecks(c, 'running', ['nothingPinched']),
  step(c, ['close', 'running'], { closes: 'door' }),
  disposeOld(c, 'running'),
  ...runUp(),
];

export const filterBags: Method = (c) => [
  ...takeNew(c),
  step(c, ['crackOpen', 'off'], { opens: 'lid', caution: 'makersWay' }),
  machineStep('switchOn', 'running', { caution: 'aloneRunning' }),
  step(c, ['drawIntoBag', 'running'], { dusty: true }),
  ...bagOld(c, 'running'),
  step(c, ['wipe', 'running'], { dusty: true }),
  fitNew(c, 'running'),
  ...seatChecks(c, 'running', ['bagCount']),
  step(c, ['close', 'running'], { closes: 'lid' }),
  machineStep('switchOff', 'off'),
  disposeOld(c),
  ...runUp(),
];

export const tankBagHeadAside: Method = (c) => [
  ...takeNew(c),
  step(c, ['crackOpen', 'off'], { opens: 'head', caution: 'makersWay' }),
  machineStep('switchOn', 'headAside', { caution: 'aloneRunning' }),
  machineStep('setHeadAside', 'headAside'),
  step(c, ['drawIntoBag', 'headAside'], { dusty: true }),
  ...bagOld(c, 'headAside'),
  step(c, ['wipe', 'headAside'], { dusty: true }),
  fitNew(c, 'headAside'),
  ...seatChecks(c, 'headAside'),
  machineStep('headOn', 'headAside', { closes: 'head' }),
  // Latch first, then off: here the suction holds the head down while it is latched.
  latch(c, 'headAside'),
  machineStep('switchOff', 'off'),
  disposeOld(c),
  ...runUp(),
];

export const tankBagSecondVacuum: Method = (c) => [
  ...takeNew(c),
  machineStep('connectSecond', 'off', { caution: 'hoseStays' }),
  step(c, ['crackOpen', 'off'], { opens: 'head', caution: 'makersWay' }),
  machineStep('switchOn', 'headAside', { caution: 'aloneRunning' }),
  machineStep('setHeadAside', 'headAside'),
  machineStep('startSecond', 'secondVacuum'),
  step(c, ['drawIntoBag', 'secondVacuum'], { dusty: true }),
  ...bagOld(c, 'secondVacuum'),
  step(c, ['wipe', 'secondVacuum'], { dusty: true }),
  fitNew(c, 'secondVacuum'),
  ...seatChecks(c, 'secondVacuum'),
  machineStep('removeSecond', 'secondVacuum'),
  machineStep('stopSecond', 'headAside'),
  machineStep('headOn', 'headAside', { closes: 'head' }),
  // Off first, then latch: the other way round than with the head set aside alone.
  machineStep('switchOff', 'off'),
  latch(c),
  disposeOld(c),
  ...runUp(),
];

/** Only straight after a bag change, with the head still aside and running. */
export const prefilterWrap: Method = (c) => [
  ...takeNew(c),
  step(c, ['crackOpen', 'off'], { opens: 'head', caution: 'makersWay' }),
  machineStep('switchOn', 'headAside', { caution: 'aloneRunning' }),
  machineStep('setHeadAside', 'headAside'),
  ...bagOld(c, 'headAside'),
  fitNew(c, 'headAside'),
  ...seatChecks(c, 'headAside', ['wrapAllRound']),
  machineStep('headOn', 'headAside', { closes: 'head' }),
  latch(c, 'headAside'),
  machineStep('switchOff', 'off'),
  disposeOld(c),
  ...runUp(),
];
