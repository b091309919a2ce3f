import { fixed } from '@/core/units';
import { Flag } from 'lucide-react';
import { useState } from 'react';
import { type FaultKind, isSilent } from '@/core/diagnose/fault';
import { MOST_DOUBT_MINUTES } from '@/core/diagnose/closing';
import { VAIN_REPAIRS } from '@/core/diagnose/in-vain';
import { curedBy } from '@/core/diagnose/repair';
import { sayCause } from '@/messages/find';
import { sayFault } from '@/messages/fault-names';
import { FieldProblems } from '@/ui/problems';
import type { BenchPart } from './parts';
import { sayProbability } from '@/messages/format';

interface Root {
  readonly kind: FaultKind;
  readonly position: number;
}

const keyOf = (r: Root): string => `${r.kind} ${r.position}`;

/** Possible root causes: repaired ones and likely ones. */
const rootsOf = ({ record, findings }: BenchPart): readonly Root[] => {
  const repaired = record.events.flatMap(({ event }) => (event.kind === 'repaired' ? [event.fault] : []));
  const likely = findings.causes.filter((c) => c.probability >= 0.3);
  const all = [...repaired, ...likely].map(({ kind, position }) => ({ kind, position }));
  return all.filter((r, i) => all.findIndex((x) => keyOf(x) === keyOf(r)) === i);
};

const NOT_FOUND = 'not found';

const useEnding = (p: BenchPart) => {
  const roots = rootsOf(p);
  const [chosen, choose] = useState<string | null>(null);
  const [words, setWords] = useState('');
  const [followUp, setFollowUp] = useState('');
  const root = roots.find((r) => keyOf(r) === chosen) ?? null;
  return { roots, chosen, choose, words, setWords, followUp, setFollowUp, root };
};

/** The root cause as recorded: the choice, and the words for it. */
const rootCauseOf = (e: ReturnType<typeof useEnding>, stages: BenchPart['setup']['model']['stages']): string =>
  [e.chosen === NOT_FOUND ? NOT_FOUND : e.root ? sayFault(e.root, stages) : '', e.words.trim()]
    .filter((x) => x !== '')
    .join(': ');

/** From this chance on, an undetectable fault is named before the case closes. */
const NAMED_FROM = 0.05;

/** Possible dust leaks that were not repaired. */
const openDoubts = ({ findings, setup, state }: BenchPart) =>
  findings.causes.filter(
    (c) => c.probability >= NAMED_FROM && isSilent(c, setup.model) && !curedBy(state.progress.interventions.repairs, c),
  );

const NotRuledOut = (p: BenchPart) => {
  const open = openDoubts(p);
  return open.length === 0 ? null : (
    <p className="tone-watch mt-1 font-semibold">
      Not ruled out:{' '}
      {open.map((c) => `${sayFault(c, p.setup.model.stages)}, ${sayProbability(c.probability)}`).join('; ')}.{' '}
      {open.length === 1 ? 'It' : 'Either'} would let dust past and nobody would feel it. Keep testing, or look again at
      the next opening.
    </p>
  );
};

/** The doubt that a case closes with, and the demand for a second look where it is large. */
const DoubtLeft = ({ minutes }: { readonly minutes: number }) => {
  const large = minutes > MOST_DOUBT_MINUTES;
  return (
    <p className={large ? 'tone-watch mt-0.5 font-semibold' : 'mt-0.5'}>
      {large
        ? 'The complaint is gone, but a doubt is left, and no test is left that settles it.'
        : 'No remaining test is worth its time.'}{' '}
      The remaining doubt is worth <span className="dial">{fixed(minutes, 1)}</span> minutes.
      {large && ' Write a follow-up: who looks again, where, and when.'}
    </p>
  );
};

