import { z } from 'zod';
import { GAUGE_ZONES, HAND_FEELS, LIGHT_STATES } from '@/core/measure/detail';
import { PRECONDITIONS } from '@/core/measure/methods';
import { DUCT_LOADS } from '@/core/measure/needs-of-use';
import { READING_HOWS } from '@/core/measure/reading';

/** Shapes of the JSON columns of the database. */
export const AccuracyJson = z.strictObject({
  meaning: z.enum(['limits', 'expanded', 'standard']),
  coverageFactor: z.number().positive(),
  relative: z.number().min(0),
  absoluteSi: z.number().min(0),
  resolutionSi: z.number().min(0),
});

/** Days a site is closed. */
export const ClosedJson = z.array(z.string());

/** Cost or time of an opening, by dust level. */
export const ByOpeningJson = z.strictObject({
  plain: z.number().min(0),
  controlled: z.number().min(0),
  contained: z.number().min(0),
});

export const AirJson = z.strictObject({
  temperatureK: z.number(),
  relativeHumidity: z.number(),
  pressurePa: z.number(),
});

export const RuleJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('calendarDays'), days: z.int().min(1).max(36_500) }),
  z.strictObject({
    kind: z.literal('countOfChanges'),
    countedStageId: z.int().positive(),
    countedStageName: z.string(),
    count: z.int().min(1).max(1000),
  }),
  z.strictObject({ kind: z.literal('runHours'), hours: z.number().positive().max(100_000) }),
  z.strictObject({ kind: z.literal('fill'), share: z.number().positive().max(1) }),
  z.strictObject({ kind: z.literal('flowLost'), share: z.number().positive().max(0.9) }),
  z.strictObject({ kind: z.literal('gaugeZone'), zone: z.enum(['amber', 'red']) }),
  z.strictObject({ kind: z.literal('examination'), months: z.int().min(1).max(120) }),
  z.strictObject({ kind: z.literal('hoseVelocity') }),
  z.strictObject({ kind: z.literal('indicator') }),
  z.strictObject({ kind: z.literal('sight'), what: z.string().trim().min(1).max(80) }),
  z.strictObject({ kind: z.literal('occurrence'), what: z.string().trim().min(1).max(80) }),
  z.strictObject({
    kind: z.literal('together'),
    stageId: z.int().positive(),
    stageName: z.string(),
    how: z.enum(['onlyWith', 'rightAfter']),
  }),
]);

export const PreconditionJson = z.enum(PRECONDITIONS);

const Stage = z.int().positive();
const Length = z.number().min(0).max(5);

const PlanJson = z.discriminatedUnion('shape', [
  z.strictObject({
    shape: z.literal('round'),
    diameterM: Length,
    pointsPerDiameter: z.union([z.literal(6), z.literal(10)]),
    diameters: z.union([z.literal(1), z.literal(2), z.literal(3)]),
  }),
  z.strictObject({
    shape: z.literal('rectangular'),
    widthM: Length,
    heightM: Length,
    linesAcross: z.union([z.literal(5), z.literal(6), z.literal(7)]),
    linesUp: z.union([z.literal(5), z.literal(6), z.literal(7)]),
  }),
]);

export const ZoneJson = z.enum(GAUGE_ZONES);
export const HandWordJson = z.enum(HAND_FEELS);
export const LightStateJson = z.enum(LIGHT_STATES);
export const ReadingHowJson = z.enum(READING_HOWS);
export const DuctLoadJson = z.enum(DUCT_LOADS);

export const DetailJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  z.strictObject({ kind: z.literal('traverse'), plan: PlanJson }),
  z.strictObject({
    kind: z.literal('plate'),
    plate: z.strictObject({ orificeM: Length, coefficient: z.number().nullable(), pipeM: Length.nullable() }),
  }),
  z.strictObject({ kind: z.literal('curve'), orificesM: z.array(Length), coefficient: z.number() }),
  z.strictObject({ kind: z.literal('stage'), stageId: Stage }),
  z.strictObject({ kind: z.literal('mass'), stageId: Stage, newMassKg: z.number().positive() }),
  z.strictObject({
    kind: z.literal('particles'),
    sizeUm: z.number().positive(),
    flowM3s: z.number().positive(),
    exhaustS: z.number().positive(),
    roomS: z.number().positive(),
  }),
  z.strictObject({ kind: z.literal('zone'), stageId: Stage, zone: ZoneJson }),
  z.strictObject({ kind: z.literal('hand'), word: HandWordJson }),
  z.strictObject({ kind: z.literal('light'), name: z.string(), light: LightStateJson, afterS: z.number().min(0) }),
]);

export const UseJson = z.strictObject({ wheelM: z.number().positive().nullable(), ductLoad: DuctLoadJson.nullable() });

export const PreconditionsJson = z.array(PreconditionJson);
