import { z } from 'zod';
import { MachineKindName } from '../enums';
import { PLACES } from '@/core/measure/place';
import { HOSE_VERDICTS } from '@/core/for-work/hose-choice';
import { QuantityInput, QuantityOutput } from './quantity';

const Factor = z.number();

const Friction = z
  .union([z.strictObject({ factor: Factor }), z.strictObject({ roughness: QuantityInput })])
  .describe('A fixed Darcy factor, or the height of the roughness');

const FanByFigures = z.strictObject({
  kind: z.enum(['universal', 'centrifugal', 'pneumatic']).default('universal'),
  sealed: QuantityInput.describe('Lift at no flow'),
  freeFlow: QuantityInput.describe('Flow at no lift'),
  a: Factor.default(0.85).describe('Shape of a universal motor, 0.7 to 1'),
  nominalSupply: QuantityInput.default(620_000),
});

const FanByPoints = z.strictObject({
  kind: z.literal('points'),
  points: z
    .array(z.strictObject({ flow: QuantityInput, suction: QuantityInput }))
    .max(100)
    .describe('Lift of the fan itself at several flows; the fitted curve is not used outside them'),
});

const FanInput = z.union([FanByPoints, FanByFigures]);

const flat = [
  z.strictObject({
    kind: z.literal('medium'),
    k1: Factor.describe('Pa s/m'),
    k2: Factor.default(50_000).describe('Pa s m/kg'),
    area: QuantityInput,
    dust: QuantityInput.default(0),
  }),
  z.strictObject({ kind: z.literal('fitting'), lossK: Factor, bore: QuantityInput }),
  z.strictObject({ kind: z.literal('nozzle'), area: QuantityInput, coefficient: Factor.default(0.75) }),
  z.strictObject({
    kind: z.literal('line'),
    bore: QuantityInput,
    length: QuantityInput,
    friction: Friction.default({ factor: 0.045 }),
    entryK: Factor.default(0.5),
    exitK: Factor.default(1),
  }),
  z.strictObject({ kind: z.literal('cyclone'), lossK: Factor, inletArea: QuantityInput }),
  z.strictObject({
    kind: z.literal('resistance'),
    r1: Factor.default(0).describe('Pa s/m3'),
    r2: Factor.default(0).describe('Pa s2/m6'),
  }),
  z.strictObject({ kind: z.literal('check'), crack: QuantityInput, r2: Factor.default(0) }),
  z.strictObject({ kind: z.literal('fan'), curve: FanInput }),
] as const;

const FlatElement = z.discriminatedUnion('kind', flat);

export const ElementInput = z.discriminatedUnion('kind', [
  ...flat,
  z.strictObject({ kind: z.literal('parallel'), ways: z.array(z.array(FlatElement).max(20)).max(8) }),
]);
export type ElementInput = z.infer<typeof ElementInput>;

const Leak = z
  .union([
    z.strictObject({ node: z.int().min(0), area: QuantityInput }),
    z.strictObject({ node: z.int().min(0), holes: z.int().min(0).max(1e6), hole: QuantityInput }),
  ])
  .describe(
    'At a node (0 is before the first element): an area, or so many round holes of one diameter, as of a chafed hose',
  );

export const ChainInput = z.strictObject({
  elements: z.array(ElementInput).max(60),
  leaks: z.array(Leak).max(60).default([]),
});

const Air = z.strictObject({ temperature: QuantityInput, relativeHumidity: QuantityInput, pressure: QuantityInput });

export const AirPathInput = z.strictObject({
  elements: z.array(ElementInput).max(60).describe('Tool to room, one of them the fan'),
  leaks: z.array(Leak).max(60).default([]),
  mouths: z.array(ChainInput).max(8).default([]).describe('Ways that join before the first element, as of a Y'),
  drive: z
    .strictObject({
      speedRatio: Factor.optional(),
      volts: QuantityInput.optional(),
      nominalVolts: QuantityInput.default(230),
      supply: QuantityInput.optional(),
    })
    .default({ nominalVolts: 230 }),
  air: Air.optional().describe('Left out: 1.2 kg/m3 at 20 degC'),
  enter: z
    .strictObject({ node: z.int().min(0), state: z.enum(['open', 'sealed', 'drawn']), flow: QuantityInput.optional() })
    .optional()
    .describe('Where the path is entered: hose off is open at a node, a suction test is sealed there'),
  closedAt: z.int().min(0).optional().describe('Node after the fan where the way out is closed'),
  removed: z.array(z.int().min(0)).max(60).default([]).describe('Positions of elements that are taken out'),
});
export type AirPathInput = z.infer<typeof AirPathInput>;

