import type { Failure } from '@/core/failure/failure';
import { parseReading } from '@/core/measure/test-entry';
import type { MeasureState } from './state';

/** Failures of the reading in the pad, before it is entered; empty when it is valid. */
export const padFailures = (state: MeasureState): readonly Failure[] => {
  const entry = {
    typed: state.pad,
    unit: state.units[state.method],
    slot: 0,
    how: 'typed' as const,
    struckBecause: null,
  };
  // The strongest air there is, at sea level on a good day: the record itself is held to the barometer of the day.
  const result = parseReading(entry, { method: state.method, barometricPa: 101_325 });
  return result.ok ? [] : result.failures;
};
