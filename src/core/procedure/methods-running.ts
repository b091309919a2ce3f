import {
  bagOld,
  closeInlet,
  contained,
  fitting,
  latch,
  machineStep,
  type Method,
  type MethodContext,
  openInlet,
  step,
  takeNew,
  wiped,
} from './method';
import type { RunState, Step } from './step';

// Changes while the machine runs, or with its running head set aside. Source: common practice, no published source.

/** The old part is drawn into a bag held at the opening, tied, and what came loose is wiped up before the new one goes in. */
const drawnOut = (c: MethodContext, run: RunState): readonly Step[] => [
  step(c, ['drawIntoBag', run], { dusty: true }),
  ...bagOld(c, run),
  ...wiped(c, run),
];

/** Kept running: the air and loose dust are drawn into the opening. Only where the maker built it for that. */
export const cycloneBag: Method = (c) => [
  takeNew(c),
  machineStep('switchOn', 'running', { caution: 'makersWay' }),
  machineStep('breakSuction', 'running', { opens: 'inlet' }),
  step(c, ['open', 'running'], { opens: 'door', dusty: true }),
  machineStep('letInletsClose', 'running', { closes: 'inlet' }),
  ...drawnOut(c, 'running'),
  ...fitting(c, 'running'),
  step(c, ['close', 'running'], { closes: 'door' }),
  latch(c, 'running'),
];

export const filterBags: Method = (c) => [
  takeNew(c),
  step(c, ['crackOpen', 'off'], { opens: 'lid', caution: 'makersWay' }),
  machineStep('switchOn', 'running', { caution: 'aloneRunning' }),
  ...drawnOut(c, 'running'),
  ...fitting(c, 'running'),
  step(c, ['close', 'running'], { closes: 'lid' }),
  latch(c, 'running'),
];

const inletFirst = (c: MethodContext): readonly Step[] => (contained(c) ? closeInlet(c) : []);
const inletLast = (c: MethodContext): readonly Step[] => (contained(c) ? openInlet(c) : []);

/** The head runs beside the tank. Latch first, then off: the suction holds the head down while it is latched. */
const headAside =
  (out: (c: MethodContext) => readonly Step[]): Method =>
  (c) => [
    takeNew(c),
    ...inletFirst(c),
    step(c, ['crackOpen', 'off'], { opens: 'head', caution: 'makersWay' }),
    machineStep('switchOn', 'headAside', { caution: 'aloneRunning' }),
    machineStep('setHeadAside', 'headAside'),
    ...out(c),
    ...fitting(c, 'headAside'),
    machineStep('headOn', 'headAside', { closes: 'head' }),
    latch(c, 'headAside'),
    machineStep('switchOff', 'off'),
    ...inletLast(c),
  ];

export const tankBagHeadAside: Method = headAside((c) => drawnOut(c, 'headAside'));

/** Only straight after a bag change, with the head still aside and running. */
export const prefilterWrap: Method = headAside((c) => [...bagOld(c, 'headAside'), ...wiped(c, 'headAside')]);

export const tankBagSecondVacuum: Method = (c) => [
  takeNew(c),
  machineStep('connectSecond', 'off', { caution: 'hoseStays' }),
  step(c, ['crackOpen', 'off'], { opens: 'head', caution: 'makersWay' }),
  machineStep('switchOn', 'headAside', { caution: 'aloneRunning' }),
  machineStep('setHeadAside', 'headAside'),
  machineStep('startSecond', 'secondVacuum'),
  ...drawnOut(c, 'secondVacuum'),
  ...fitting(c, 'secondVacuum'),
  machineStep('removeSecond', 'secondVacuum', { dusty: true }),
  machineStep('closePort', 'secondVacuum'),
  machineStep('stopSecond', 'headAside'),
  machineStep('headOn', 'headAside', { closes: 'head' }),
  // Off first, then latch: the other way round than with the head set aside alone.
  machineStep('switchOff', 'off'),
  latch(c),
];
