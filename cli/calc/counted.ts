import type { QuantityInput } from '@/contracts/calc/quantity';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Counted } from '@/core/measure/particle-count';
import { collect, readQuantity } from './quantities';

interface CountInput {
  readonly count: number;
  readonly time: QuantityInput;
  readonly flow: QuantityInput;
}

/** m3; a counter draws a thousand times as much in a second. */
const LEAST_M3 = 1e-9;

/** Whole particles in a volume of air that was drawn. */
export const readCount = (side: CountInput, path: string): Result<Counted> => {
  if (!(Number.isInteger(side.count) && side.count >= 0)) return fail(failure('particles.whole', `${path}.count`));
  const read = collect([
    readQuantity(side.time, 'duration', `${path}.time`),
    readQuantity(side.flow, 'flow', `${path}.flow`),
  ]);
  if (!read.ok) return read;
  const [seconds = 0, flow = 0] = read.value;
  return seconds > 0 && flow > 0 && seconds * flow >= LEAST_M3
    ? ok({ count: side.count, volumeM3: seconds * flow })
    : fail(failure('particles.counting', path));
};
