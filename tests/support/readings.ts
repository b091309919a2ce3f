import type { Accuracy } from '@/core/measure/accuracy';
import { type TestReadings } from '@/core/measure/test-readings';
import { type ReducedTest, reduceTest } from '@/core/measure/reduce-test';

/** A hose-end flow test in calm standard air; what a test needs is laid over it. */
export const flowTest = (readingsSi: readonly number[], over: Partial<TestReadings> = {}): TestReadings => ({
  slots: readingsSi.map((_, i) => i),
  detail: { kind: 'none' },
  rigSeries: 1,
  volts: null,
  maxHold: false,
  method: 'flowMeter',
  place: 'hoseEnd',
  readingsSi,
  resolutionSi: 1e-4,
  boreM: null,
  profileFactor: null,
  instrumentId: 1,
  accuracy: null,
  air: { temperatureK: 293.15, relativeHumidity: 0.5, pressurePa: 101_325 },
  hoseBoreM: null,
  failedPreconditions: [],
  ...over,
});

/** Reduces or fails the test that asked. */
export const reduce = (test: TestReadings): ReducedTest => {
  const result = reduceTest(test);
  if (!result.ok) throw new Error(`not reducible: ${result.failures.map((f) => f.code).join()}`);
  return result.value;
};

export const limits = (relative: number, absoluteSi = 0, resolutionSi = 1e-4): Accuracy => ({
  meaning: 'limits',
  coverageFactor: 2,
  relative,
  absoluteSi,
  resolutionSi,
});
