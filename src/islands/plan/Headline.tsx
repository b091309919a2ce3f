import { useMemo } from 'react';
import { costOf } from '@/core/plan/cost';
import type { PlanCost } from '@/core/plan/problem';
import { bookPlan } from '@/core/plan/planner';
import type { PlanDays } from '@/core/plan/problem';
import type { YardProblem } from '@/core/plan/yard-problem';
import { showPercent } from '@/core/units';
import { type PlannedOpening } from '@/core/plan/planned-openings';
import { dayText } from './openings';
import { money } from '@/messages/format';

interface HeadlineProps {
  readonly made: YardProblem;
  readonly days: PlanDays;
  readonly fits: boolean;
  readonly openings: readonly PlannedOpening[];
  readonly today: string;
  readonly unplanned: number;
  readonly currency: string;
}

const overdueChance = (plan: PlanCost, own: PlanCost): string => {
  const [here, there] = [showPercent(plan.overrunChance), showPercent(own.overrunChance)];
  return here === there ? `${here} either way` : `${here} instead of ${there}`;
};

const moneyOf = ({ openingCost, wasteCost, overrunCost }: PlanCost): number => openingCost + wasteCost + overrunCost;

/** A plan that is worse than each part on its own day is not proposed: then it is that plan. */
const againstBook = (here: PlanCost, own: PlanCost, currency: string): string => {
  if (moneyOf(own) > moneyOf(here))
    return `changing each part on its own due day would cost ${money(moneyOf(own), currency)}.`;
  return own.lateCost > here.lateCost
    ? `changing each part on its own due day would cost ${money(moneyOf(own), currency)}, but past a last day.`
    : 'changing each part on its own due day costs the same or less.';
};

export const Headline = ({ made, days, fits, openings, today, unplanned, currency }: HeadlineProps) => {
  const plan = costOf(made.problem, days);
  // Compared for the same tasks: a task without a day in one of the two plans is left out of both.
  const book = useMemo(() => bookPlan(made.problem), [made]);
  const both = (of: PlanDays, other: PlanDays): PlanCost =>
    costOf(
      made.problem,
      of.map((d, i) => ((other[i] ?? null) === null ? null : d)),
    );
  const [here, own] = [both(days, book), both(book, days)];
  const weeks = Math.round(made.problem.minutes.length / 7);
  const sentence = !fits
    ? 'Planning...'
    : openings.length === 0
      ? 'Nothing is due in these weeks.'
      : `${openings.length} openings in ${weeks} weeks${own.openings === openings.length ? '' : ` instead of ${own.openings}`}${unplanned > 0 ? `; ${unplanned} cannot be done yet` : ''}.`;
  return (
    <>
      <p className="caption">Plan of the yard, from {dayText(today, 0)}</p>
      <h1 className="text-2xl leading-tight font-bold sm:text-3xl">{sentence}</h1>
      <p className="soft text-sm">
        Estimated cost {money(moneyOf(plan), currency)}; {againstBook(here, own, currency)} Chance of something being
        overdue: {overdueChance(here, own)}.{' '}
        <a className="underline" href="/api/plan/calendar.ics">
          Calendar feed
        </a>{' '}
        ·{' '}
        <a className="underline" href="/outbox">
          Outbox
        </a>
      </p>
    </>
  );
};
