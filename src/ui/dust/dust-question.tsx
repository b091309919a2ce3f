import { OctagonX, ShieldAlert } from 'lucide-react';
import { type DustStanding, type DustStatement } from '@/core/dust/assess';
import { DUST_ANSWERS, type Dust, type DustQuestion as Asked } from '@/core/dust/dust';
import { type MachineDust, withStatement } from '@/core/dust/history';
import { DUST_HAZARDS, type DustHazard, isBelow } from '@/core/dust/level';
import { registerOf } from '@/core/dust/register';
import {
  ANSWER_WORDS,
  QUESTION_WORDS,
  REFERRAL_WORDS,
  sayDusts,
  sayEquipment,
  sayLevel,
  sayNeededClass,
} from '@/messages/dust';
import type { Problem } from '@/messages/failures';
import { capital, HAZARD_WORDS } from '@/messages/words';
import { FieldProblems, problemsAt } from '../problems';

export interface DustSaid {
  /** The typed statement alone. */
  readonly own: DustStanding;
  /** The machine with it: what governs. */
  readonly machine: MachineDust;
  readonly level: DustHazard;
  readonly register: readonly Dust[];
}

/** The consequences of a statement on a machine, while it is typed: by the functions the server uses. */
export const dustSaid = ({
  statement,
  dust,
  ownDusts,
}: {
  readonly statement: DustStatement;
  readonly dust: MachineDust;
  readonly ownDusts: readonly Dust[];
}): DustSaid => {
  const register = registerOf(ownDusts);
  const machine = withStatement(register, dust, statement);
  const own = machine.collected[0]?.standing ?? machine.standing;
  return { own, machine, level: machine.standing.level, register };
};

interface QuestionProps {
  readonly statement: DustStatement;
  readonly set: (over: Partial<DustStatement>) => void;
  readonly said: DustSaid;
  readonly problems: readonly Problem[];
  readonly legend: string;
}

type Part = Pick<QuestionProps, 'statement' | 'set' | 'said'>;

const Likenesses = ({ statement, set, said }: Part) => (
  <>
    {said.own.toConfirm.map((m) => (
      <div key={m.key} className="border-base-300 flex flex-wrap items-center gap-1 border-b py-1">
        <p className="min-w-0 flex-1 basis-48 font-semibold">
          "{m.words}": is it {said.register.find((d) => d.key === m.key)?.name ?? m.key}?
        </p>
        <button
          type="button"
          className="choice px-4 font-bold"
          onClick={() => set({ confirmed: [...statement.confirmed, m.key] })}
        >
          Yes
        </button>
        <button
          type="button"
          className="choice px-4 font-bold"
          onClick={() => set({ denied: [...statement.denied, m.key] })}
        >
          No
        </button>
      </div>
    ))}
  </>
);

const Questions = ({ statement, set, said }: Part) => {
  const shown: readonly Asked[] = [...new Set([...said.own.questions, ...(Object.keys(statement.answers) as Asked[])])];
  const open = said.own.questions.filter((q) => statement.answers[q] === undefined);
  if (shown.length === 0) return null;
  return (
    <div>
      <p className="tone-watch text-sm font-semibold">
        {said.own.notUnderstood.length > 0 ? `"${said.own.notUnderstood.join(' ')}" is not in the register. ` : ''}
        {open.length > 0 ? 'Contained until this is answered:' : 'Answered:'}
      </p>
      <ul>
        {shown.map((q) => (
          <li key={q} className="border-base-300 flex flex-wrap items-center gap-1 border-b py-1">
            <span className="min-w-0 flex-1 basis-56 text-sm">{QUESTION_WORDS[q]}</span>
            {DUST_ANSWERS.map((a) => (
              <button
                key={a}
                type="button"
                className="choice px-2 text-sm font-semibold"
                aria-pressed={statement.answers[q] === a}
                aria-label={`${ANSWER_WORDS[a]}: ${QUESTION_WORDS[q]}`}
                onClick={() => set({ answers: { ...statement.answers, [q]: a } })}
              >
                {ANSWER_WORDS[a]}
              </button>
            ))}
          </li>
        ))}
      </ul>
      {open.length > 1 && (
        <button
          type="button"
          className="choice mt-1 font-semibold"
          onClick={() => set({ answers: { ...statement.answers, ...Object.fromEntries(open.map((q) => [q, 'no'])) } })}
        >
          None of these
        </button>
      )}
    </div>
  );
};

