import { z } from 'zod';
import { MEDIUM_NAMES } from '@/core/constants/media';
import { DUST_CLASSES, EN1822_GRADES } from '@/core/filter/rating';
import { GAUGE_SPANS, ORIENTATIONS, type StageSpec } from '@/core/path/stage-spec';

/** How a stage resists the air, sits and is rated: what the column of a stage holds and the machine editor sends. */

export const MediumName = z.enum(MEDIUM_NAMES);

const Bore = z.number().min(1e-3).max(5);
const LossK = z.number().min(0).max(1e4);

export const FrictionJson = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('factor'), factor: z.number().min(0).max(10) }),
  z.strictObject({ by: z.literal('roughness'), roughnessM: z.number().min(0).max(0.05) }),
]);

export const FanCurveJson = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('universal'),
    p0Pa: z.number().positive().max(101_325),
    qMaxM3s: z.number().positive().max(100),
    a: z.number().min(0).max(1),
  }),
  z.strictObject({
    kind: z.literal('centrifugal'),
    p0Pa: z.number().positive().max(101_325),
    qMaxM3s: z.number().positive().max(100),
  }),
  z.strictObject({
    kind: z.literal('pneumatic'),
    p0Pa: z.number().positive().max(101_325),
    qMaxM3s: z.number().positive().max(100),
    nominalSupplyPa: z.number().positive().max(2e6),
  }),
  z.strictObject({
    kind: z.literal('points'),
    p0Pa: z.number().positive().max(101_325),
    bPaSM3: z.number().min(0),
    cPaS2M6: z.number().min(0),
    rangeM3s: z.tuple([z.number().min(0), z.number().positive()]).readonly(),
  }),
]);

const StageAirJson = z.discriminatedUnion('form', [
  z.strictObject({ form: z.literal('none') }),
  z.strictObject({
    form: z.literal('medium'),
    medium: MediumName,
    areaM2: z.number().min(1e-6).max(1e4),
    k1PaSM: z.number().min(0).max(1e7).nullable(),
    inParallel: z.int().min(1).max(12),
  }),
  z.strictObject({ form: z.literal('fitting'), lossK: LossK, boreM: Bore }),
  z.strictObject({
    form: z.literal('nozzle'),
    areaM2: z.number().min(1e-9).max(100),
    coefficient: z.number().min(0.05).max(2),
  }),
  z.strictObject({
    form: z.literal('line'),
    boreM: Bore.nullable(),
    lengthM: z.number().min(0).max(1e4).nullable(),
    friction: FrictionJson,
    entryK: LossK,
    exitK: LossK,
  }),
  z.strictObject({ form: z.literal('cyclone'), lossK: LossK, inletAreaM2: z.number().min(1e-6).max(100) }),
  z.strictObject({ form: z.literal('wye'), ways: z.int().min(2).max(6), lossK: LossK, boreM: Bore }),
  z.strictObject({ form: z.literal('fan'), curve: FanCurveJson }),
]);

export const RatingJson = z.discriminatedUnion('scale', [
  z.strictObject({ scale: z.literal('none') }),
  z.strictObject({
    scale: z.literal('point'),
    efficiency: z.number().gt(0).lt(1),
    sizeUm: z.number().min(0.01).max(10),
  }),
  z.strictObject({
    scale: z.literal('en1822'),
    grade: z.enum(EN1822_GRADES),
  }),
  z.strictObject({
    scale: z.literal('merv'),
    merv: z.union([
      z.literal(8),
      z.literal(9),
      z.literal(10),
      z.literal(11),
      z.literal(12),
      z.literal(13),
      z.literal(14),
      z.literal(15),
      z.literal(16),
    ]),
  }),
  z.strictObject({ scale: z.literal('dustClass'), dustClass: z.enum(DUST_CLASSES) }),
]);

const StageFitJson = z.strictObject({
  orientation: z.enum(ORIENTATIONS),
  seals: z.int().min(0).max(6),
  bypass: z.number().min(0).max(1),
  rating: RatingJson,
  foreign: z.boolean(),
  gaugePa: z
    .strictObject({
      amberPa: z.number().positive().max(1e5),
      redPa: z.number().positive().max(1e5),
      // Records from before this question do not answer it.
      spans: z.enum(GAUGE_SPANS).default('unknown'),
    })
    .nullable(),
});

export const StageSpecJson = z.strictObject({ air: StageAirJson, fit: StageFitJson }) satisfies z.ZodType<StageSpec>;
