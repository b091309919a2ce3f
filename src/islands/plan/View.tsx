import { Lock } from 'lucide-react';
import { useEffect, useState } from 'react';
import { PlanPageJson } from '@/contracts/plan';
import { addDays } from '@/core/calendar/calendar-date';
import { waysOut } from '@/core/plan/explain';
import type { PlanInput, YardProblem } from '@/core/plan/yard-problem';
import type { Problem } from '@/messages/failures';
import { CannotBeDone } from './CannotBeDone';
import { setChoice } from '@/ui/cookies';
import { FieldProblems } from '@/ui/problems';
import { usePostOnce } from '@/ui/use-post-once';
import { Controls } from './Controls';
import { Crew } from './Crew';
import { Examinations } from './Examinations';
import { Lanes } from './Lanes';
import { Moves } from './Moves';
import { Detail } from './OpeningDetail';
import { nextOpenDay, type PlannedOpening, plannedOpenings } from '@/core/plan/planned-openings';
import { dayText, namesOf } from './openings';
import { StockLines } from './StockLines';
import { Year } from './Year';
import { type PlanProps, usePlan } from './use-plan';
import { Headline } from './Headline';

interface InOrderProps {
  readonly made: YardProblem;
  readonly openings: readonly PlannedOpening[];
  readonly today: string;
  readonly chosen: string | null;
  readonly choose: (key: string) => void;
}

const InOrder = ({ made, openings, today, chosen, choose }: InOrderProps) => (
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
            onClick={() => choose(o.key)}
          >
            <span>{dayText(today, o.day)}</span>
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
);

interface LocksUse {
  readonly p: PlanProps;
  readonly made: YardProblem;
  readonly by: string;
  readonly setLocks: ReturnType<typeof usePlan>['setLocks'];
  readonly setChosen: (key: string) => void;
}

/** Fixes openings on a day and sets them free again, each as one entry of the server's. */
const useLocks = ({ p, made, by, setLocks, setChosen }: LocksUse) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const fix = async (o: PlannedOpening, day: number | null) => {
    // Only the interval that runs can be fixed on a day: those after it follow.
    const ids = o.tasks.flatMap((i) => {
      const stage = made.stages[i];
      return stage?.turn === 1 ? [stage.stageId] : [];
    });
    if (ids.length === 0) return;
    if (await fixStages(ids, day)) setChosen(day === null ? o.key : `${o.machine}-${day}`);
  };
  const fixStages = async (ids: readonly number[], day: number | null): Promise<boolean> => {
    const initials = by.trim().toUpperCase();
    const posted = await post('/api/plan/locks', {
      by: initials,
      locks: ids.map((stageId) => ({ stageId, day: day === null ? null : addDays(p.today, day) })),
    });
    if (!posted) return false;
    setProblems(posted.ok ? [] : posted.problems);
    if (!posted.ok) return false;
    setChoice('mw_by', initials);
    setLocks((locks) => new Map([...locks, ...ids.map((id) => [id, day] as const)]));
    return true;
  };
  const shift = (o: PlannedOpening) => (step: 1 | -1) => {
    const day = nextOpenDay(made.problem, o.day, step);
    if (day !== null) void fix(o, day);
  };
  const moved = (o: PlannedOpening, daysLater: number) => {
    const { minutes } = made.problem;
    const target = Math.min(minutes.length - 1, Math.max(0, o.day + daysLater));
    const day = (minutes[target] ?? 0) > 0 ? target : nextOpenDay(made.problem, target, 1);
    if (day !== null && day !== o.day) void fix(o, day);
  };
  return { problems, fix, fixStages, shift, moved };
};

const HowToRead = () => (
  <p className="soft text-sm">
    Choose an opening to see why it is on that day. Drag it or use the arrow keys to fix it on another day; the rest is
    planned around it. A bar shows where a limit most likely lies (10 to 90 %), its tick the middle; red-brown is
    overdue. Narrow marks are later changes: each follows the one before it.
  </p>
);

/** Names and dates for the sentences of the plan: a stage alone, and with its machine. */
const wordsOf = (p: PlanProps, input: PlanInput, made: YardProblem) => {
  const stageOf = (task: string) => made.stages[made.problem.tasks.findIndex((t) => t.id === task)];
  const words = {
    currency: p.currency,
    nameOf: (t: string) => stageOf(t)?.name ?? 'stage',
    dateOf: (d: number) => dayText(p.today, d),
    partOf: (c: string) => input.parts.find((x) => x.id === c)?.name ?? c,
  };
  const wordsTagged = { ...words, nameOf: (t: string) => `${stageOf(t)?.name ?? 'stage'} of ${stageOf(t)?.tag ?? ''}` };
  return { words, wordsTagged };
};

