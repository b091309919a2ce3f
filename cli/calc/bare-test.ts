import type { TestReadings } from '@/core/measure/test-readings';

/** A test in calm standard air (20 degC, 50 %, sea level), for calculations that say nothing of the air. */
export const bareTest = (over: Partial<TestReadings>): TestReadings => ({
  method: 'flowMeter',
  place: 'inlet',
  readingsSi: [],
  slots: (over.readingsSi ?? []).map((_, i) => i),
  resolutionSi: 0,
  boreM: null,
  profileFactor: null,
  detail: { kind: 'none' },
  instrumentId: null,
  accuracy: null,
  air: { temperatureK: 293.15, relativeHumidity: 0.5, pressurePa: 101_325 },
  hoseBoreM: null,
  rigSeries: 1,
  volts: null,
  maxHold: false,
  failedPreconditions: [],
  ...over,
});
