import { modelledMachine, type ModelledMachine } from '@/core/calibrate/machine-model';
import { AS_NEW } from '@/core/path/as-new';
import { CLASS_HOSE_VELOCITY } from '@/core/constants/limits';
import { DUCT_VELOCITY } from '@/core/measure/needs-of-use';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { trainOfMachine } from '@/core/machine/machine-train';
import { classStanding, type ClassStanding, type Machine, type Stage } from '@/core/machine/machine';
import { snapshotOf, type PathSnapshot } from '@/core/machine/path-edit';
import { METHODS } from '@/core/measure/methods';
import type { Train } from '@/core/filter/train';
import { inForce, type TestRecord } from '@/core/record/records';
import { isSeries } from '@/core/record/series';
import { judgeTest } from '@/core/status/judge-test';
import { type Upgraded, upgradeSteps } from '@/core/upgrade/apply';
import type { UpgradeChange } from '@/core/upgrade/change';
import { cleanFigures, type UpgradeFigures, upgradeFigures } from '@/core/upgrade/gain';
import { type LifeChange, lifeChanges } from '@/core/upgrade/life';
import { repeatsFor } from '@/core/upgrade/power';
import { airPathOfBench } from '../measuring/air-path';
import type { Bench } from '../measuring/bench';

/** A planned upgrade, worked out. */
export interface UpgradePlan {
  readonly machine: Machine;
  readonly modelled: ModelledMachine;
  readonly changes: readonly UpgradeChange[];
  readonly steps: readonly Upgraded[];
  /** In the present state of the machine: the tests will show this. */
  readonly today: readonly UpgradeFigures[];
  /** Every filter clean: this is what the change brings by itself. */
  readonly clean: readonly UpgradeFigures[];
  readonly trains: readonly [before: Train | null, after: Train | null];
  readonly classes: readonly [before: ClassStanding, after: ClassStanding];
  readonly life: readonly LifeChange[];
  /** The test from before that would be used; null where it has to be made first. */
  readonly beforeTest: TestRecord | null;
  /** Spread of one reading, as a share: of the machine's own tests, or a usual one. */
  readonly spread: number;
  readonly repeats: number | null;
}

/** Spread of a reading where the machine has none on record. A Moorwind default. */
const USUAL_SPREAD = 0.02;

/** A machine with its path as it would be; new stages have no history. */
const machineWith = (machine: Machine, path: PathSnapshot): Machine => ({
  ...machine,
  ...path.machine,
  stages: path.stages.map((s, position): Stage => {
    const known = machine.stages.find((x) => x.id === s.id);
    const { kind, name, missing, doNotRemove, spec } = s;
    return known
      ? { ...known, position, missing, doNotRemove, spec, part: s.partId === null ? null : known.part }
      : {
          id: -1 - position,
          position,
          kind,
          name,
          part: null,
          missing,
          missingSince: null,
          doNotRemove,
          firstUsedOn: machine.inServiceOn,
          fittedOn: null,
          openedAt: null,
          proven: [],
          looks: [],
          rules: [],
          spec,
        };
  }),
});

const trainAt = (machine: Machine, { stairs }: UpgradeFigures): Train | null => {
  const made = trainOfMachine({ machine, stairs, asNew: stairs, state: AS_NEW });
  return made.ok ? made.value : null;
};

/** The newest usable flow test with nothing changed in the machine since. */
export const beforeTestOf = ({ tests, changes, pathEdits }: Bench): TestRecord | null => {
  const newest = inForce(tests)
    .filter((t) => isSeries(t) && METHODS[t.test.method].result === 'flow' && t.test.failedPreconditions.length === 0)
    .reduce<TestRecord | null>((best, t) => (best === null || t.performedAt >= best.performedAt ? t : best), null);
  if (!newest) return null;
  const later = [...inForce(changes), ...pathEdits].some((c) => c.performedAt > newest.performedAt);
  return later ? null : newest;
};

const spreadOfTests = (bench: Bench): number => {
  const { machine } = bench.status;
  const own = inForce(bench.tests)
    .filter((t) => isSeries(t) && METHODS[t.test.method].result === 'flow')
    .slice(-6)
    .flatMap((record) => {
      const { repeats } = judgeTest({
        machine,
        tests: bench.tests,
        thresholds: bench.yard.site.thresholds,
        record,
      }).reduced;
      return repeats.deviation !== null && repeats.mean > 0 && repeats.deviation > 0
        ? [(repeats.deviation / repeats.mean) ** 2]
        : [];
    });
  return own.length === 0 ? USUAL_SPREAD : Math.sqrt(own.reduce((a, b) => a + b, 0) / own.length);
};

