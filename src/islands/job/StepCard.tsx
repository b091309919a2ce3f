import { Hand, ShieldAlert } from 'lucide-react';
import { useState } from 'react';
import { handsOf } from '@/core/procedure/air-now';
import { PROOF_CHECKS, provedBy, type Step } from '@/core/procedure/step';
import { RUN_SHORT } from '@/messages/job';
import { CAUTION_WORDS, CHECK_WORDS, IF_NOT, WHY_WORDS } from '@/messages/procedure';
import { sayStepOf } from '@/messages/step-words';
import { SeatDrawing } from '@/ui/seat-drawing';
import { Drying } from './Drying';
import { Integrity } from './Integrity';
import { type Acting, nameAt, type PlayerProps, stageAt } from './player-props';

/** Left out, with its reason on record. */
export const LeaveOut = ({
  act,
  sending,
  step,
  word,
}: Pick<Acting, 'act' | 'sending'> & { readonly step: number; readonly word: string }) => {
  const [because, setBecause] = useState('');
  const [leaving, setLeaving] = useState(false);
  if (!leaving)
    return (
      <button type="button" className="choice mt-2" onClick={() => setLeaving(true)}>
        {word}
      </button>
    );
  return (
    <div className="mt-2 flex items-end gap-2">
      <label className="block flex-1">
        <span className="caption">Why is it left out? It is recorded.</span>
        <input className="field" value={because} maxLength={300} onChange={(e) => setBecause(e.currentTarget.value)} />
      </label>
      <button
        type="button"
        className="choice font-semibold"
        disabled={sending || because.trim() === ''}
        onClick={() => act({ kind: 'leftOut', step, because })}
      >
        Leave it out
      </button>
    </div>
  );
};

/** A check as a question: right, not right, or left out with its reason; nothing is taken as seen beforehand. */
const Answer = ({ state, act, sending, step, turns }: Acting & { readonly step: number; readonly turns: boolean }) => (
  <>
    {state.wrong === step && (
      <p role="alert" className="tone-stop mt-2 font-bold">
        {IF_NOT[state.steps[step]?.check ?? 'seal1'] ?? 'Not right: fix it, then answer again.'}
      </p>
    )}
    <div className="mt-3 grid grid-cols-2 gap-1">
      <button
        type="button"
        className="go min-h-16 text-xl"
        disabled={sending}
        onClick={() => act({ kind: 'answered', step, right: true, note: '' })}
      >
        Yes
      </button>
      {turns ? (
        <button
          type="button"
          className="choice min-h-16 text-center font-bold"
          disabled={sending}
          onClick={() => act({ kind: 'turnedBack', step })}
        >
          No: put the old one back
        </button>
      ) : (
        <button
          type="button"
          className="choice min-h-16 text-center text-xl font-bold"
          disabled={sending}
          onClick={() => act({ kind: 'answered', step, right: false, note: '' })}
        >
          No
        </button>
      )}
    </div>
    <LeaveOut act={act} sending={sending} step={step} word="I cannot look" />
  </>
);

/** A part from the shelf: its code may be read off the pack, and a wrong one is refused. */
const Take = ({ p, step, at }: { readonly p: PlayerProps; readonly step: Step; readonly at: number }) => {
  const [code, setCode] = useState('');
  const part = stageAt(p, step.stage)?.part;
  return (
    <div className="mt-3 flex flex-wrap items-end gap-2">
      {part && (
        <label className="block w-48">
          <span className="caption">Code on the pack (may be empty)</span>
          <input
            className="field"
            value={code}
            maxLength={40}
            placeholder={part.code}
            autoComplete="off"
            onChange={(e) => setCode(e.currentTarget.value)}
          />
        </label>
      )}
      <button
        type="button"
        className="go min-h-16 flex-1 text-xl"
        disabled={p.sending}
        onClick={() => p.act({ kind: 'did', step: at }, code)}
      >
        Taken
      </button>
    </div>
  );
};

const Prove = ({ p, step, at }: { readonly p: PlayerProps; readonly step: Step; readonly at: number }) => {
  const stage = stageAt(p, step.stage);
  const all = p.reply.integrity.find((i) => i.stageId === stage?.id);
  const proves = provedBy(step) ?? [];
  const standing = all && { ...all, due: all.due.filter((test) => proves.includes(test)) };
  const screening = standing !== undefined && standing.due.length > 0;
  return (
    <div className="mt-2">
      {standing && <Integrity machine={p.machine} standing={standing} by={p.by} onDone={p.reload} />}
      {!standing && <p className="tone-good text-lg font-bold">Screened and proven.</p>}
      {standing && !screening && (
        <p className="text-lg font-bold">
          Screened. The job can end; the class wording waits for the penetration test.
        </p>
      )}
      <button
        type="button"
        className="go mt-3 min-h-16 w-full text-xl"
        disabled={p.sending || screening}
        onClick={() => p.act({ kind: 'did', step: at })}
      >
        Done
      </button>
      {screening && <LeaveOut act={p.act} sending={p.sending} step={at} word="Cannot be done here" />}
    </div>
  );
};

