import { Lock } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { addDays } from '@/core/interval/calendar-date';
import { costOf, stockByDay } from '@/core/plan/cost';
import { explainPlan, waysOut } from '@/core/plan/explain';
import { eachOnItsOwnDay } from '@/core/plan/own-day';
import type { PlanDays } from '@/core/plan/problem';
import { type PlanInput, type PlanOptions, type YardProblem, yardProblem } from '@/core/plan/yard-problem';
import { showPercent } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { money, sayReason, sayWayOut } from '@/messages/plan';
import { capital } from '@/messages/words';
import { setChoice } from '@/ui/cookies';
import { FieldProblems } from '@/ui/problems';
import { usePostOnce } from '@/ui/use-post-once';
import { openPlanner, type PlanClient } from '@/workers/plan-client';
import { type ChipProps, Lanes } from './Lanes';
import { dayText, namesOf, nextOpenDay, type Opening, openingsOf } from './openings';

interface PlanProps {
  readonly input: PlanInput;
  readonly options: PlanOptions;
  readonly days: PlanDays;
  readonly today: string;
  readonly by: string;
}

const WEEKS = [4, 8, 12, 26, 52] as const;
/** Rounds the worker goes on for. */
const ROUNDS = 3000;

const StockLines = ({ made, days }: { readonly made: YardProblem; readonly days: PlanDays }) => {
  const horizon = made.problem.minutes.length;
  const lines = made.problem.parts
    .map((p, i) => ({
      part: p,
      line: stockByDay(made.problem, days, i),
      uses: made.problem.tasks.some((t) => t.part?.index === i),
    }))
    .filter((l) => l.uses)
    .sort((a, b) => Math.min(...a.line) - Math.min(...b.line))
    .slice(0, 5);
  return (
    <div role="group" aria-label="Stock under the plan">
      {lines.map(({ part, line }) => {
        const top = Math.max(1, ...line);
        const path = line
          .map((v, day) => `${day === 0 ? 'M' : 'H'}${(100 * day) / horizon} V${20 - (18 * v) / top}`)
          .join(' ')
          .replace(/^M([\d.]+) V/, 'M$1 ');
        return (
          <div key={part.id} className="grid grid-cols-[6.5rem_minmax(0,1fr)] items-center">
            <span className="truncate pr-1 text-xs font-semibold">
              <span className="dial">{part.onHand}</span> →{' '}
              <span className={`dial ${(line.at(-1) ?? 0) <= 0 ? 'tone-stop' : ''}`}>{line.at(-1)}</span> {part.id}
            </span>
            <svg
              viewBox="0 0 100 22"
              preserveAspectRatio="none"
              className="border-base-300 h-5 w-full border-b"
              aria-hidden="true"
            >
              <path
                d={`${path} H100`}
                fill="none"
                stroke="currentColor"
                strokeWidth="1.5"
                vectorEffect="non-scaling-stroke"
              />
            </svg>
          </div>
        );
      })}
    </div>
  );
};

interface DetailProps extends Omit<ChipProps, 'chosen' | 'choose'> {
  readonly days: PlanDays;
  readonly free: () => void;
  readonly words: Parameters<typeof sayReason>[1];
  readonly input: PlanInput;
}

const Detail = ({ opening, made, today, days, shift, free, words, input }: DetailProps) => {
  const reasons = explainPlan(made.problem, days);
  return (
    <section className="panel p-3" aria-labelledby="opening">
      <h2 id="opening" className="text-lg leading-tight font-bold">
        {opening.tag}, {dayText(today, opening.day)}: {opening.minutes} minutes, one opening
      </h2>
      <ul>
        {opening.tasks.map((i) => {
          const stage = made.stages[i];
          const reason = reasons[i];
          const part = stage?.part === null || !stage ? null : input.parts[stage.part];
          return stage ? (
            <li key={stage.stageId} className="border-base-300 border-b py-1 text-sm">
              <strong>{capital(stage.name)}</strong>
              {part ? ` · ${part.name}, bin ${part.bin}` : ''}
              {reason && <span className="soft block">{sayReason(reason, words)}</span>}
            </li>
          ) : null;
        })}
      </ul>
      <div className="mt-2 flex flex-wrap gap-1">
        <button type="button" className="choice font-semibold" onClick={() => shift(-1)}>
          A day sooner
        </button>
        <button type="button" className="choice font-semibold" onClick={() => shift(1)}>
          A day later
        </button>
        {opening.locked && (
          <button type="button" className="choice font-semibold" onClick={free}>
            Set free
          </button>
        )}
        <a
          className="choice inline-flex items-center font-semibold"
          href={`/m/${encodeURIComponent(opening.tag)}/job?stage=${made.stages[opening.tasks[0] ?? -1]?.stageId ?? ''}`}
        >
          To the change
        </a>
      </div>
    </section>
  );
};