/** The plan, with its saving. */
const PlanOfYard = (p: PlanProps) => {
  const { options, setOptions, setLocks, input, made, days, fits, working, rounds, stop } = usePlan(p);
  const [chosen, setChosen] = useState<string | null>(null);
  const [by, setBy] = useState(p.by);
  const openings = plannedOpenings(made, days);
  const opening = openings.find((o) => o.key === chosen) ?? null;
  // Before the first plan of a new problem, tasks that do not fit are unknown.
  const ways = fits ? waysOut(made.problem, days) : [];
  const { words, wordsTagged } = wordsOf(p, input, made);
  const { problems, fix, fixStages, shift, moved } = useLocks({ p, made, by, setLocks, setChosen });
  return (
    <div className="px-3 py-3 sm:px-5">
      <Headline
        made={made}
        days={days}
        fits={fits}
        openings={openings}
        today={p.today}
        unplanned={ways.length}
        currency={p.currency}
      />
      <Controls
        options={options}
        byPeople={input.crew !== null}
        setOptions={setOptions}
        by={by}
        setBy={setBy}
        working={working}
        rounds={rounds}
        stop={fits ? stop : null}
      />
      <FieldProblems id="plan-problems" problems={problems} />
      <CannotBeDone problem={made.problem} ways={ways} words={wordsTagged} />
      <Moves moves={p.moves} />
      <Crew crew={p.crew} today={p.today} by={by} />
      <Examinations
        input={input}
        made={made}
        days={days}
        today={p.today}
        fixOn={(ids, day) => void fixStages(ids, day)}
      />
      <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="mt-2">
          <div className="hidden sm:block">
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
          <Year input={input} options={options} today={p.today} currency={p.currency} />
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
            <HowToRead />
          )}
          <InOrder made={made} openings={openings} today={p.today} chosen={chosen} choose={setChosen} />
        </div>
      </div>
    </div>
  );
};

type Fetched =
  { readonly is: 'there'; readonly page: PlanPageJson } | { readonly is: 'awaited' } | { readonly is: 'missing' };

/** The plan of a large yard comes after its page. */
const useFetched = (page: PlanPageJson | null): Fetched => {
  const [fetched, setFetched] = useState<Fetched>(page ? { is: 'there', page } : { is: 'awaited' });
  useEffect(() => {
    if (page) return;
    fetch('/api/plan/page')
      .then(async (r) => setFetched({ is: 'there', page: PlanPageJson.parse(await r.json()) }))
      .catch(() => setFetched({ is: 'missing' }));
  }, [page]);
  return fetched;
};

interface PageProps {
  /** Null where the yard is large: then it is fetched. */
  readonly page: PlanPageJson | null;
  readonly by: string;
  /** Currency sign before an amount; '' when not set. */
  readonly currency: string;
}

const Notice = ({ title, text }: { readonly title: string; readonly text: string }) => (
  <div className="px-3 py-3 sm:px-5" role="status">
    <p className="caption">Plan of the yard</p>
    <h1 className="text-2xl font-bold">{title}</h1>
    <p className="soft">{text}</p>
  </div>
);

/** The weeks of the yard: windows of chance, openings that may be moved, stock under them, and what the plan saves. */
export const Plan = ({ page, by, currency }: PageProps) => {
  const fetched = useFetched(page);
  if (fetched.is === 'awaited')
    return (
      <Notice title="Planning..." text="A large yard takes some seconds, the first time each day up to a minute." />
    );
  if (fetched.is === 'missing')
    return <Notice title="The plan did not come." text="Reload the page. Nothing that was recorded is lost." />;
  if (fetched.page.input.machines.length === 0)
    return <Notice title="No machine yet." text="Enter the first one, or try npm run demo to see a yard at work." />;
  return (
    <>
      {fetched.page.behind && (
        <p role="status" className="tone-watch px-3 pt-3 font-bold sm:px-5">
          This plan was made before the newest entry; a new one is being made. Reload the page in a moment.
        </p>
      )}
      <PlanOfYard {...fetched.page} by={by} currency={currency} />
    </>
  );
};
