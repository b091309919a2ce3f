import { useEffect, useMemo, useRef, useState } from 'react';
import type { PlanPageJson } from '@/contracts/plan';
import type { PlanDays } from '@/core/plan/problem';
import { roundsFor } from '@/core/plan/planner';
import { type PlanInput, type PlanOptions, type YardProblem, yardProblem } from '@/core/plan/yard-problem';
import { openPlanner, type PlanClient } from '@/workers/plan-client';

/** Seconds of search in the worker. It stops earlier when nothing is left to try, and on request. */
const SECONDS = 6;

export interface PlanProps extends PlanPageJson {
  /** Currency sign before an amount; '' when not set. */
  readonly currency: string;
  readonly by: string;
}

/** Local locks that override the server's, until the page is reloaded. */
const withLocks = (input: PlanInput, locks: ReadonlyMap<number, number | null>): PlanInput => ({
  ...input,
  machines: input.machines.map((m) => ({
    ...m,
    stages: m.stages.map((s) => ({
      ...s,
      lockedDay: locks.has(s.stageId) ? (locks.get(s.stageId) ?? null) : s.lockedDay,
    })),
  })),
});

/** The plan of the yard with the present options and locks, computed in a worker. */
export const usePlan = (p: PlanProps) => {
  const [options, setOptions] = useState<PlanOptions>(p.options);
  const [locks, setLocks] = useState<ReadonlyMap<number, number | null>>(new Map());
  const input = useMemo(() => withLocks(p.input, locks), [p.input, locks]);
  const made = useMemo(() => yardProblem(input, options), [input, options]);
  const [result, setResult] = useState<{
    readonly days: PlanDays;
    readonly rounds: number;
    readonly done: boolean;
    readonly of: YardProblem;
  }>({ days: p.days, rounds: 0, done: true, of: made });
  const client = useRef<PlanClient | null>(null);
  const first = useRef(true);
  useEffect(() => {
    if (first.current) {
      first.current = false;
      document.documentElement.dataset['plan'] = 'ready';
      return;
    }
    document.documentElement.dataset['plan'] = 'busy';
    const planner = openPlanner((reply) => {
      setResult({ days: reply.days, rounds: reply.rounds, done: reply.done, of: made });
      if (reply.done) document.documentElement.dataset['plan'] = 'ready';
    });
    client.current = planner;
    planner.plan(made.problem, roundsFor(made.problem, SECONDS));
    return () => planner.stop();
  }, [made]);
  const stop = () => {
    client.current?.stop();
    setResult((r) => ({ ...r, done: true }));
    document.documentElement.dataset['plan'] = 'ready';
  };
  // Until the first answer of a new problem is there, the old plan does not fit it.
  const fits = result.of === made && result.days.length === made.problem.tasks.length;
  return {
    options,
    setOptions,
    locks,
    setLocks,
    input,
    made,
    days: fits ? result.days : made.problem.tasks.map((t) => t.lockedDay),
    fits,
    working: !fits || !result.done,
    rounds: fits ? result.rounds : 0,
    stop,
  };
};