const Level = ({ statement, set, said, problems }: Part & Pick<QuestionProps, 'problems'>) => {
  const lowers = statement.own !== null && isBelow(statement.own, said.own.byRegister);
  return (
    <div>
      <div className="mt-1 grid grid-cols-3 gap-1">
        {DUST_HAZARDS.map((h) => (
          <button
            key={h}
            type="button"
            className="choice text-center font-semibold"
            aria-pressed={(lowers ? statement.own : said.level) === h}
            onClick={() =>
              set({
                own: h === said.own.byRegister ? null : h,
                ...(isBelow(h, said.own.byRegister) ? {} : { lowerBecause: '' }),
              })
            }
          >
            {HAZARD_WORDS[h]}
          </button>
        ))}
      </div>
      {lowers && (
        <label className="mt-1 block">
          <span className="caption">
            The register says {said.own.byRegister}. Why less? It stays on the machine page with your initials.
          </span>
          <input
            className="field"
            value={statement.lowerBecause}
            maxLength={300}
            onChange={(e) => set({ lowerBecause: e.currentTarget.value })}
          />
        </label>
      )}
      <FieldProblems id="lower-problems" problems={problemsAt(problems, 'dust.lowerBecause')} />
    </div>
  );
};

/** Other dust in the machine that is stricter than the typed one. */
const worseBefore = ({ own, machine, level }: DustSaid): string | null => {
  if (!isBelow(own.level, level)) return null;
  const worse = machine.collected.slice(1).find((c) => c.standing.level === level);
  return worse ? `It collected worse before: ${worse.text}. ${capital(level)} until it is decontaminated.` : null;
};

/** The button where no work may begin: it records the refusal. */
export const KEEP_REFUSAL = 'Record the refusal';

export const Refused = ({ standing }: { readonly standing: Pick<DustStanding, 'refusal'> }) =>
  standing.refusal && (
    <div
      role="alert"
      className="tone-stop mt-1 flex items-start gap-2 border-l-4 pl-2"
      style={{ borderColor: 'var(--color-error)' }}
    >
      <OctagonX size={24} aria-hidden="true" className="mt-0.5 shrink-0" />
      <p>
        <strong className="text-lg">Stop: {standing.refusal.dust}. Nothing here is opened, run or tested.</strong>{' '}
        {REFERRAL_WORDS[standing.refusal.instead]}
      </p>
    </div>
  );

/** The consequences of the typed statement: likenesses, questions, the refusal, or the level with its clothing. */
const Follows = ({ statement, set, said, problems }: Omit<QuestionProps, 'legend'>) => {
  const before = worseBefore(said);
  return (
    <>
      <Likenesses statement={statement} set={set} said={said} />
      <Questions statement={statement} set={set} said={said} />
      <Refused standing={said.machine.standing} />
      {said.machine.standing.refusal === null && (
        <>
          <Level statement={statement} set={set} said={said} problems={problems} />
          <p className="tone-watch mt-1 flex items-start gap-2 text-sm font-semibold" data-dust-level={said.level}>
            <ShieldAlert size={18} aria-hidden="true" className="mt-0.5 shrink-0" />
            <span>
              {sayDusts(said.own)} {before ?? sayLevel(said.own)} {sayEquipment(said.level)}
            </span>
          </p>
          <p className="soft text-sm">{sayNeededClass(said.machine.standing)} Check your local limit and rules.</p>
        </>
      )}
    </>
  );
};

/** The first question of all work: the collected dust, and its consequences. */
export const DustQuestion = ({ legend, ...p }: QuestionProps) => (
  <fieldset className="min-w-0">
    <legend className="mb-1 font-bold">{legend}</legend>
    <input
      className="field"
      aria-label="Last collected"
      value={p.statement.text}
      maxLength={120}
      autoComplete="off"
      onChange={(e) =>
        p.set({ text: e.currentTarget.value, confirmed: [], denied: [], answers: {}, own: null, lowerBecause: '' })
      }
    />
    <FieldProblems
      id="collected-problems"
      problems={p.problems.filter((x) => x.path === 'dust.text' || x.path === 'dust')}
    />
    {p.statement.text.trim() === '' ? (
      <p className="soft text-sm">As you call it: sawdust, old primer, concrete; "nothing yet" if never used.</p>
    ) : (
      <Follows {...p} />
    )}
  </fieldset>
);
