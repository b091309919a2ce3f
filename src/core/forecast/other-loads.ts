import type { Machine, Stage } from '../machine/machine';
import { median } from '../numeric/moments';
import type { StageKind } from '../path/stage-kinds';
import type { Seen } from './seen';
import type { LoadClock } from './used';

/** Stages that dust loads, where the air passes through their medium: the lower bag of a collector takes no air. */
const LOADS: ReadonlySet<StageKind> = new Set([
  'bag',
  'prefilter',
  'mainFilter',
  'canister',
  'cloth',
  'foam',
  'hepa',
  'exhaustFilter',
]);

/** What another stage at its limit costs, as a share of this one's limit, and how unsure that is, before tests tell. Modelling choices. */
const LOSS_OF_OTHERS = { bag: { middle: 0.15, spread: 0.3 }, other: { middle: 0.12, spread: 0.12 } } as const;
const MOST_AGE = 1.2;
/** Working days of a calendar day. */
const WORKED = 5 / 7;

interface Around {
  readonly machine: Machine;
  readonly stage: Stage;
  readonly startsOf: (stageId: number) => readonly number[];
  readonly clock: LoadClock;
  readonly usualDays: (kind: StageKind) => number;
}

/** Progress of another stage on a day, as a share of its usual life. */
const ageOf = (other: Stage, { startsOf, clock, usualDays }: Around): ((day: number) => number) => {
  const starts = startsOf(other.id);
  const loads = starts.slice(1).map((d, i) => clock.at(d) - clock.at(starts[i] ?? d));
  const known = loads.filter((l) => l > 0);
  const first = starts[0] ?? 0;
  const span = Math.max(1, (starts.at(-1) ?? first) - first);
  // With nothing changed yet its kind's days, at what the machine takes in a day.
  const daily = clock.now / Math.max(span, 30);
  const life = known.length > 0 ? median(known) : Math.max(1e-9, daily * usualDays(other.kind) * WORKED);
  return (day) => {
    const since = starts.findLast((d) => d < day) ?? first;
    return Math.min(MOST_AGE, Math.max(0, (clock.at(day) - clock.at(since)) / life)) ** BEND;
  };
};

interface Costs {
  readonly middle: number;
  readonly spread: number;
  /** Factor by which the tests scatter more than their uncertainty and the bag explain; 1 where they do not. */
  readonly wider: number;
}

/** A resistance grows slowly at first and fast at the end. A modelling choice. */
const BEND = 1.5;
/** Largest assumed scatter of tests, in times of their uncertainty. */
const WIDEST = 3;

/**
 * The bag's share of the drop, learned from tests within one interval of the filter: the more the flow falls with the
 * bag's age, the larger the bag's share.
 */
const learned = (
  flows: readonly Extract<Seen, { kind: 'share' }>[],
  age: (day: number) => number,
  { stage, startsOf, clock }: Around,
): Costs => {
  const starts = startsOf(stage.id);
  const { middle, spread } = LOSS_OF_OTHERS.bag;
  // Unknowns: what the filter gains by load, and the bag's cost; both lightly held.
  const scale = Math.max(1e-9, clock.now);
  let [gg, gb, bb, gy, by] = [1e-4, 0, 1 / spread ** 2, 0, middle / spread ** 2];
  const steps: { readonly weight: number; readonly gain: number; readonly aged: number; readonly rise: number }[] = [];
  for (const [i, now] of flows.entries()) {
    const before = flows[i - 1];
    if (!before || starts.some((d) => d >= before.day && d < now.day)) continue;
    const weight = 1 / (now.deviation ** 2 + before.deviation ** 2);
    const gain = (clock.at(now.day) - clock.at(before.day)) / scale;
    const aged = age(now.day) - age(before.day);
    const rise = now.share - before.share;
    steps.push({ weight, gain, aged, rise });
    gg += weight * gain * gain;
    gb += weight * gain * aged;
    bb += weight * aged * aged;
    gy += weight * gain * rise;
    by += weight * aged * rise;
  }
  const det = gg * bb - gb * gb;
  if (!(det > 0)) return { ...LOSS_OF_OTHERS.bag, wider: 1 };
  const bag = Math.max(0, (gg * by - gb * gy) / det);
  const slope = (gy - gb * bag) / gg;
  // One more step that fits, so that two tests alone condemn none.
  const misfit =
    (1 + steps.reduce((sum, s) => sum + s.weight * (s.rise - slope * s.gain - bag * s.aged) ** 2, 0)) /
    (1 + steps.length);
  return {
    middle: bag,
    spread: Math.sqrt(gg / det) * Math.max(1, Math.sqrt(misfit)),
    wider: Math.min(WIDEST, Math.max(1, Math.sqrt(misfit))),
  };
};

/**
 * Removes from flow tests of a whole path the share of the other loaded stages: the bag's by its age and by the tests
 * themselves, the others' by their age. Shares that cannot be separated widen the result. Source: least squares with a
 * prior. Valid: shares of one stage's limit.
 */
export const withoutOthers = (seen: readonly Seen[], around: Around): readonly Seen[] => {
  const flows = seen.filter((s) => s.kind === 'share').filter((s) => s.wholePath);
  if (flows.length === 0) return seen;
  const others = around.machine.stages.filter(
    (s) => s.id !== around.stage.id && !s.missing && LOADS.has(s.kind) && s.spec.air.form === 'medium',
  );
  const costs = others.map((other) => {
    const age = ageOf(other, around);
    return { age, cost: other.kind === 'bag' ? learned(flows, age, around) : { ...LOSS_OF_OTHERS.other, wider: 1 } };
  });
  return seen.map((s) => {
    if (s.kind !== 'share' || !s.wholePath) return s;
    let [share, variance] = [s.share, s.deviation ** 2];
    for (const { age, cost } of costs) {
      const here = age(s.day);
      share -= cost.middle * here;
      variance = variance * cost.wider ** 2 + (cost.spread * here) ** 2;
    }
    return { ...s, share, deviation: Math.sqrt(variance) };
  });
};