/** Works out changes to a machine on its own model. Errors as `upgradeSteps` and the solver; `upgrade.measure-first` for a machine without a baseline that the model could be fitted to. */
export const planOf = (bench: Bench, changes: readonly UpgradeChange[]): Result<UpgradePlan> => {
  const { machine } = bench.status;
  const modelled = modelledMachine(machine, bench.tests);
  // Gaps of the baselines have their own words.
  if (modelled.basis.kind !== 'calibrated')
    return fail(
      failure('upgrade.measure-first', '', { tag: machine.tag }),
      ...(modelled.basis.why ? [modelled.basis.why] : []),
    );
  const steps = upgradeSteps(snapshotOf(machine), changes, machine.hazard);
  if (!steps.ok) return steps;
  const [before] = steps.value;
  const after = steps.value.at(-1);
  if (!before || !after) return fail(failure('upgrade.unknown'));
  const { parameters, basis } = modelled;
  const { view } = airPathOfBench(bench);
  const input = { steps: steps.value, parameters, basis, today: view.today.state };
  const today = upgradeFigures(input);
  if (!today.ok) return today;
  const clean = cleanFigures(input);
  if (!clean.ok) return clean;
  const changed = machineWith(machine, after.path);
  const [first, last] = [clean.value[0], clean.value.at(-1)];
  const spread = spreadOfTests(bench);
  const gain = Math.abs((today.value.at(-1)?.ratio.value ?? 1) - 1);
  return ok({
    machine,
    modelled,
    changes,
    steps: steps.value,
    today: today.value,
    clean: clean.value,
    trains: [first ? trainAt(machine, first) : null, last ? trainAt(changed, last) : null],
    classes: [classStanding(machine), classStanding(changed)],
    life: lifeChanges({ machine, changes, before, after, parameters }),
    beforeTest: beforeTestOf(bench),
    spread,
    repeats: repeatsFor(gain / spread),
  });
};

/** Pa of the fan's suction that a separator takes, and whether this machine has it to spare. */
export interface SeparatorStand {
  readonly shareOfLift: number;
  readonly flowLost: number;
  readonly toSpare: boolean;
}

/** A larger share of lost flow is reported as a price. A Moorwind default. */
const SPARE_LOSS = 0.1;

/** The effect of a separator in front, by the machine's own staircase. */
export const separatorStand = ({ machine, clean, changes }: UpgradePlan): SeparatorStand | null => {
  const at = changes.findIndex((c) => c.kind === 'separator');
  const [before, after] = [clean[at], clean[at + 1]];
  if (at < 0 || !before || !after) return null;
  const position = after.model.stages.findIndex((s) => s.kind === 'cyclone' && s.id < 0);
  const flowLost = 1 - after.stairs.flowPerToolM3s / before.stairs.flowPerToolM3s;
  return {
    shareOfLift: after.stairs.steps[position]?.shareOfLift ?? 0,
    flowLost,
    toSpare: flowLost <= SPARE_LOSS && !(MACHINE_KINDS[machine.kind].collector && flowLost > SPARE_LOSS / 2),
  };
};

/** Dust that the air in hose or duct is too slow for after an upgrade; null for none. */
export type TooSlow =
  | { readonly kind: 'class'; readonly velocityMs: number; readonly leastMs: number }
  | { readonly kind: 'duct'; readonly velocityMs: number; readonly lowMs: number; readonly highMs: number };

/**
 * Whether the dust would still move: 20 m/s in the hose of an M or H machine, chips in a duct. For the present state,
 * at the lower end of its interval.
 */
export const tooSlowAfter = ({ machine, today }: UpgradePlan): TooSlow | null => {
  const last = today.at(-1);
  const velocityMs = last?.stairs.hoseVelocityMs ?? null;
  if (!last || velocityMs === null) return null;
  const low = (velocityMs * last.flow.low) / last.flow.value;
  if (MACHINE_KINDS[machine.kind].hoseVelocityLimit)
    return low < CLASS_HOSE_VELOCITY.value ? { kind: 'class', velocityMs, leastMs: CLASS_HOSE_VELOCITY.value } : null;
  return MACHINE_KINDS[machine.kind].collector && low < DUCT_VELOCITY.woodChips.lowMs
    ? { kind: 'duct', velocityMs, ...DUCT_VELOCITY.woodChips }
    : null;
};
