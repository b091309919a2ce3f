import { z } from 'zod';
import { Day } from './day';

// Lists for programs: pages of records by ascending id, with filters by date. Quantities in SI, moments UTC.

const MOST_ROWS = 500;
const USUAL_ROWS = 100;

/** A page of a list: rows with an id above `after`, at most `limit`. */
export const PageQuery = z.strictObject({
  after: z.coerce.number().int().min(0).default(0).describe('The `next` of the page before; 0 for the first page'),
  limit: z.coerce.number().int().min(1).max(MOST_ROWS).default(USUAL_ROWS),
});
export type PageQuery = z.infer<typeof PageQuery>;

/** A page of dated records; both days included. */
export const DatedQuery = PageQuery.extend({
  from: Day.optional().describe('First day; a moment counts by its UTC day'),
  to: Day.optional().describe('Last day, included'),
});
export type DatedQuery = z.infer<typeof DatedQuery>;

const Id = z.int().positive();
const Moment = z.string().describe('UTC, ISO 8601');

/** One page: its rows, and the `after` of the page that follows; null on the last page. */
const pageOf = <T extends z.ZodType>(item: T) => z.strictObject({ items: z.array(item), next: Id.nullable() });

export const MachinesReply = pageOf(
  z.strictObject({
    id: Id,
    tag: z.string(),
    name: z.string(),
    kind: z.string(),
    maker: z.string(),
    place: z.string(),
    machineClass: z.string().nullable().describe('The class on its plate; the class it may claim is on its page'),
    inServiceOn: Day,
    retired: z.boolean(),
    stages: z.array(
      z.strictObject({
        id: Id,
        position: z.int().min(0),
        kind: z.string(),
        name: z.string(),
        partId: Id.nullable(),
        missing: z.boolean(),
      }),
    ),
  }),
);

const work = {
  id: Id,
  performedAt: Moment,
  recordedAt: Moment,
  by: z.string(),
  note: z.string(),
  supersedesId: Id.nullable().describe('The record that this one corrects'),
  withdrawn: z.boolean().describe('True for a record that says "this never happened"'),
};

export const TestsReply = pageOf(
  z.strictObject({
    ...work,
    method: z.string(),
    place: z.string(),
    instrumentId: Id.nullable(),
    isBaseline: z.boolean(),
    bagState: z.string(),
    configuration: z.string(),
    failedPreconditions: z.array(z.string()),
    readings: z.array(
      z.strictObject({
        typed: z.string(),
        unit: z.string(),
        valueSi: z.number(),
        struckBecause: z.string().nullable(),
      }),
    ),
  }),
);

export const ChangesReply = pageOf(
  z.strictObject({
    ...work,
    stageId: Id,
    reason: z.string(),
    partId: Id.nullable(),
    quantity: z.int(),
    beforeTestId: Id.nullable(),
    jobId: Id.nullable(),
  }),
);

const logged = {
  id: Id,
  by: z.string(),
  events: z.array(z.strictObject({ id: Id, at: Moment, by: z.string(), kind: z.string() })),
};

export const JobsReply = pageOf(
  z.strictObject({
    ...logged,
    startedAt: Moment,
    procedure: z.string(),
    reason: z.string(),
    hazard: z.string(),
    ended: z.enum(['finished', 'abandoned']).nullable(),
  }),
);

export const CasesReply = pageOf(
  z.strictObject({
    ...logged,
    openedAt: Moment,
    complaint: z.string(),
    words: z.string(),
    hazard: z.string(),
    ended: z.enum(['closed', 'handedOn']).nullable(),
  }),
);

export const LooksReply = pageOf(
  z.strictObject({ id: Id, stageId: Id, day: Day, share: z.number().describe('0 empty to 1 full'), by: z.string() }),
);

export const HoursReply = pageOf(
  z.strictObject({
    id: Id,
    day: Day,
    hours: z.number().describe('Run hours of the day, h; the newest entry for a day counts'),
    by: z.string(),
  }),
);

export const PartsReply = pageOf(
  z.strictObject({
    id: Id,
    code: z.string(),
    name: z.string(),
    packSize: z.int(),
    bin: z.string(),
    price: z.number().describe("One piece, in the site's own currency"),
    leadDays: z.int(),
    onHand: z.int(),
    retired: z.boolean(),
  }),
);

export const StockReply = pageOf(
  z.strictObject({
    id: Id,
    partId: Id,
    quantity: z.int().describe('Pieces; negative for pieces taken'),
    reason: z.string(),
    at: Moment,
    by: z.string(),
    note: z.string(),
  }),
);

export const MetersReply = pageOf(
  z.strictObject({
    id: Id,
    name: z.string(),
    reads: z.string(),
    certificate: z.string(),
    calibrationDueOn: Day.nullable(),
    retired: z.boolean(),
  }),
);

export const PlannedReply = z.strictObject({
  today: Day,
  openings: z.array(
    z.strictObject({
      uid: z.string().describe('The same for the same opening, also after the plan moved it'),
      day: Day,
      tag: z.string(),
      name: z.string(),
      place: z.string(),
      stages: z.array(z.string()),
      parts: z.array(z.strictObject({ name: z.string(), bin: z.string() })),
    }),
  ),
});

export const HealthReply = z.strictObject({ status: z.literal('ready'), site: z.string() });

/** A JSON Schema or an OpenAPI document: an object by a standard of its own. */
export const DocumentReply = z.record(z.string(), z.unknown());