/** The closing: the root cause, apart from the replaced part, and a follow-up where it came back. */
export const CloseCard = (p: BenchPart & { readonly doubtMinutes: number }) => {
  const { setup, ui, doIt, dispatch, before, findings } = p;
  const { stages } = setup.model;
  const e = useEnding(p);
  const doubtful = p.doubtMinutes > MOST_DOUBT_MINUTES;
  const again = e.root ? (before[keyOf(e.root)] ?? 0) : 0;
  const rootCause = rootCauseOf(e, stages);
  return (
    <section aria-labelledby="close" className="panel p-3" style={{ borderLeft: '6px solid var(--color-success)' }}>
      <p className="caption tone-good flex items-center gap-1 font-bold">
        <Flag size={16} aria-hidden="true" /> {findings.back ? 'Back to normal' : 'Not back yet'}
      </p>
      <h2 id="close" className="text-xl leading-tight font-bold sm:text-2xl">
        Close the case
      </h2>
      <DoubtLeft minutes={p.doubtMinutes} />
      <NotRuledOut {...p} />
      <fieldset className="mt-2">
        <legend className="caption">Why did it happen? The part you replaced is often not the root cause.</legend>
        <div className="grid gap-1 sm:grid-cols-2">
          {e.roots.map((r) => (
            <button
              key={keyOf(r)}
              type="button"
              className="choice font-semibold"
              aria-pressed={e.chosen === keyOf(r)}
              onClick={() => e.choose(keyOf(r))}
            >
              {sayCause(r, stages)}
            </button>
          ))}
          <button
            type="button"
            className="choice font-semibold"
            aria-pressed={e.chosen === NOT_FOUND}
            onClick={() => e.choose(NOT_FOUND)}
          >
            Not found
          </button>
        </div>
      </fieldset>
      <label className="mt-2 block">
        <span className="caption">In your words, such as "collar bent, lid closed over it"</span>
        <input className="field" value={e.words} maxLength={250} onChange={(x) => e.setWords(x.currentTarget.value)} />
      </label>
      {again > 0 && (
        <p className="tone-watch mt-2 font-semibold">
          The same root cause as {again === 1 ? 'once' : `${again} times`} before on this machine. Say what will stop it
          from coming back.
        </p>
      )}
      <label className="mt-2 block">
        <span className="caption">Follow-up{again > 0 || doubtful ? '' : ', if any'}</span>
        <input
          className="field"
          value={e.followUp}
          maxLength={500}
          onChange={(x) => e.setFollowUp(x.currentTarget.value)}
        />
      </label>
      <div className="mt-2 flex flex-wrap gap-1">
        <button
          type="button"
          className="go"
          disabled={ui.sending || rootCause === '' || ((again > 0 || doubtful) && e.followUp.trim() === '')}
          onClick={() => doIt({ kind: 'close', rootCause, root: e.root, followUp: e.followUp })}
        >
          Close the case
        </button>
        <button type="button" className="choice" onClick={() => dispatch({ type: 'askOn' })}>
          Keep testing
        </button>
      </div>
      <FieldProblems id="close-problems" problems={ui.problems} />
    </section>
  );
};

/** Nothing left to ask, and it is not back: hand it on. */
export const HandOnCard = (
  p: BenchPart & {
    readonly fault: { readonly kind: FaultKind; readonly position: number; readonly probability: number } | null;
  },
) => {
  const [because, setBecause] = useState('');
  const { fault, findings, setup, ui, doIt, dispatch } = p;
  return (
    <section aria-labelledby="hand-on" className="panel p-3" style={{ borderLeft: '6px solid var(--color-warning)' }}>
      <h2 id="hand-on" className="text-xl leading-tight font-bold">
        Hand it on
      </h2>
      <p className="mt-0.5">
        {findings.inVain >= VAIN_REPAIRS
          ? 'No further repair is likely to help.'
          : 'No test left pays, and the complaint is not gone.'}{' '}
        {fault && fault.probability > 0.05
          ? `Most likely left: ${sayFault(fault, setup.model.stages)}, ${sayProbability(fault.probability)}.`
          : ''}{' '}
        Hand it to someone with other equipment, or re-check the readings.
      </p>
      <label className="mt-2 block">
        <span className="caption">To whom, and why</span>
        <input className="field" value={because} maxLength={300} onChange={(x) => setBecause(x.currentTarget.value)} />
      </label>
      <div className="mt-2 flex flex-wrap gap-1">
        <button
          type="button"
          className="go"
          disabled={ui.sending || because.trim() === ''}
          onClick={() => doIt({ kind: 'handOn', because })}
        >
          Hand it on
        </button>
        <button type="button" className="choice" onClick={() => dispatch({ type: 'askOn' })}>
          Keep testing
        </button>
      </div>
      <FieldProblems id="hand-problems" problems={ui.problems} />
    </section>
  );
};
