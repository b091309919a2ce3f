import { z } from 'zod';
import { ChangeReasonName, MethodName, PlaceName } from './enums';
import { PreconditionsJson } from './json-columns';

/** Made by the client once per user action; the same id again is the same action. */
export const ClientId = z.string().regex(/^[A-Za-z0-9-]{8,64}$/);

const Initials = z.string().trim().min(1).max(12);
const Note = z.string().trim().max(2000);
const Reason = z.string().trim().min(1).max(300);
const Id = z.int().positive();
const Moment = z.iso.datetime();

const Typed = z.strictObject({ typed: z.string().max(200), unit: z.string().max(20) });

const testFields = {
  clientId: ClientId,
  by: Initials,
  performedAt: Moment,
  method: MethodName,
  place: PlaceName,
  readings: z.array(Typed.extend({ struckBecause: z.string().trim().min(1).max(200).nullable() })).max(500),
  instrumentId: Id.nullable(),
  bore: Typed.nullable(),
  profileFactor: z.number().nullable(),
  hoseBore: Typed.nullable(),
  air: z.strictObject({ temperature: Typed, humidity: Typed, pressure: Typed.nullable() }),
  failedPreconditions: PreconditionsJson.max(20),
  isBaseline: z.boolean(),
  bagState: z.enum(['asFound', 'asLeft']),
  afterChangeId: Id.nullable(),
  note: Note,
};

export const RecordTestBody = z.strictObject(testFields);
export type RecordTestBody = z.infer<typeof RecordTestBody>;

const changeFields = {
  clientId: ClientId,
  by: Initials,
  performedAt: Moment,
  stageId: Id,
  reason: ChangeReasonName,
  partId: Id.nullable(),
  quantity: z.int().min(0).max(20),
  beforeTestId: Id.nullable(),
  note: Note,
};

export const RecordChangeBody = z.strictObject(changeFields);
export type RecordChangeBody = z.infer<typeof RecordChangeBody>;

/** A correction is a whole new record that says what it replaces and why. */
const correction = { supersedesId: Id, correctionReason: Reason };

export const CorrectTestBody = z.strictObject({ ...testFields, ...correction });
export type CorrectTestBody = z.infer<typeof CorrectTestBody>;

export const CorrectChangeBody = z.strictObject({ ...changeFields, ...correction });
export type CorrectChangeBody = z.infer<typeof CorrectChangeBody>;

/** "This never happened": the record is withdrawn, and stays readable. */
export const WithdrawBody = z.strictObject({ clientId: ClientId, by: Initials, ...correction });
export type WithdrawBody = z.infer<typeof WithdrawBody>;

export const CountStockBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  partId: Id,
  counted: z.int().min(0).max(100_000),
  note: Note,
});
export type CountStockBody = z.infer<typeof CountStockBody>;
