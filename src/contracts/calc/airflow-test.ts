import { z } from 'zod';
import { UNIT_SYSTEMS } from '@/core/units';
import { MachineKindName, PlaceName } from '../enums';
import { PreconditionsJson } from '../json-columns';
import { AirInput, InstrumentInput, QuantityInput, QuantityOutput } from './quantity';

export const AirflowTestInput = z.strictObject({
  method: z.enum(['flowMeter', 'anemometer', 'pitot', 'sealedSuction']),
  place: PlaceName,
  readings: z.array(QuantityInput).min(1).max(60).describe('Flow, velocity or pressure by method'),
  bore: QuantityInput.optional().describe('Bore of the test pipe, for the anemometer'),
  profileFactor: z.number().optional().describe('Mean over centre velocity, 0.82 by default'),
  hoseBore: QuantityInput.optional().describe('Bore of the hose that is fitted'),
  machineKind: MachineKindName.optional().describe('M and H extractors are held to 20 m/s in the hose'),
  air: AirInput.optional(),
  instrument: InstrumentInput.optional(),
  failedPreconditions: PreconditionsJson.default([]),
  baseline: z
    .strictObject({ readings: z.array(QuantityInput).min(1).max(60), sameInstrument: z.boolean().default(true) })
    .optional(),
  thresholds: z.strictObject({ warnLoss: z.number().gt(0).lt(1), actLoss: z.number().gt(0).lt(1) }).optional(),
  units: z.enum(UNIT_SYSTEMS).default('metric').describe('Units of the sentences; figures are SI'),
});
export type AirflowTestInput = z.infer<typeof AirflowTestInput>;

const Verdict = z.strictObject({ outcome: z.string(), sentence: z.string(), detail: z.string() });

export const AirflowTestOutput = z.strictObject({
  measurand: z.string(),
  usable: z.boolean(),
  readings: z.int(),
  mean: QuantityOutput,
  standardDeviation: QuantityOutput.nullable(),
  standardUncertainty: QuantityOutput.nullable(),
  expandedUncertainty: QuantityOutput.nullable(),
  limits: z
    .strictObject({ low: QuantityOutput, high: QuantityOutput })
    .nullable()
    .describe('The 95 % interval of the mean'),
  degreesOfFreedom: z.number().nullable().describe('null when infinite or under three readings'),
  studentFactor: z.number().nullable(),
  airDensity: QuantityOutput,
  standardFlow: QuantityOutput.nullable().describe('At 1.2 kg/m3'),
  hoseVelocity: QuantityOutput.nullable(),
  lossFraction: z.number().nullable(),
  lossExpanded: z.number().nullable(),
  flowLimit: QuantityOutput.nullable().describe('The least flow it was judged by: 20 m/s in the hose, at its bore'),
  verdicts: z.array(Verdict),
});
export type AirflowTestOutput = z.infer<typeof AirflowTestOutput>;
