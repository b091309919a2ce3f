import { z } from 'zod';
import { FailureJson } from './failure-json';
import { StageKindName } from './enums';
import { StageSpecJson } from './stage-spec';

/** Requests of the page to the air-path worker, and its answers. */

const Plain = z.number();

export const PathParametersJson = z.strictObject({ p0Pa: Plain, qMaxM3s: Plain, leakM2: Plain, pathScale: Plain });

const StageStateJson = z.strictObject({ loadPaSM3: Plain, blockFactor: Plain, removed: z.boolean() });

const Positions = z.record(z.string().regex(/^\d+$/), StageStateJson);

export const PathStateJson = z.strictObject({
  stages: Positions,
  leaksM2: z.record(z.string().regex(/^\d+$/), Plain),
  hose: z.strictObject({ boreM: Plain, lengthM: Plain }).nullable(),
  drive: z.strictObject({ speedRatio: Plain, supplyPa: Plain.nullable() }),
  air: z.strictObject({ densityKgM3: Plain, viscosityPaS: Plain }),
});

export const MachineModelJson = z.strictObject({
  stages: z
    .array(
      z.strictObject({ id: z.int(), kind: StageKindName, name: z.string(), missing: z.boolean(), spec: StageSpecJson }),
    )
    .max(40),
  hoseBoreM: Plain.nullable(),
  hoseLengthM: Plain.nullable(),
});

export const AirPathRequest = z.discriminatedUnion('ask', [
  z.strictObject({ ask: z.literal('model'), model: MachineModelJson, parameters: PathParametersJson }),
  z.strictObject({ ask: z.literal('solve'), id: z.int(), state: PathStateJson }),
]);
export type AirPathRequest = z.infer<typeof AirPathRequest>;

const StepJson = z.strictObject({
  position: z.int(),
  fromPa: Plain,
  toPa: Plain,
  dropPa: Plain,
  shareOfLift: Plain,
  flowM3s: Plain,
  faceVelocityMs: Plain.nullable(),
  lineVelocityMs: Plain.nullable(),
});

export const StaircaseJson = z.strictObject({
  steps: z.array(StepJson),
  nodesPa: z.array(Plain),
  inflowsM3s: z.array(Plain),
  toolFlowM3s: Plain,
  flowPerToolM3s: Plain,
  flowsAtToolsM3s: z.array(Plain),
  fanFlowM3s: Plain,
  outletFlowM3s: Plain,
  fanLiftPa: Plain,
  hoseVelocityMs: Plain.nullable(),
  iterations: z.int(),
  residual: Plain,
});

export const AirPathReply = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('solved'), id: z.int(), stairs: StaircaseJson }),
  z.strictObject({ kind: z.literal('failed'), id: z.int(), failures: z.array(FailureJson) }),
]);
export type AirPathReply = z.infer<typeof AirPathReply>;
