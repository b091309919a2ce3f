import type { HoseInput, HoseOutput } from '@/contracts/calc/air-path';
import { withHose } from '@/core/calibrate/load';
import { AS_NEW } from '@/core/path/as-new';
import { type HoseLimits, judgeHose } from '@/core/for-work/hose-choice';
import { predictThrough } from '@/core/for-work/predict';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import { boreAreaM2, boreVelocityMs } from '@/core/measure/bore-flow';
import { checkElement } from '@/core/path/model/check-element';
import { dropOf } from '@/core/path/model/drop';
import type { Element } from '@/core/path/model/element';
import { darcyFactor } from '@/core/path/model/friction';
import { pressureProfile } from '@/core/path/pressure-profile';
import { airOf, frictionOf, machineOf } from './path-input';
import { collect, inSi, readQuantity } from './quantities';

const limitsOf = ({ must, leastVelocity }: HoseInput): Result<HoseLimits> => {
  const flow = must === undefined ? ok(null) : readQuantity(must, 'flow', 'must');
  const least = leastVelocity === undefined ? ok(null) : readQuantity(leastVelocity, 'velocity', 'leastVelocity');
  return flow.ok && least.ok
    ? ok({ mustM3s: flow.value, hoseMs: least.value })
    : fail(...[flow, least].flatMap((r) => (r.ok ? [] : r.failures)));
};

const machineAnswer = (input: HoseInput, hose: { boreM: number; lengthM: number }): Result<HoseOutput['machine']> => {
  if (!input.machine) return ok(null);
  const [machine, limits] = [machineOf(input.machine), limitsOf(input)];
  if (!machine.ok) return machine;
  if (!limits.ok) return limits;
  const question = { ...machine.value, state: AS_NEW };
  const [own, other] = [pressureProfile(question), withHose(question, hose)];
  if (!own.ok || !other.ok) return fail(...[own, other].flatMap((r) => (r.ok ? [] : r.failures)));
  const basis = { kind: 'template', why: null, observations: 0 } as const;
  const predicted = predictThrough({ ...question, basis }, hose);
  if (!predicted) return fail(failure('load.no-flow', 'machine', { wanted: 0 }));
  const [was, would] = [own.value.flowPerToolM3s, other.value.flowPerToolM3s];
  return ok({
    flowWithOwn: inSi(was, 'flow'),
    flowWithThis: inSi(would, 'flow'),
    velocityWithThis: inSi(other.value.hoseVelocityMs ?? 0, 'velocity'),
    change: would / was - 1,
    verdict: judgeHose(predicted, limits.value),
    low: inSi(predicted.lowM3s, 'flow'),
    high: inSi(predicted.highM3s, 'flow'),
  });
};

/** `calc hose`: a hose and a flow in, velocity, friction factor and pressure drop out; with a machine, its flow through it. */
export const hose = (input: HoseInput): Result<HoseOutput> => {
  const read = collect([
    readQuantity(input.bore, 'length', 'bore'),
    readQuantity(input.length, 'length', 'length'),
    readQuantity(input.flow, 'flow', 'flow'),
  ]);
  const [friction, air] = [at('friction', frictionOf(input.friction)), airOf(input.air)];
  if (!read.ok || !friction.ok || !air.ok)
    return fail(...[read, friction, air].flatMap((r) => (r.ok ? [] : r.failures)));
  const [boreM = 0, lengthM = 0, flowM3s = 0] = read.value;
  const line: Element = {
    kind: 'line',
    boreM,
    lengthM,
    friction: friction.value,
    entryK: input.entryK,
    exitK: input.exitK,
  };
  const checked = checkElement(line);
  if (!checked.ok) return checked;
  if (!(flowM3s >= 0))
    return fail({ code: 'path.negative', path: 'flow', facts: { field: 'flow', value: flowM3s, low: 0, high: 100 } });
  const machine = machineAnswer(input, { boreM, lengthM });
  if (!machine.ok) return machine;
  const drop = { pa: 0, slope: 0 };
  dropOf(line, air.value)(flowM3s, drop);
  const velocity = boreVelocityMs({ flowM3s, boreM });
  const reynolds = (air.value.densityKgM3 * velocity * boreM) / air.value.viscosityPaS;
  const ends = ((input.entryK + input.exitK) * air.value.densityKgM3 * (flowM3s / boreAreaM2(boreM)) ** 2) / 2;
  const factor =
    friction.value.by === 'factor'
      ? friction.value.factor
      : reynolds === 0
        ? 0
        : darcyFactor({ reynolds, relativeRoughness: friction.value.roughnessM / boreM });
  return ok({
    velocity: inSi(velocity, 'velocity'),
    reynolds,
    darcyFactor: factor,
    drop: inSi(drop.pa, 'pressure'),
    ofFriction: inSi(drop.pa - ends, 'pressure'),
    ofEnds: inSi(ends, 'pressure'),
    machine: machine.value,
  });
};
