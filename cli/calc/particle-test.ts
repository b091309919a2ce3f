import type { ParticleTestInput, ParticleTestOutput } from '@/contracts/calc/series';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { type Counted, type Interval, judgeParticles } from '@/core/measure/particle-count';
import { judgeRoomCount } from '@/core/measure/penetration-ratio';
import { sayParticles } from '@/messages/outcomes';
import { collect, inSi, readQuantity } from './quantities';

const readCount = (side: ParticleTestInput['exhaust'], path: string): Result<Counted> => {
  if (!(Number.isInteger(side.count) && side.count >= 0)) return fail(failure('particles.whole', `${path}.count`));
  const read = collect([
    readQuantity(side.time, 'duration', `${path}.time`),
    readQuantity(side.flow, 'flow', `${path}.flow`),
  ]);
  if (!read.ok) return read;
  const [seconds = 0, flow = 0] = read.value;
  return seconds > 0 && flow > 0
    ? ok({ count: side.count, volumeM3: seconds * flow })
    : fail(failure('particles.counting', path));
};

const limits = ({ low, high }: Interval) => ({
  low: inSi(low, 'countConcentration'),
  high: inSi(high, 'countConcentration'),
});

/** `calc particle-test`: counts in exhaust and room in, rates with exact limits and the verdict out. */
export const particleTest = (input: ParticleTestInput): Result<ParticleTestOutput> => {
  const [exhaust, room] = [readCount(input.exhaust, 'exhaust'), readCount(input.room, 'room')];
  if (!exhaust.ok || !room.ok) return fail(...[exhaust, room].flatMap((r) => (r.ok ? [] : r.failures)));
  const v = judgeParticles({ exhaust: exhaust.value, room: room.value });
  return ok({
    outcome: v.outcome,
    sentence: sayParticles(v, {
      units: input.units,
      passed: judgeRoomCount({ exhaust: exhaust.value, room: room.value }),
    }).sentence,
    exhaust: inSi(v.exhaustPerM3, 'countConcentration'),
    exhaustLimits: limits(v.exhaustLimits),
    room: inSi(v.roomPerM3, 'countConcentration'),
    roomLimits: limits(v.roomLimits),
    net: inSi(v.netPerM3, 'countConcentration'),
    netLimits: limits(v.netLimits),
    p: v.p,
  });
};