interface ControlsProps {
  readonly options: PlanOptions;
  readonly setOptions: (o: PlanOptions) => void;
  readonly by: string;
  readonly setBy: (by: string) => void;
  readonly working: boolean;
  readonly rounds: number;
  /** null until there is a plan to stop at. */
  readonly stop: (() => void) | null;
}

const Controls = ({ options, setOptions, by, setBy, working, rounds, stop }: ControlsProps) => (
  <div className="mt-2 flex flex-wrap items-end gap-2">
    <div role="group" aria-label="Weeks" className="flex gap-1">
      {WEEKS.map((w) => (
        <button
          key={w}
          type="button"
          className="choice font-semibold"
          aria-pressed={options.weeks === w}
          onClick={() => setOptions({ ...options, weeks: w })}
        >
          {w} weeks
        </button>
      ))}
    </div>
    <label className="block w-28">
      <span className="caption">Minutes a day</span>
      <input
        className="field"
        type="number"
        min={0}
        max={1440}
        value={options.minutesADay}
        onChange={(e) =>
          setOptions({ ...options, minutesADay: Math.min(1440, Math.max(0, Number(e.currentTarget.value) || 0)) })
        }
      />
    </label>
    <label className="block w-20">
      <span className="caption">Initials</span>
      <input
        className="field"
        value={by}
        maxLength={12}
        autoComplete="off"
        onChange={(e) => setBy(e.currentTarget.value)}
      />
    </label>
    {working && (
      <span className="flex items-center gap-2 text-sm font-semibold" role="status">
        Planning, round {rounds}{' '}
        {stop && (
          <button type="button" className="choice" onClick={stop}>
            Stop here
          </button>
        )}
      </span>
    )}
  </div>
);

/** Locks laid over what the server knew, until the page is drawn anew. */
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

