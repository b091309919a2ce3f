import type { PastInterval, Inspection, StageHistory } from '@/core/forecast/history';
import { type Draws, drawCount, drawWear, firstOf, type StageForecast } from '@/core/forecast/reach';
import type { Chance, Use } from '@/core/forecast/use';
import type { LifeTuning } from '@/core/forecast/life';
import type { MadeMachine, MadeStage } from './made-yard';

/** What the application would know of a made-up stage, handed to the forecaster as it would hand it. */

const END: Record<MadeStage['changes'][number]['why'], PastInterval['end']> = {
  full: 'limit',
  low: 'limit',
  early: 'early',
  opened: 'early',
  count: 'other',
};

/** A filter test counts when the bag was fresh. */
const LOOK_SPREAD = { bag: 0.1, filter: 0.09 } as const;

export const historyOf = (machine: MadeMachine, stage: MadeStage, today: number): StageHistory => {
  const loadOf = (from: number, to: number): number =>
    machine.logsHours ? machine.hours.slice(from, to).reduce((a, b) => a + b, 0) : to - from;
  const starts = [0, ...stage.changes.map((c) => c.day)];
  const past = stage.changes.slice(1).map((c, i): PastInterval => {
    const from = stage.changes[i]?.day ?? 0;
    return {
      load: loadOf(from, c.day),
      days: c.day - from,
      end: END[c.why],
      found: c.found,
      beforeRegime: machine.regimeDay !== null && from < machine.regimeDay - 5,
    };
  });
  const last = starts.at(-1) ?? 0;
  const known = stage.changes.length > 0;
  const inspections = stage.looks
    .filter((l) => known && l.day > last && (stage.kind === 'bag' || l.fresh))
    .map((l): Inspection => ({
      kind: 'share',
      load: loadOf(last, l.day),
      share: l.share,
      deviation: stage.kind === 'bag' ? Math.hypot(0.05, LOOK_SPREAD.bag * l.share) : LOOK_SPREAD.filter,
    }));
  // A filter that was never changed is as old as the record, at least.
  const template = machine.logsHours ? stage.templateHours : stage.templateDays;
  return {
    template: { load: template, spread: 0.7 },
    counts: machine.logsHours ? 'hours' : 'days',
    past,
    load: loadOf(last, today),
    inspections,
  };
};

export const useOf = (machine: MadeMachine, today: number): Use => ({
  recent: machine.logsHours ? machine.hours.slice(today - 126, today) : Array.from({ length: 126 }, () => 1),
  works: machine.logsHours ? (day) => !machine.closed(today + day - 1) : () => true,
  unsure: machine.logsHours ? 0.22 : 0.3,
});

export const forecastMade = (
  machine: MadeMachine,
  stage: MadeStage,
  { today, chance, tuning }: { readonly today: number; readonly chance: Chance; readonly tuning?: LifeTuning },
): StageForecast | null => {
  if (stage.kind === 'counted') {
    const bag = machine.stages[0];
    if (!bag) return null;
    const last = stage.changes.at(-1)?.day ?? 0;
    const done = bag.changes.filter((c) => c.day > last).length;
    const gaps = bag.changes.slice(1).map((c, i) => c.day - (bag.changes[i]?.day ?? 0));
    const draws: Draws = drawCount(
      stage.count - done,
      { gaps, since: today - (bag.changes.at(-1)?.day ?? 0), templateDays: bag.templateDays },
      { chance },
    );
    return firstOf([{ rule: 1, draws }]);
  }
  const draws = drawWear(historyOf(machine, stage, today), useOf(machine, today), {
    chance,
    ...(tuning ? { tuning } : {}),
  });
  return firstOf([{ rule: 1, draws }]);
};

/** What people do without a forecast: as long as last time; or the trade's fixed days. */
export const naive = (stage: MadeStage, today: number): { readonly last: number; readonly rule: number } => {
  const [before, newest] = [stage.changes.at(-2)?.day, stage.changes.at(-1)?.day ?? 0];
  const gap = before === undefined ? stage.templateDays : newest - before;
  return { last: newest + gap - today, rule: newest + stage.templateDays - today };
};
