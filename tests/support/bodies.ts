import type { RecordChangeBody, RecordTestBody } from '@/contracts/requests';
import { newId, NOW } from './database';

/** A sound test on CR-04; what a test needs is laid over it. */
export const testBody = (over: Partial<RecordTestBody> = {}): RecordTestBody => ({
  clientId: newId(),
  by: 'MK',
  performedAt: NOW,
  method: 'flowMeter',
  place: 'hoseEnd',
  readings: ['14.3', '14.2', '14.4'].map((typed) => ({ typed, unit: 'L/s', struckBecause: null })),
  instrumentId: null,
  bore: null,
  profileFactor: null,
  hoseBore: { typed: '27', unit: 'mm' },
  air: { temperature: { typed: '20', unit: 'degC' }, humidity: { typed: '50', unit: '%' }, pressure: null },
  failedPreconditions: [],
  isBaseline: false,
  bagState: 'asFound',
  afterChangeId: null,
  note: '',
  ...over,
});

export const changeBody = (stageId: number, over: Partial<RecordChangeBody> = {}): RecordChangeBody => ({
  clientId: newId(),
  by: 'MK',
  performedAt: NOW,
  stageId,
  reason: 'fill',
  partId: null,
  quantity: 1,
  beforeTestId: null,
  note: '',
  ...over,
});
