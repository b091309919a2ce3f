import { useState } from 'react';
import { assemble } from '@/core/procedure/assemble';
import type { Machine, MachineAirPath } from '@/core/machine/machine';
import { provedBy, type Step } from '@/core/procedure/step';
import type { UnitSystem } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { CAUTION_WORDS, CHECK_WORDS, PROCEDURE_WORDS, thingAt } from '@/messages/procedure';
import { capital } from '@/messages/words';
import { setChoice } from '@/ui/cookies';
import { FieldProblems, problemsAt } from '@/ui/problems';
import { QuantityField } from '@/ui/quantity-field';
import { usePostOnce } from '@/ui/use-post-once';
import type { JobChoice } from './choice';
import type { StartState } from './start-state';

interface SheetProps {
  readonly machine: Machine;
  readonly way: JobChoice['ways'][number];
  readonly start: StartState;
  readonly units: UnitSystem;
  readonly onBack: () => void;
}

type Answer = { readonly kind: 'right' } | { readonly kind: 'leftOut'; readonly because: string } | null;

const askOf = (step: Step): string => (step.check ? CHECK_WORDS[step.check] : '');

const Line = ({
  question,
  answer,
  setAnswer,
}: {
  readonly question: string;
  readonly answer: Answer;
  readonly setAnswer: (a: Answer) => void;
}) => (
  <li className="border-base-300 flex flex-wrap items-center gap-2 border-b py-1">
    <span className="min-w-0 flex-1 basis-56 font-semibold">{question}</span>
    <button
      type="button"
      className="choice w-20 text-center font-bold"
      aria-pressed={answer?.kind === 'right'}
      onClick={() => setAnswer({ kind: 'right' })}
    >
      Yes
    </button>
    <button
      type="button"
      className="choice text-sm"
      aria-pressed={answer?.kind === 'leftOut'}
      onClick={() => setAnswer({ kind: 'leftOut', because: '' })}
    >
      Not checked
    </button>
    {answer?.kind === 'leftOut' && (
      <input
        className="field basis-full"
        aria-label={`Why: ${question}`}
        placeholder="why"
        value={answer.because}
        maxLength={300}
        onChange={(e) => setAnswer({ kind: 'leftOut', because: e.currentTarget.value })}
      />
    )}
  </li>
);

interface InHandProps {
  readonly shown: boolean;
  readonly inHand: boolean;
  readonly setInHand: (inHand: boolean) => void;
}

/** The ledger has none: gone past only by saying that it is in the hand. */
export const InHand = ({ shown, inHand, setInHand }: InHandProps) =>
  shown && (
    <label className="flex min-h-11 items-center gap-2 font-semibold">
      <input
        type="checkbox"
        className="checkbox"
        checked={inHand}
        onChange={(e) => setInHand(e.currentTarget.checked)}
      />{' '}
      I have one in my hand
    </label>
  );

/** What of a procedure the sheet asks: its checks, and the proof of its class. */
const questionsOf = (machine: Machine, way: SheetProps['way']) => {
  const assembled = assemble(machine, way.job, machine.hazard);
  const steps = assembled.ok ? assembled.value.steps : [];
  return {
    asked: steps.filter((s) => s.check !== undefined || provedBy(s) !== null),
    cautions: [...new Set(steps.flatMap((s) => (s.caution ? [CAUTION_WORDS[s.caution]] : [])))],
  };
};

const questionAt = (machine: MachineAirPath, step: Step): string => {
  const stage = step.stage === null ? undefined : machine.stages[step.stage];
  return `${stage ? `${capital(thingAt(stage))}: ` : ''}${askOf(step)}`;
};

/** A whole change on one sheet: every question in a row, each answered by itself, none beforehand. */
export const Sheet = ({ machine, way, start, units, onBack }: SheetProps) => {
  const { asked, cautions } = questionsOf(machine, way);
  const [answers, setAnswers] = useState<readonly Answer[]>(() => asked.map(() => null));
  const [wasteKg, setWasteKg] = useState<number | null>(null);
  const [bad, setBad] = useState(false);
  const [inHand, setInHand] = useState(start.partInHand);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const whole = !bad && answers.every((a) => a !== null && (a.kind === 'right' || a.because.trim() !== ''));
  const left = answers.filter((a) => a === null).length;
  const record = async () => {
    const by = start.by.trim().toUpperCase();
    const posted = await post(`/api/machines/${encodeURIComponent(machine.tag)}/jobs/quick`, {
      ...start,
      by,
      partInHand: inHand,
      job: way.job,
      answers,
      wasteKg,
    });
    if (!posted) return;
    if (!posted.ok) {
      setProblems(posted.problems);
      return;
    }
    setChoice('mw_by', by);
    window.location.assign(`/m/${encodeURIComponent(machine.tag)}/jobs/${posted.reply.id}`);
  };
  return (
    <section className="mx-auto max-w-3xl py-3" aria-labelledby="sheet">
      <h2 id="sheet" className="text-2xl font-bold">
        {PROCEDURE_WORDS[way.id]}: check each one
      </h2>
      <p className="soft text-sm">{cautions.join(' ')}</p>
      <ol className="mt-2">
        {asked.map((s, i) => (
          <Line
            key={`${s.key}-${s.check}-${s.stage}`}
            question={questionAt(machine, s)}
            answer={answers[i] ?? null}
            setAnswer={(a) => setAnswers((now) => now.map((x, k) => (k === i ? a : x)))}
          />
        ))}
      </ol>
      <div className="mt-3 flex flex-wrap items-end gap-2">
        <div className="w-40">
          <QuantityField
            id="sheet-waste"
            label="Waste, if weighed"
            kind="mass"
            valueSi={wasteKg}
            units={units}
            low={0.001}
            high={500}
            mayBeEmpty
            onValue={setWasteKg}
            onBad={(_, isBad) => setBad(isBad)}
          />
        </div>
        <button
          type="button"
          className="go flex-1"
          disabled={!whole || start.by.trim() === ''}
          onClick={() => void record()}
        >
          {left > 0 ? `${left} to answer` : 'Record the whole change'}
        </button>
        <button type="button" className="choice" onClick={onBack}>
          Back
        </button>
      </div>
      <InHand shown={problemsAt(problems, 'partInHand').length > 0} inHand={inHand} setInHand={setInHand} />
      {start.by.trim() === '' && <p className="tone-watch font-semibold">Go back and give your initials.</p>}
      <FieldProblems id="sheet-problems" problems={problems} />
    </section>
  );
};
