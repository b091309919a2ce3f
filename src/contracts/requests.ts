import { z } from 'zod';
import { ChangeReasonName, MethodName, PlaceName } from './enums';
import {
  DuctLoadJson,
  HandWordJson,
  LightStateJson,
  PreconditionsJson,
  ReadingHowJson,
  ZoneJson,
} from './json-columns';

/** Made by the client once per user action; the same id again is the same action. */
export const ClientId = z.string().regex(/^[A-Za-z0-9-]{8,64}$/);

export const Initials = z.string().trim().min(1).max(12);
export const Note = z.string().trim().max(2000);
const Reason = z.string().trim().min(1).max(300);
const Id = z.int().positive();
const Moment = z.iso.datetime();

const Typed = z.strictObject({ typed: z.string().max(200), unit: z.string().max(20) });

const Six = z.union([z.literal(5), z.literal(6), z.literal(7)]);
const Coefficient = z.number().min(0).max(2);

const Detail = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  z.strictObject({
    kind: z.literal('round'),
    diameter: Typed,
    pointsPerDiameter: z.union([z.literal(6), z.literal(10)]),
    diameters: z.union([z.literal(1), z.literal(2), z.literal(3)]),
  }),
  z.strictObject({ kind: z.literal('rectangular'), width: Typed, height: Typed, linesAcross: Six, linesUp: Six }),
  z.strictObject({
    kind: z.literal('plate'),
    orifice: Typed,
    coefficient: Coefficient.nullable(),
    pipe: Typed.nullable(),
  }),
  z.strictObject({ kind: z.literal('curve'), orifices: z.array(Typed).max(20), coefficient: Coefficient }),
  z.strictObject({ kind: z.literal('stage'), stageId: Id.nullable() }),
  z.strictObject({ kind: z.literal('mass'), stageId: Id.nullable(), newMass: Typed }),
  z.strictObject({
    kind: z.literal('particles'),
    sizeUm: z.number().gt(0).max(100),
    flow: Typed,
    exhaustTime: Typed,
    roomTime: Typed,
  }),
  z.strictObject({ kind: z.literal('zone'), stageId: Id.nullable(), zone: ZoneJson.nullable() }),
  z.strictObject({ kind: z.literal('hand'), word: HandWordJson.nullable() }),
  z.strictObject({
    kind: z.literal('light'),
    name: z.string().trim().max(80),
    light: LightStateJson.nullable(),
    after: Typed,
  }),
]);

const testFields = {
  clientId: ClientId,
  by: Initials,
  performedAt: Moment,
  method: MethodName,
  place: PlaceName,
  readings: z
    .array(
      Typed.extend({
        slot: z.int().min(0).max(999),
        how: ReadingHowJson,
        struckBecause: z.string().trim().min(1).max(200).nullable(),
      }),
    )
    .max(500),
  instrumentId: Id.nullable().default(null),
  bore: Typed.nullable().default(null),
  profileFactor: z.number().nullable().default(null),
  hoseBore: Typed.nullable().default(null),
  air: z.strictObject({ temperature: Typed, humidity: Typed, pressure: Typed.nullable() }),
  detail: Detail.default({ kind: 'none' }),
  volts: Typed.nullable().default(null),
  rigSeries: z.int().min(1).max(10_000).default(1),
  configuration: z.string().trim().max(80).default(''),
  wheel: Typed.nullable().default(null),
  ductLoad: DuctLoadJson.nullable().default(null),
  failedPreconditions: PreconditionsJson.max(20),
  isBaseline: z.boolean().default(false),
  bagState: z.enum(['asFound', 'asLeft']),
  afterChangeId: Id.nullable().default(null),
  note: Note.default(''),
};

export const RecordTestBody = z.strictObject(testFields);
export type RecordTestBody = z.infer<typeof RecordTestBody>;

const changeFields = {
  clientId: ClientId,
  by: Initials,
  performedAt: Moment,
  stageId: Id,
  reason: ChangeReasonName,
  partId: Id.nullable().default(null),
  quantity: z.int().min(0).max(20),
  beforeTestId: Id.nullable().default(null),
  note: Note.default(''),
  /** A change without the guide: who did it and how it was contained; null where the dust needs no statement. */
  how: z
    .strictObject({ by: Initials, how: z.string().trim().min(1).max(300) })
    .nullable()
    .default(null),
};

export const RecordChangeBody = z.strictObject(changeFields);
export type RecordChangeBody = z.infer<typeof RecordChangeBody>;

/** A correction is a whole new record with the replaced record and the reason. */
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
  note: Note.default(''),
});
export type CountStockBody = z.infer<typeof CountStockBody>;

/** Pieces that came without an order on record. */
export const ReceivedBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  partId: Id,
  pieces: z.int().min(1).max(100_000),
  note: z.string().trim().max(120).default(''),
});
export type ReceivedBody = z.infer<typeof ReceivedBody>;
