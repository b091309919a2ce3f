import type { StartState } from './start-state';
import { useEffect, useState } from 'react';
import type { Dust } from '@/core/dust/dust';
import { lastStatement } from '@/core/dust/history';
import type { DustHazard } from '@/core/dust/level';
import type { Machine, MachinePlate } from '@/core/machine/machine';
import { assemble } from '@/core/procedure/assemble';
import { onOneSheet } from '@/core/procedure/on-one-sheet';
import type { JobScope } from '@/core/procedure/choose';
import type { ChangeSchool } from '@/core/procedure/step';
import type { UnitSystem } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { setChoice } from '@/ui/cookies';
import { DustQuestion, dustSaid, KEEP_REFUSAL } from '@/ui/dust/dust-question';
import { FieldProblems, problemsAt } from '@/ui/problems';
import { usePostOnce } from '@/ui/use-post-once';
import { type JobChoice, jobChoices } from './choice';
import { InitialsField } from '@/ui/text-fields';
import { InHand, Sheet } from './Sheet';
import { type Set, Why, What, Way } from './start-questions';

interface StartProps {
  readonly machine: Machine;
  readonly by: string;
  readonly stageId: number | null;
  readonly units: UnitSystem;
  /** Chosen by a link: a job of the whole machine. */
  readonly wanted: string | null;
  readonly ownDusts: readonly Dust[];
}

const cardOf = (machine: MachinePlate, job: JobScope, hazard: DustHazard): string => {
  const query = new URLSearchParams({
    kind: job.kind,
    hazard,
    ...('stage' in job ? { stage: String(job.stage) } : {}),
    ...('school' in job ? { school: job.school } : {}),
  });
  return `/m/${encodeURIComponent(machine.tag)}/card?${query}`;
};

const onSheet = (machine: Machine, way: JobChoice['ways'][number], hazard: DustHazard): boolean => {
  const made = assemble({ ...machine, hazard }, way.job, hazard);
  return made.ok && onOneSheet(made.value, hazard);
};

/** The ledger knows of none: said, and gone past only by saying that it is in the hand. */
const NoStock = ({
  s,
  set,
  problems,
}: {
  readonly s: StartState;
  readonly set: Set;
  readonly problems: readonly Problem[];
}) =>
  problems.length === 0 ? null : (
    <div>
      <FieldProblems id="stock-problems" problems={problems} />
      <InHand shown inHand={s.partInHand} setInHand={(partInHand) => set({ partInHand })} />
    </div>
  );

interface BeginProps {
  readonly s: StartState;
  readonly set: Set;
  readonly people: 1 | 2;
  readonly setPeople: (people: 1 | 2) => void;
  readonly ready: boolean;
  readonly label: string;
  readonly start: () => Promise<void>;
}

const BeginRow = ({ s, set, people, setPeople, ready, label, start }: BeginProps) => (
  <div className="flex flex-wrap items-end gap-2">
    <InitialsField value={s.by} onValue={(by) => set({ by })} />
    <button
      type="button"
      className="choice"
      aria-pressed={people === 2}
      onClick={() => setPeople(people === 2 ? 1 : 2)}
    >
      Two people
    </button>
    <button type="button" className="go flex-1" disabled={!ready} onClick={() => void start()}>
      {label}
    </button>
  </div>
);

interface OtherWaysProps {
  readonly machine: Machine;
  readonly way: JobChoice['ways'][number];
  readonly hazard: DustHazard;
  readonly openSheet: () => void;
}

const OtherWays = ({ machine, way, hazard, openSheet }: OtherWaysProps) => (
  <p className="flex flex-wrap gap-1">
    {onSheet(machine, way, hazard) && (
      <button type="button" className="choice text-sm" onClick={openSheet}>
        Short form on one sheet
      </button>
    )}
    <a className="choice inline-flex items-center text-sm" href={cardOf(machine, way.job, hazard)}>
      Print as a card
    </a>
  </p>
);

const useBegin = (tag: string, s: StartState, people: 1 | 2) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const begin = async (way: JobChoice['ways'][number] | null) => {
    if (!way) return;
    const upper = s.by.trim().toUpperCase();
    const posted = await post(`/api/machines/${encodeURIComponent(tag)}/jobs`, {
      ...s,
      by: upper,
      people,
      job: way.job,
    });
    if (!posted) return;
    if (!posted.ok) {
      setProblems(posted.problems);
      return;
    }
    setChoice('mw_by', upper);
    window.location.reload();
  };
  return { problems, setProblems, begin };
};

/** The start of a guided change: the hazard, the job, the way the maker built it for, and why. */
export const Start = ({ machine, by, stageId, units, wanted, ownDusts }: StartProps) => {
  const [s, setS] = useState<StartState>({
    dust: lastStatement(machine.dust, machine.lastCollected),
    reason: 'precaution',
    by,
    partInHand: false,
  });
  const said = dustSaid({ statement: s.dust, dust: machine.dust, ownDusts });
  const hazard = said.level;
  const choices = jobChoices(machine, hazard);
  const [key, setKey] = useState<string | null>(
    () => choices.find((c) => c.key === `stage-${stageId}` || c.key === wanted)?.key ?? null,
  );
  const chosen: JobChoice | null = choices.find((c) => c.key === key) ?? null;
  const [school, setSchool] = useState<ChangeSchool | null>(null);
  const [people, setPeople] = useState<1 | 2>(1);
  const [sheet, setSheet] = useState(false);
  const { problems, setProblems, begin } = useBegin(machine.tag, s, people);
  useEffect(() => {
    document.documentElement.dataset['job'] = 'ready';
  }, []);
  const way = chosen?.ways.find((w) => w.school === school) ?? chosen?.ways[0] ?? null;
  const set: Set = (over) => setS((now) => ({ ...now, ...over }));
  const start = () => begin(way);
  if (sheet && way)
    return <Sheet machine={{ ...machine, hazard }} way={way} start={s} units={units} onBack={() => setSheet(false)} />;
  const stock = problemsAt(problems, 'partInHand');
  return (
    <div className="grid gap-x-6 gap-y-3 py-2 lg:grid-cols-2">
      <div className="space-y-3">
        <DustQuestion
          legend="1. What has it been collecting?"
          statement={s.dust}
          set={(over) => {
            set({ dust: { ...s.dust, ...over } });
            setProblems([]);
          }}
          said={said}
          problems={problems}
        />
        <Why s={s} set={set} />
      </div>
      <div className="space-y-3">
        <What
          choices={choices}
          chosen={chosen}
          choose={(c) => {
            setKey(c.key);
            setSchool(null);
          }}
        />
        {chosen && way && chosen.ways.length > 1 && <Way chosen={chosen} school={way.school} setSchool={setSchool} />}
        <BeginRow
          s={s}
          set={set}
          people={people}
          setPeople={setPeople}
          ready={way !== null && said.own.toConfirm.length === 0}
          label={said.machine.standing.refusal ? KEEP_REFUSAL : 'Begin'}
          start={start}
        />
        <FieldProblems
          id="start-problems"
          problems={problems.filter((x) => !x.path.startsWith('dust') && x.path !== 'partInHand')}
        />
        <NoStock s={s} set={set} problems={stock} />
        {way && <OtherWays machine={machine} way={way} hazard={hazard} openSheet={() => setSheet(true)} />}
      </div>
    </div>
  );
};