const usePlan = (p: PlanProps) => {
  const [options, setOptions] = useState(p.options);
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
    planner.plan(made.problem, ROUNDS);
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

/** The plan, with what it saves. */
const PlanOfYard = (p: PlanProps) => {
  const { options, setOptions, locks, setLocks, input, made, days, fits, working, rounds, stop } = usePlan(p);
  const [chosen, setChosen] = useState<string | null>(null);
  const [by, setBy] = useState(p.by);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const openings = openingsOf(made, days);
  const opening = openings.find((o) => o.key === chosen) ?? null;
  const plan = costOf(made.problem, days);
  // Held against the same tasks: what has no day in the plan is not counted in the other either.
  const own = costOf(
    made.problem,
    eachOnItsOwnDay(made.problem).map((d, i) => ((days[i] ?? null) === null ? null : d)),
  );
  // Before the first plan of a new problem is there, nothing can be said of what does not fit.
  const ways = fits ? waysOut(made.problem, days) : [];
  const stageOf = (task: string) => made.stages.find((s) => String(s.stageId) === task);
  const words = {
    nameOf: (t: string) => stageOf(t)?.name ?? 'stage',
    dateOf: (d: number) => dayText(p.today, d),
    partOf: (c: string) => input.parts.find((x) => x.id === c)?.name ?? c,
  };
  const wordsTagged = { ...words, nameOf: (t: string) => `${stageOf(t)?.name ?? 'stage'} of ${stageOf(t)?.tag ?? ''}` };
  const fix = async (o: Opening, day: number | null) => {
    const ids = o.tasks.flatMap((i) => made.stages[i]?.stageId ?? []);
    const initials = by.trim().toUpperCase();
    const posted = await post('/api/plan/locks', {
      by: initials,
      locks: ids.map((stageId) => ({ stageId, day: day === null ? null : addDays(p.today, day) })),
    });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (!posted.ok) return;
    setChoice('mw_by', initials);
    setChosen(day === null ? o.key : `${o.machine}-${day}`);
    setLocks(new Map([...locks, ...ids.map((id) => [id, day] as const)]));
  };
  const shift = (o: Opening) => (step: 1 | -1) => {
    const day = nextOpenDay(made.problem, o.day, step);
    if (day !== null) void fix(o, day);
  };
  const moved = (o: Opening, by_: number) => {
    const { minutes } = made.problem;
    const target = Math.min(minutes.length - 1, Math.max(0, o.day + by_));
    const day = (minutes[target] ?? 0) > 0 ? target : nextOpenDay(made.problem, target, 1);
    if (day !== null && day !== o.day) void fix(o, day);
  };
  const sentence = !fits
    ? 'Planning...'
    : openings.length === 0
      ? 'Nothing is reached in these weeks.'
      : `${openings.length} openings in ${options.weeks} weeks instead of ${own.openings}${ways.length > 0 ? `; ${ways.length} cannot be done yet` : ''}.`;
  return (
    <div className="px-3 py-3 sm:px-5">
      <p className="caption">Plan of the yard, from {dayText(p.today, 0)}</p>
      <h1 className="text-2xl leading-tight font-bold sm:text-3xl">{sentence}</h1>
      <p className="soft text-sm">
        Cost {money(plan.total)} against {money(own.total)} with each rule on its own day; chance of being past a limit{' '}
        {showPercent(plan.overrunChance)} against {showPercent(own.overrunChance)}. A model with its prices, not a
        promise.{' '}
        <a className="underline" href="/api/plan/calendar.ics">
          Calendar feed
        </a>{' '}
        ·{' '}
        <a className="underline" href="/outbox">
          Outbox
        </a>
      </p>
      <Controls
        options={options}
        setOptions={setOptions}
        by={by}
        setBy={setBy}
        working={working}
        rounds={rounds}
        stop={fits ? stop : null}
      />
      <FieldProblems id="plan-problems" problems={problems} />
      {ways.length > 0 && (
        <ul className="tone-stop mt-2 text-sm font-semibold">
          {ways.map((w) => (
            <li key={w.task}>
              {sayWayOut(w, wordsTagged)}
              {w.kind === 'part' && (
                <>
                  {' '}
                  <a className="underline" href="/stock">
                    Stock
                  </a>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="mt-2 hidden sm:block">
          <Lanes
            made={made}
            input={input}
            today={p.today}
            openings={openings}
            chosen={chosen}
            choose={setChosen}
            shift={shift}
            moved={moved}
          />
          <p className="caption mt-2">Stock under the plan, with what is on order</p>
          <StockLines made={made} days={days} />
        </div>
        <div className="mt-2 space-y-3">
          {opening ? (
            <Detail
              opening={opening}
              made={made}
              today={p.today}
              days={days}
              shift={shift(opening)}
              free={() => void fix(opening, null)}
              words={words}
              input={input}
            />
          ) : (
            <p className="soft text-sm">
              Choose an opening to see why it sits there. Drag it, or use the arrow keys: it is then fixed on that day,
              and the rest is planned around it. Bars are where a limit most likely lies (10 to 90 %), the tick its
              middle; rust is past.
            </p>
          )}
          <section aria-labelledby="list">
            <h2 id="list" className="caption">
              In order
            </h2>
            <ul>
              {openings.map((o) => (
                <li key={o.key}>
                  <button
                    type="button"
                    className={`hover:bg-base-200 grid min-h-11 w-full grid-cols-[5.5rem_4rem_minmax(0,1fr)] items-center gap-1 text-left text-sm ${o.key === chosen ? 'bg-base-200' : ''}`}
                    onClick={() => setChosen(o.key)}
                  >
                    <span>{dayText(p.today, o.day)}</span>
                    <span className="dial">{o.tag}</span>
                    <span className="min-w-0 truncate">
                      {o.locked && <Lock size={12} aria-label="fixed" className="mr-1 inline" />}
                      {namesOf(made, o)}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        </div>
      </div>
    </div>
  );
};

/** The weeks of the yard: windows of chance, openings that may be moved, stock under them, and what the plan saves. */
export const Plan = (p: PlanProps) =>
  p.input.machines.length > 0 ? (
    <PlanOfYard {...p} />
  ) : (
    <div className="px-3 py-3 sm:px-5">
      <p className="caption">Plan of the yard</p>
      <h1 className="text-2xl font-bold">No machine yet.</h1>
      <p className="soft">
        Enter the first one, or try <code>npm run demo</code> to see a yard at work.
      </p>
    </div>
  );
