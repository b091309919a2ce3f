import type { Random } from './random';
import type { MachineSpec, StageSpec, StoryTest } from './scenario';

/** One change or test of a made-up past, in days before today. */
export type PastEvent =
  | { readonly kind: 'change'; readonly daysAgo: number; readonly stage: string; readonly measured: boolean }
  | {
      readonly kind: 'test';
      readonly daysAgo: number;
      readonly factor: number;
      readonly state: 'asFound' | 'asLeft';
      readonly story: StoryTest | null;
      readonly baseline: boolean;
    };

/** Days ago of every change of a stage, newest first: its usual interval with some scatter, back to first use. */
const changeDays = (spec: StageSpec, inServiceDaysAgo: number, random: Random): readonly number[] => {
  if (!spec.life) return [];
  const days: number[] = [];
  for (let day = spec.life.lastDaysAgo; day < inServiceDaysAgo;) {
    days.push(day);
    day += Math.max(2, Math.round(spec.life.everyDays * (1 + 0.06 * random.normal())));
  }
  return days;
};

const HOURS_APART = 0.02;

/**
 * A machine's past: changes by their intervals, a baseline on its first day, tests round every third change, and
 * the tests its story needs. The flow falls with what its stages carry: each takes its share as its interval runs.
 */
export const pastOf = (spec: MachineSpec, random: Random): readonly PastEvent[] => {
  const lives = spec.stages.flatMap((s) =>
    s.life ? [{ spec: s, life: s.life, days: changeDays(s, spec.inServiceDaysAgo, random) }] : [],
  );
  const factorAt = (daysAgo: number) =>
    lives.reduce((factor, { life, days }) => {
      const last = days.find((d) => d >= daysAgo) ?? spec.inServiceDaysAgo;
      return factor * (1 - life.share * Math.min(1.3, (last - daysAgo) / life.everyDays));
    }, 1);
  const events: PastEvent[] = lives.flatMap(({ spec: stage, days }) =>
    days.map((daysAgo, i): PastEvent => ({ kind: 'change', daysAgo, stage: stage.name, measured: i % 3 === 2 })),
  );
  if (!spec.rig) return events;
  const around = events.flatMap((e): readonly PastEvent[] =>
    e.kind === 'change' && e.measured
      ? [
          {
            kind: 'test',
            daysAgo: e.daysAgo + HOURS_APART,
            factor: factorAt(e.daysAgo + HOURS_APART),
            state: 'asFound',
            story: null,
            baseline: false,
          },
          {
            kind: 'test',
            daysAgo: e.daysAgo - HOURS_APART,
            factor: factorAt(e.daysAgo),
            state: 'asLeft',
            story: null,
            baseline: false,
          },
        ]
      : [],
  );
  const story = spec.story.map((s): PastEvent => ({
    kind: 'test',
    daysAgo: s.daysAgo - HOURS_APART,
    factor: s.factor,
    state: s.state ?? 'asFound',
    story: s,
    baseline: false,
  }));
  const first: PastEvent = {
    kind: 'test',
    daysAgo: spec.inServiceDaysAgo - HOURS_APART,
    factor: 1,
    state: 'asLeft',
    story: null,
    baseline: true,
  };
  return [first, ...events, ...around, ...story].sort((a, b) => b.daysAgo - a.daysAgo);
};