const Step = z.strictObject({
  position: z.int(),
  kind: z.string(),
  flow: QuantityOutput,
  drop: QuantityOutput,
  shareOfLift: z.number(),
  pressureAfter: QuantityOutput,
});

export const AirPathOutput = z.strictObject({
  status: z.literal('converged'),
  iterations: z.int(),
  residual: z.number(),
  toolFlow: QuantityOutput,
  fanFlow: QuantityOutput,
  fanLift: QuantityOutput,
  fanPeak: z
    .strictObject({ airPower: QuantityOutput, flow: QuantityOutput, lift: QuantityOutput, inside: z.boolean() })
    .describe('The most air power of the fan as driven; not inside: it lies beyond the measured points'),
  startPressure: QuantityOutput,
  steps: z.array(Step),
  leaks: z.array(z.strictObject({ node: z.int(), inflow: QuantityOutput })),
  mouthFlows: z.array(QuantityOutput),
});
export type AirPathOutput = z.infer<typeof AirPathOutput>;

export const HoseInput = z.strictObject({
  bore: QuantityInput,
  length: QuantityInput,
  friction: Friction.default({ factor: 0.045 }),
  entryK: Factor.default(0.5),
  exitK: Factor.default(1),
  flow: QuantityInput,
  air: Air.optional(),
  machine: z
    .lazy(() => MachineInput)
    .optional()
    .describe('With a machine: what it would move through this hose in place of its own'),
  must: QuantityInput.optional().describe('With a machine: flow the tool must have'),
  leastVelocity: QuantityInput.optional().describe('With a machine: velocity that keeps the dust moving'),
});
export type HoseInput = z.infer<typeof HoseInput>;

export const HoseOutput = z.strictObject({
  velocity: QuantityOutput,
  reynolds: z.number(),
  darcyFactor: z.number(),
  drop: QuantityOutput,
  ofFriction: QuantityOutput,
  ofEnds: QuantityOutput,
  machine: z
    .strictObject({
      flowWithOwn: QuantityOutput,
      flowWithThis: QuantityOutput,
      velocityWithThis: QuantityOutput,
      change: z.number(),
      verdict: z.enum(HOSE_VERDICTS).describe('By the interval of what is known of such a machine'),
      low: QuantityOutput,
      high: QuantityOutput,
    })
    .nullable(),
});
export type HoseOutput = z.infer<typeof HoseOutput>;

export const MachineInput = z.strictObject({
  kind: MachineKindName.describe('Lays out the stages with their typical figures'),
  hoseBore: QuantityInput.default(0.036),
  hoseLength: QuantityInput.default(3),
  sealed: QuantityInput.optional().describe('Sealed suction of its fan; left out, typical of its kind'),
  freeFlow: QuantityInput.optional().describe('Free flow of its bare fan'),
  pathScale: z.number().min(0.01).max(100).default(1),
  leak: QuantityInput.default(12e-6),
});
export type MachineInput = z.infer<typeof MachineInput>;

const Place = z.enum(PLACES);
const reading = {
  value: QuantityInput,
  expanded: QuantityInput.optional().describe('Half the 95 % interval; left out, 6 % of the reading'),
};

export const CalibrateInput = z.strictObject({
  machine: MachineInput,
  readings: z
    .array(
      z.discriminatedUnion('what', [
        z.strictObject({ what: z.literal('sealed'), place: Place, ...reading }),
        z.strictObject({
          what: z.literal('orifice'),
          place: Place,
          ...reading,
          orifice: QuantityInput,
          coefficient: Factor.default(0.61),
        }),
        z.strictObject({ what: z.literal('flow'), place: Place, ...reading }),
        z.strictObject({
          what: z.literal('stageDp'),
          place: Place,
          ...reading,
          stage: z.string().describe('Kind of the stage, such as mainFilter'),
        }),
      ]),
    )
    .max(100),
});
export type CalibrateInput = z.infer<typeof CalibrateInput>;

export const CalibrateOutput = z.strictObject({
  status: z.enum(['converged', 'stopped']),
  iterations: z.int(),
  parameters: z.array(
    z.strictObject({
      name: z.string(),
      value: z.number(),
      low: z.number(),
      high: z.number(),
      unit: z.string(),
      learned: z.boolean(),
    }),
  ),
  readings: z.array(
    z.strictObject({
      label: z.string(),
      measured: QuantityOutput,
      model: QuantityOutput,
      residual: QuantityOutput,
      weighted: z.number(),
      agrees: z.boolean(),
    }),
  ),
  chiSquare: z.number(),
  degreesOfFreedom: z.int(),
  sentence: z.string(),
});
export type CalibrateOutput = z.infer<typeof CalibrateOutput>;
