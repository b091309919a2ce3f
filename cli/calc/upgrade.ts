import type {
  PaybackInput,
  PaybackOutput,
  RingInput,
  RingOutput,
  UpgradeInput,
  UpgradeOutput,
} from '@/contracts/calc/upgrade';
import { modelledMachine } from '@/core/calibrate/machine-model';
import { AS_NEW } from '@/core/path/as-new';
import { fail, ok, type Result } from '@/core/failure/failure';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import { snapshotOf } from '@/core/machine/path-edit';
import { upgradeSteps } from '@/core/upgrade/apply';
import { cleanFigures } from '@/core/upgrade/gain';
import { discountedYears, payback } from '@/core/upgrade/payback';
import { planRing } from '@/core/upgrade/ring';
import { ringSteps, sayRing } from '@/messages/ring';
import { sayGain } from '@/messages/upgrade';
import { sayPayback } from '@/messages/upgrade-money';
import { collect, inSi, readQuantity } from './quantities';
import { templateMachine } from './template-machine';

const USUAL_LENGTH_M = 3;

/** `calc upgrade`: a machine of a kind as new and changes to it in; flow, velocities and gain after each out. */
export const upgradeCalc = ({ kind, changes, hose }: UpgradeInput): Result<UpgradeOutput> => {
  const made = templateMachine({ kind, machineClass: null, hazard: 'plain', lastCollected: '' });
  if (!made.ok) return made;
  const given = hose
    ? collect([readQuantity(hose.bore, 'length', 'hose.bore'), readQuantity(hose.length, 'length', 'hose.length')])
    : ok([MACHINE_KINDS[kind].hoseM, USUAL_LENGTH_M]);
  if (!given.ok) return given;
  const [hoseBoreM = 0, hoseLengthM = 0] = given.value;
  const machine = { ...made.value, hoseBoreM, hoseLengthM };
  const steps = upgradeSteps(snapshotOf(machine), changes, machine.hazard);
  if (!steps.ok) return steps;
  const { parameters, basis } = modelledMachine(machine, []);
  const figures = cleanFigures({ steps: steps.value, parameters, basis, today: AS_NEW });
  if (!figures.ok) return figures;
  return ok({
    sentence: sayGain(figures.value, 'metric'),
    steps: figures.value.map(({ flow, ratio, stairs, model }) => ({
      flow: inSi(flow.value, 'flow'),
      ratio: { ...ratio },
      hoseVelocity: stairs.hoseVelocityMs === null ? null : inSi(stairs.hoseVelocityMs, 'velocity'),
      faceVelocities: model.stages.flatMap((s, i) => {
        const face = stairs.steps[i]?.faceVelocityMs ?? null;
        return face === null ? [] : [{ stage: s.name, velocity: inSi(face, 'velocity') }];
      }),
    })),
  });
};

/** `calc adapter-ring`: what is measured of canister, drum and board in; gap, rings, holes and how they come out of the board out. */
export const ringCalc = (input: RingInput): Result<RingOutput> => {
  const read = (key: keyof RingInput) => readQuantity(input[key] as RingInput['filter'], 'length', key);
  const lengths = collect(
    (['filter', 'rim', 'gasket', 'gasketWidth', 'sheet', 'screw'] as const).map((key) => read(key)),
  );
  const bead = input.bead === null ? ok(null) : readQuantity(input.bead, 'length', 'bead');
  const board = input.board
    ? collect([
        readQuantity(input.board.width, 'length', 'board.width'),
        readQuantity(input.board.height, 'length', 'board.height'),
      ])
    : ok(null);
  if (!lengths.ok || !bead.ok || !board.ok)
    return fail(...[lengths, bead, board].flatMap((r) => (r.ok ? [] : r.failures)));
  const [filterM = 0, rimM = 0, gasketM = 0, gasketWidthM = 0, sheetM = 0, screwM = 0] = lengths.value;
  const [widthM = 0, heightM = 0] = board.value ?? [];
  const { ramp, brackets } = input;
  const plan = planRing({
    filterM,
    rimM,
    beadM: bead.value,
    ramp,
    gasketM,
    gasketWidthM,
    sheetM,
    brackets,
    screwM,
    board: board.value ? { widthM, heightM } : null,
  });
  if (!plan.ok) return plan;
  const p = plan.value;
  const length = (m: number) => inSi(m, 'length');
  return ok({
    sentence: sayRing(p, 'metric'),
    way: p.way,
    gap: length(p.gapM),
    beadGap: p.beadGapM === null ? null : length(p.beadGapM),
    pieces: p.pieces.map((x) => ({ name: x.name, outer: length(x.outerM), inner: length(x.innerM) })),
    contact: length(p.contactM),
    holes: p.holes.map((h) => ({
      x: length(h.xM),
      y: length(h.yM),
      pilot: length(h.pilotM),
      clearance: length(h.clearanceM),
    })),
    board: p.board && { fits: p.board.fits, segments: p.board.segments },
    steps: [...ringSteps(p)],
  });
};

const SEED = 41_707;
const finite = (years: number): number | null => (Number.isFinite(years) ? years : null);

/** `calc payback`: what stages cost and last, before and after, in; when it pays, with its chance, out. */
export const paybackCalc = ({ stages, rate, ...input }: PaybackInput): Result<PaybackOutput> => {
  const p = payback({
    ...input,
    seed: SEED,
    stages: stages.map((s) => ({ ...s, perChangeAfter: s.perChangeAfter ?? s.perChange })),
  });
  const { low, middle, high } = p.years;
  return ok({
    sentence: sayPayback(p),
    costBefore: { ...p.costBefore },
    costAfter: { ...p.costAfter },
    savedPerYear: { ...p.savedPerYear },
    years: { low: finite(low), middle: finite(middle), high: finite(high) },
    discountedYears: finite(discountedYears({ price: input.price, savedPerYear: p.savedPerYear.middle, rate })),
    never: p.never,
    hangsOn: p.hangsOn && { ...p.hangsOn },
  });
};
