import { close, disposeOld, isolate, latch, machineStep, open, runUp, seatChecks, step, type Method } from './method';

// What is done to a machine or a stage without a new part. Source: common practice, no published source.

export const purge: Method = (c) => [
  machineStep('switchOn', 'running'),
  machineStep('plugInlet', 'running', { opens: 'inlet' }),
  step(c, ['pulse', 'running']),
  step(c, ['readGauge', 'running'], { because: 'proof' }),
  machineStep('unplugInlet', 'running', { closes: 'inlet' }),
];

export const hosePlug: Method = (c) => [
  isolate(),
  step(c, ['takeOut', 'off'], { opens: 'inlet', dusty: true }),
  step(c, ['reverseHose', 'running'], { caution: 'sharp' }),
  step(c, ['lookThrough', 'off']),
  machineStep('stripNozzle', 'off'),
  step(c, ['close', 'off'], { closes: 'inlet' }),
  ...runUp(),
];

export const service: Method = (c) => [
  isolate(),
  step(c, ['open', 'off'], { opens: 'lid', dusty: true }),
  step(c, ['takeOut', 'off'], { dusty: true, moves: 'bagOld' }),
  machineStep('decontaminate', 'off', { dusty: true, because: 'safety' }),
  step(c, ['close', 'off'], { closes: 'lid' }),
  disposeOld(c),
  machineStep('packMachine', 'off', { because: 'safety' }),
];

export const indicatorCheck: Method = () => [machineStep('switchOn', 'running'), machineStep('discOn', 'running', { opens: 'inlet' }), machineStep('proveIndicator', 'running', { closes: 'inlet', because: 'proof' })];

export const commissioning: Method = (c) => [
  isolate(),
  machineStep('bondFirst', 'off', { check: 'bonded', because: 'safety' }),
  machineStep('check', 'off', { check: 'hoseLocked', because: 'seat' }),
  machineStep('check', 'off', { check: 'selectorRight', because: 'seat' }),
  ...seatChecks(c, 'off'),
  machineStep('runAndListen', 'running', { because: 'proof' }),
  machineStep('measureBaseline', 'running', { because: 'proof' }),
  machineStep('startTimer', 'running', { because: 'stock' }),
];

export const wash: Method = (c) => [
  isolate(),
  open(c),
  step(c, ['takeOut', 'off'], { dusty: true, moves: 'holdOld' }),
  step(c, ['wash', 'off'], { caution: 'noBlowing' }),
  step(c, ['startDrying', 'off']),
  step(c, ['check', 'off'], { check: 'dry', because: 'seat' }),
  step(c, ['fitNew', 'off'], { moves: 'putOldBack', dusty: true }),
  ...seatChecks(c, 'off'),
  close(c),
  latch(c),
  ...runUp(),
];
