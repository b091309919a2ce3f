import type { StartJobBody } from '@/contracts/job';
import type { PartBody } from '@/contracts/registers';
import type { RecordChangeBody, RecordTestBody } from '@/contracts/requests';
import { newId, NOW } from './database';

/** Readings as the pad sends them. */
export const readings = (unit: string, ...typed: readonly string[]) =>
  typed.map((t, slot) => ({ typed: t, unit, slot, how: 'typed' as const, struckBecause: null as string | null }));

/** What a technician says a machine has collected, with nothing to answer. */
export const dustBody = (text = 'house dust', over: Partial<StartJobBody['dust']> = {}): StartJobBody['dust'] => ({
  text,
  confirmed: [],
  denied: [],
  answers: {},
  own: null,
  lowerBecause: '',
  ...over,
});

/** A sound test on CR-04; what a test needs is laid over it. */
export const testBody = (over: Partial<RecordTestBody> = {}): RecordTestBody => ({
  clientId: newId(),
  by: 'MK',
  performedAt: NOW,
  method: 'flowMeter',
  place: 'hoseEnd',
  readings: readings('L/s', '14.3', '14.2', '14.4'),
  instrumentId: null,
  bore: null,
  profileFactor: null,
  hoseBore: { typed: '27', unit: 'mm' },
  air: { temperature: { typed: '20', unit: 'degC' }, humidity: { typed: '50', unit: '%' }, pressure: null },
  detail: { kind: 'none' },
  volts: null,
  rigSeries: 1,
  configuration: '',
  wheel: null,
  ductLoad: null,
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
  how: { by: 'MK', how: 'mask, tied bag, damp wipe' },
  ...over,
});

/** A new bag on the shelf; what a test needs is laid over it. */
export const partBody = (over: Partial<PartBody> = {}): PartBody => ({
  clientId: newId(),
  by: 'MK',
  id: null,
  code: 'bag-25',
  name: 'fleece bag, 25 L',
  packSize: 5,
  bin: 'A1',
  supplier: '',
  price: 4.2,
  leadDays: 7,
  shelfDays: null,
  minimum: null,
  onHand: 12,
  medium: '',
  areaM2: null,
  rating: '',
  retired: false,
  ...over,
});
