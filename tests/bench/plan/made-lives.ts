import type { ReachQuantiles } from '@/core/forecast/limit-distribution';
import type { PlanInput, PlannedStage } from '@/core/plan/yard-problem';
import type { DustHazard } from '@/core/machine/machine';
import type { Random } from '../../../demo/random';

// A made-up yard that lives on: bags and filters have lives of their own, of which only their middle and now and then a
// look are known.

export const WEEK = 7;
/** A look is coarse: spread of the share that is seen. */
const LOOK_OFF = 0.1;

/** How hard a yard is to keep. */
export interface Hardness {
  readonly machines: number;
  /** From one life to the next, and what is known of their middle, as spreads of the logarithm. */
  readonly between: number;
  readonly known: number;
  /** Share of the stages that are looked at in a week. */
  readonly looks: number;
  readonly minutesADay: number;
}

/** Lives that are much alike, and time enough. */
export const EASY: Hardness = { machines: 14, between: 0.25, known: 0.1, looks: 0.5, minutesADay: 120 };
/** Lives that differ, middles half known, few looks, and nine tenths of the minutes needed. */
export const HARD: Hardness = { machines: 30, between: 0.45, known: 0.3, looks: 0.2, minutesADay: 90 };

export interface Part {
  readonly kind: PlannedStage['kind'];
  readonly middle: number;
  readonly known: number;
  since: number;
  life: number;
  /** Changes so far. */
  cycle: number;
  looks: { readonly age: number; readonly share: number }[];
}

export interface MadeMachine {
  readonly hazard: DustHazard;
  readonly parts: readonly Part[];
}

const lifeOf = (r: Random, middle: number, { between }: Hardness): number =>
  Math.max(3, middle * Math.exp(between * r.normal()));

export const makeYard = (r: Random, hard: Hardness): readonly MadeMachine[] =>
  Array.from({ length: hard.machines }, (): MadeMachine => {
    const part = (kind: Part['kind'], low: number, high: number): Part => {
      const middle = low + (high - low) * r.uniform();
      const life = lifeOf(r, middle, hard);
      return {
        kind,
        middle,
        known: middle * Math.exp(hard.known * r.normal()),
        since: -life * r.uniform() * 0.9,
        life,
        cycle: 0,
        looks: [],
      };
    };
    const hazards = ['plain', 'controlled', 'contained'] as const;
    return {
      hazard: hazards[Math.floor(r.uniform() * 3)] ?? 'plain',
      parts: [
        part('bag', 12, 50),
        part('mainFilter', 110, 400),
        ...(r.uniform() < 0.6 ? [part('prefilter', 40, 130)] : []),
        ...(r.uniform() < 0.4 ? [part('exhaustFilter', 90, 220)] : []),
      ],
    };
  });

const GRID = 61;
const CHANCES = [0.002, 0.1, 0.5, 0.9, 0.998] as const;

/** Days left as far as is known: the middle, what was seen, and that people see a limit when it is there. */
const leftOf = ({ known, looks, since }: Part, today: number, hard: Hardness): ReachQuantiles => {
  const wide = Math.hypot(hard.between, hard.known);
  const points = Array.from(
    { length: GRID },
    (_, i) => known * Math.exp((3.2 * wide * (2 * i - GRID + 1)) / (GRID - 1)),
  );
  const weights = points.map((life) =>
    looks.reduce(
      (w, l) => w * (0.01 + Math.exp(-0.5 * ((l.share - l.age / life) / LOOK_OFF) ** 2)),
      Math.exp(-0.5 * (Math.log(life / known) / wide) ** 2),
    ),
  );
  const total = weights.reduce((a, b) => a + b, 0);
  const at = (p: number): number => {
    let below = 0;
    for (const [i, w] of weights.entries()) {
      below += w / total;
      if (below >= p) return (points[i] ?? 0) - (today - since);
    }
    return (points.at(-1) ?? 0) - (today - since);
  };
  const [a, b, c, d, e] = CHANCES.map(at);
  return [a ?? 0, b ?? 0, c ?? 0, d ?? 0, e ?? 0];
};

const wholeOf = ({ known }: Part, { between }: Hardness): ReachQuantiles => {
  const [a, b, c, d, e] = [-3, -1.28, 0, 1.28, 3].map((z) => known * Math.exp(z * between));
  return [a ?? 0, b ?? 0, c ?? 0, d ?? 0, e ?? 0];
};

const PRICES: Partial<Record<Part['kind'], number>> = { bag: 9, mainFilter: 70, prefilter: 12, exhaustFilter: 20 };
const KINDS = ['bag', 'mainFilter', 'prefilter', 'exhaustFilter'] as const;

/** Class of a machine by its dust. */
const CLASS_OF: Readonly<Record<DustHazard, 'L' | 'M' | 'H'>> = { plain: 'L', controlled: 'M', contained: 'H' };

export const inputOf = (
  yard: readonly MadeMachine[],
  today: number,
  { weeks, hard }: { readonly weeks: number; readonly hard: Hardness },
): PlanInput => ({
  machines: yard.map((m, i) => ({
    tag: `m${i}`,
    name: '',
    hazard: m.hazard,
    machineClass: CLASS_OF[m.hazard],
    blockedDays: [],
    stages: m.parts.map((p, k) => ({
      stageId: 10 * i + k,
      name: p.kind,
      kind: p.kind,
      reached: leftOf(p, today, hard),
      whole: wholeOf(p, hard),
      part: KINDS.indexOf(p.kind as (typeof KINDS)[number]),
      withStage: null,
      lockedDay: null,
      latest: null,
      lifeDays: p.known,
      cycle: p.cycle,
      promised: null,
    })),
  })),
  parts: KINDS.map((kind) => ({
    id: kind,
    name: kind,
    bin: '',
    price: PRICES[kind] ?? 10,
    leadDays: 0,
    onHand: 1e6,
    deliveries: [],
  })),
  crew: null,
  works: Array.from({ length: weeks * WEEK }, (_, day) => day % WEEK < 5),
});

/** Perhaps somebody looks at a part, and remembers what share of its life is behind it. */
export const lookAt = (
  p: Part,
  luck: Random,
  { today, hard }: { readonly today: number; readonly hard: Hardness },
): boolean => {
  if (luck.uniform() > hard.looks) return false;
  const age = today - p.since;
  p.looks.push({ age, share: age / p.life + LOOK_OFF * luck.normal() });
  return true;
};

/** A new part is in, with a life of its own. */
export const renew = (p: Part, luck: Random, { on, hard }: { readonly on: number; readonly hard: Hardness }): void => {
  p.since = on;
  p.life = lifeOf(luck, p.middle, hard);
  p.looks = [];
  p.cycle += 1;
};
