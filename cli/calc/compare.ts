import type { CompareInput, CompareOutput } from '@/contracts/calc/series';
import { STANDARD_PRESSURE } from '@/core/constants/air';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { compareTests } from '@/core/measure/compare-tests';
import type { Method } from '@/core/measure/methods';
import { reduceTest } from '@/core/measure/reduce-test';
import { sayComparison } from '@/messages/verdicts';
import { bareTest } from './bare-test';
import { collect, digitStep, inSiOrNull, readQuantity, readSigned } from './quantities';

const METHOD_OF: Record<CompareInput['quantity'], Method> = {
  flow: 'flowMeter',
  velocity: 'flowMeter',
  pressure: 'sealedSuction',
  voltage: 'lineVoltage',
  current: 'current',
};

/** `calc compare`: two series in, difference, share, Welch interval and p out. */
export const compare = (input: CompareInput): Result<CompareOutput> => {
  const method = METHOD_OF[input.quantity];
  const read = (list: CompareInput['before'], path: string) =>
    collect(
      list.map((q, i) =>
        readSigned(q, { method, kind: input.quantity, path: `${path}.${i}`, barometricPa: STANDARD_PRESSURE.value }),
      ),
    );
  const [before, after] = [read(input.before, 'before'), read(input.after, 'after')];
  if (!before.ok || !after.ok) return fail(...[before, after].flatMap((r) => (r.ok ? [] : r.failures)));
  const step = input.instrument?.resolution
    ? readQuantity(input.instrument.resolution, input.quantity, 'instrument.resolution')
    : ok(digitStep([...input.before, ...input.after], input.quantity));
  if (!step.ok) return step;
  if (!(step.value >= 0)) return fail(failure('instrument.negative', 'instrument.resolution'));
  const accuracy = input.instrument
    ? {
        meaning: 'limits' as const,
        coverageFactor: 2,
        relative: input.instrument.relative,
        absoluteSi: 0,
        resolutionSi: step.value,
      }
    : null;
  const reduce = (readingsSi: readonly number[], instrumentId: number) =>
    reduceTest(
      bareTest({
        method,
        readingsSi,
        resolutionSi: step.value,
        accuracy,
        instrumentId: accuracy ? instrumentId : null,
      }),
    );
  const [a, b] = [reduce(before.value, 1), reduce(after.value, input.instrument?.same === false ? 2 : 1)];
  if (!a.ok || !b.ok) return fail(...[a, b].flatMap((r) => (r.ok ? [] : r.failures)));
  const c = compareTests({ before: a.value, after: b.value });
  const dof = c.degreesOfFreedom;
  return ok({
    outcome: c.outcome,
    sentence: sayComparison(c, a.value.measurand).sentence,
    difference: inSiOrNull(c.difference, input.quantity),
    relative: c.relative,
    expandedUncertainty: inSiOrNull(c.expanded, input.quantity),
    degreesOfFreedom: dof !== null && Number.isFinite(dof) ? dof : null,
    p: c.p,
  });
};
