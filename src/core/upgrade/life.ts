import { MEDIA } from '../constants/media';
import { isWear } from '../interval/rules';
import { isChangeable, type Machine } from '../machine/machine';
import { modelOfSnapshot } from '../machine/path-edit';
import { loadAtLoss } from '../calibrate/load-share';
import type { PathParameters } from '../path/machine-path';
import type { Upgraded } from './apply';
import type { UpgradeChange } from './change';

/** The effect of an upgrade on a stage's life. */
export interface LifeChange {
  readonly stageId: number;
  /** Times as long as now; 1 for no change. */
  readonly factor: number;
  /** `calendar` means that a date decides and nothing is gained. `gone` means removed or replaced. */
  readonly because: 'separator' | 'layer' | 'area' | 'calendar' | 'same' | 'gone';
}

/** The loss of air at which a filter is taken as full, where no rule of its own says so. A Moorwind default. */
const USUAL_LOSS = 0.25;
/** Largest counted factor of a life: beyond it, other causes end it. A Moorwind default. */
const MOST_FACTOR = 10;

/** The share of the dust's mass that a change keeps from what lies behind it. */
const takes = (change: UpgradeChange): number =>
  change.kind === 'separator'
    ? change.share
    : change.kind === 'bag'
      ? MEDIA.fleeceBag.typical.efficiency
      : change.kind === 'fineLayer'
        ? MEDIA.fineDustFleece.typical.efficiency
        : 0;

const areaOf = ({ path }: Upgraded, id: number): number | null => {
  const air = path.stages.find((s) => s.id === id)?.spec.air;
  return air?.form === 'medium' ? air.areaM2 * air.inParallel : null;
};

interface LifeInput {
  readonly machine: Machine;
  readonly changes: readonly UpgradeChange[];
  readonly before: Upgraded;
  readonly after: Upgraded;
  readonly parameters: PathParameters;
}

/** Dust that a filter holds until it costs so much air, after over before: the load it may carry, times its area squared. */
const byArea = ({ before, after, parameters }: LifeInput, id: number, limitLoss: number): number => {
  const [areaBefore, areaAfter] = [areaOf(before, id), areaOf(after, id)];
  const [loadBefore, loadAfter] = [before, after].map((step) =>
    loadAtLoss({
      modelled: { model: modelOfSnapshot(step.path), parameters },
      position: step.path.stages.findIndex((s) => s.id === id),
      limitLoss,
    }),
  );
  return areaBefore && areaAfter && loadBefore && loadAfter
    ? (loadAfter / loadBefore) * (areaAfter / areaBefore) ** 2
    : 1;
};

/**
 * How much longer each stage of a machine lasts after an upgrade: less dust reaches what lies behind a separator or a
 * layer, and a larger filter holds more before it costs the same air (dp = K2 m Q / A2). Where only the calendar decides,
 * nothing is gained. Source: the filter drag model (EPA Air Pollution Control Cost Manual) in the air-path model; shares
 * of mass as stated. Valid: steps of one machine.
 */
export const lifeChanges = (input: LifeInput): readonly LifeChange[] => {
  const { machine, changes, after } = input;
  return machine.stages.filter(isChangeable).map((stage): LifeChange => {
    const now = after.path.stages.find((s) => s.id === stage.id);
    const at = after.path.stages.findIndex((s) => s.id === stage.id);
    if (!now || now.missing) return { stageId: stage.id, factor: 1, because: 'gone' };
    const wears = stage.rules.filter((r) => isWear(r.rule));
    if (stage.rules.length > 0 && wears.length === 0) return { stageId: stage.id, factor: 1, because: 'calendar' };
    const flowRule = wears.find((r) => r.rule.kind === 'flowLost')?.rule;
    const limitLoss = flowRule?.kind === 'flowLost' ? flowRule.share : USUAL_LOSS;
    const changed = changes.some((c) => c.kind === 'medium' && c.stageId === stage.id);
    const area = changed ? byArea(input, stage.id, limitLoss) : 1;
    // The added parts upstream of this stage in the changed path.
    const inFront = after.path.stages.slice(0, at).filter((s) => s.id === null);
    const spared = changes.filter(
      (c) =>
        (c.kind === 'separator' && inFront.some((s) => s.kind === 'cyclone')) ||
        (c.kind === 'bag' && inFront.some((s) => s.kind === 'bag')) ||
        (c.kind === 'fineLayer' && inFront.some((s) => s.kind === 'prefilter')),
    );
    const holds = now.spec.air.form === 'medium' || stage.kind === 'bag' || stage.kind === 'dropChamber';
    const left = holds ? spared.reduce((share, c) => share * (1 - takes(c)), 1) : 1;
    const factor = Math.min(MOST_FACTOR, area / Math.max(left, 1 / MOST_FACTOR));
    const because =
      spared.some((c) => c.kind === 'separator') && holds
        ? 'separator'
        : spared.length > 0 && holds
          ? 'layer'
          : changed
            ? 'area'
            : 'same';
    return { stageId: stage.id, factor, because };
  });
};