const linkOf = (
  { machine, record, reply }: PlayerProps,
  { key }: Step,
): { readonly href: string; readonly word: string } | null => {
  const base = `/m/${encodeURIComponent(machine.tag)}`;
  const after = reply.changeIds.at(-1);
  if (key === 'measureAfter')
    return { href: `${base}/measure${after === undefined ? '' : `?after=${after}`}`, word: 'Measure now' };
  if (key === 'measureBaseline') return { href: `${base}/measure`, word: 'Measure the baseline' };
  return key === 'proveIndicator' && record.procedure.id === 'indicatorCheck'
    ? { href: `${base}/indicator`, word: 'Disc size' }
    : null;
};

const Doing = ({ p, step, at }: { readonly p: PlayerProps; readonly step: Step; readonly at: number }) => {
  if (step.check === 'dry' && p.state.driesUntil !== null) {
    return (
      <>
        <Drying until={p.state.driesUntil} now={p.reply.now} />
        {p.reply.now < p.state.driesUntil ? (
          <LeaveOut act={p.act} sending={p.sending} step={at} word="It is dry already" />
        ) : (
          <Answer state={p.state} act={p.act} sending={p.sending} step={at} turns={false} />
        )}
      </>
    );
  }
  if (step.check !== undefined)
    return (
      <Answer
        state={p.state}
        act={p.act}
        sending={p.sending}
        step={at}
        turns={PROOF_CHECKS.has(step.check) && p.record.procedure.turnBack.length > 0}
      />
    );
  if (step.moves === 'takeNew') return <Take p={p} step={step} at={at} />;
  if (provedBy(step) !== null) return <Prove p={p} step={step} at={at} />;
  const link = linkOf(p, step);
  return (
    <div className="mt-3 flex gap-2">
      {link && (
        <a className="choice inline-flex min-h-16 items-center text-lg font-bold" href={link.href}>
          {link.word}
        </a>
      )}
      <button
        type="button"
        className="go min-h-16 flex-1 text-xl"
        disabled={p.sending}
        onClick={() => p.act({ kind: 'did', step: at })}
      >
        Done
      </button>
    </div>
  );
};

/** The present step: an action, a question, a part to take, or a proof. */
export const StepCard = ({ p, step }: { readonly p: PlayerProps; readonly step: Step }) => {
  const { state, record } = p;
  const next = state.steps[state.at + 1];
  const stage = stageAt(p, step.stage);
  const name = nameAt(p, step.stage);
  return (
    <section className="panel mt-2 p-4" aria-labelledby="step">
      <p className="caption flex flex-wrap gap-x-4">
        <span className="dial text-base">
          {state.at + 1} of {state.steps.length}
        </span>
        <span>{RUN_SHORT[step.run]}</span>
        <span>why: {WHY_WORDS[step.because]}</span>
        {record.people === 2 && (
          <span className="inline-flex items-center gap-1">
            <Hand size={16} aria-hidden="true" /> {handsOf(step)} hands
            {handsOf(step) === 'dirty' && step.moves === 'bagOld' ? '; clean hands hold the bag open' : ''}
          </span>
        )}
      </p>
      <h2 id="step" className="mt-1 text-2xl leading-tight font-bold sm:text-3xl">
        {sayStepOf(step, name, record.procedure.id)}
      </h2>
      {step.check && step.key !== 'check' && step.key !== 'proveIndicator' && (
        <p className="text-lg font-semibold">{CHECK_WORDS[step.check]}</p>
      )}
      {step.caution && (
        <p className="tone-watch mt-2 flex items-center gap-2 text-lg font-semibold">
          <ShieldAlert size={24} aria-hidden="true" className="shrink-0" /> {CAUTION_WORDS[step.caution]}
        </p>
      )}
      {stage && <SeatDrawing step={step} fit={stage.spec.fit} />}
      <Doing p={p} step={step} at={state.at} />
      {next && <p className="soft mt-2 text-sm">Then: {sayStepOf(next, nameAt(p, next.stage), record.procedure.id)}</p>}
    </section>
  );
};
