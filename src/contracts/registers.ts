import { z } from 'zod';
import { QuantityKindName } from './enums';
import { AccuracyJson } from './json-columns';
import { Day } from './day';
import { ClientId, Initials } from './requests';

// Lists that a site keeps: parts and meters.

const Line = (most: number) => z.string().trim().max(most);
const action = { clientId: ClientId, by: Initials };

export const PartBody = z.strictObject({
  ...action,
  /** null for a new one. */
  id: z.int().positive().nullable(),
  code: Line(24).min(1),
  name: Line(80).min(1),
  packSize: z.int().min(1).max(1000),
  bin: Line(24).default(''),
  supplier: Line(80).default(''),
  /** A piece of it, in the yard's own money. */
  price: z.number().min(0).max(1e6),
  leadDays: z.int().min(0).max(730),
  shelfDays: z.int().min(1).max(7300).nullable().default(null),
  minimum: z.int().min(0).max(10_000).nullable().default(null),
  /** Pieces on the shelf when it is entered; a count afterwards. */
  onHand: z.int().min(0).max(100_000).nullable(),
  medium: Line(80).default(''),
  areaM2: z.number().min(0.001).max(1000).nullable().default(null),
  rating: Line(80).default(''),
  /** Retired: not offered for new work; its history stays. */
  retired: z.boolean(),
});
export type PartBody = z.infer<typeof PartBody>;

/** Two entries of one and the same part. */
export const MergeBody = z.strictObject({
  ...action,
  partId: z.int().positive(),
  intoId: z.int().positive(),
});
export type MergeBody = z.infer<typeof MergeBody>;

/** The picture itself is the body. */
export const PartPhotoQuery = z.strictObject({ ...action, partId: z.coerce.number().int().positive() });
export type PartPhotoQuery = z.infer<typeof PartPhotoQuery>;

export const InstrumentBody = z.strictObject({
  ...action,
  id: z.int().positive().nullable(),
  name: Line(80).min(1),
  reads: QuantityKindName,
  accuracy: AccuracyJson.extend({
    /** A meter ten times off is none. */
    relative: z.number().min(0).max(1),
    absoluteSi: z.number().min(0).max(1e6),
    resolutionSi: z.number().min(0).max(1e6),
    coverageFactor: z.number().min(1).max(10),
  }),
  certificate: Line(80),
  calibrationDueOn: Day.nullable(),
  retired: z.boolean(),
});
export type InstrumentBody = z.infer<typeof InstrumentBody>;
