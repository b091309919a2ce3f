import type { ParticleTestInput, ParticleTestOutput } from '@/contracts/calc/series';
import { fail, ok, type Result } from '@/core/failure/failure';
import { type Interval, judgeParticles } from '@/core/measure/particle-count';
import { judgeRoomCount } from '@/core/measure/penetration-ratio';
import { sayParticles } from '@/messages/outcomes';
import { readCount } from './counted';
import { inSi } from './quantities';

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
