import { ShieldAlert, SkipForward, TestTubes } from 'lucide-react';
import { useState } from 'react';
import { QUANTITY_OF, OPERATION_FACTS, sameOperation } from '@/core/diagnose/operation';
import { SHOWN, show, toDecimals, fixed } from '@/core/units';
import { EXPOSURE_WORDS, sayExpected, sayMeaning, sayWhy, standingOf, stateWords } from '@/messages/find';
import { OTHER_WORD, testHow, testTitle, wordLabel } from '@/messages/find-tests';
import { sayCaution } from '@/messages/words';
import { FieldProblems, problemsAt } from '@/ui/problems';
import type { BenchPart, PresentedTest } from './parts';

interface CardProps extends BenchPart {
  readonly test: PresentedTest;
  readonly pending: boolean;
  readonly lead: string;
}

const meaningOf = ({ findings, setup }: BenchPart, word: string): string | null => {
  const meant = findings.meanings.find((m) => m.outcome.kind === 'word' && m.outcome.word === word);
  return meant ? sayMeaning(meant.top, setup.model.stages) : null;
};

const WordButtons = (p: CardProps) => {
  const { test, ui, doIt } = p;
  const { operation } = test;
  return (
    <div className="grid gap-1 sm:grid-cols-2">
      {test.words.map((word) => {
        const meaning = meaningOf(p, word);
        return (
          <button
            key={word}
            type="button"
            className="choice min-h-14"
            disabled={ui.sending}
            onClick={() =>
              doIt({
                kind: 'saw',
                operation,
                seen: { kind: 'word', word },
                note: ui.note,
                correctsEventId: ui.correcting,
              })
            }
          >
            <span className="block text-lg leading-tight font-bold">{wordLabel(operation, word)}</span>
            {meaning && <span className="soft text-xs">then: {meaning}</span>}
          </button>
        );
      })}
    </div>
  );
};

const ReadingPad = (p: CardProps) => {
  const { test, ui, dispatch, units, doIt, setup, findings } = p;
  const kind = QUANTITY_OF[test.operation.kind];
  if (!kind) return null;
  const { unit } = SHOWN[units][kind];
  const [good, short] = findings.meanings.filter((m) => m.outcome.kind === 'number');
  const send = () =>
    doIt({
      kind: 'saw',
      operation: test.operation,
      seen: { kind: 'typed', typed: ui.typed, unit },
      note: ui.note,
      correctsEventId: ui.correcting,
    });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        send();
      }}
    >
      <div className="flex items-end gap-2">
        <label className="block min-w-0 flex-1">
          <span className="caption">
            Reading, in {unit} or type another unit
            {test.soundSi === null ? '' : `; ${sayExpected(kind, test.soundSi, units)}`}
          </span>
          <input
            className="field dial text-2xl"
            inputMode="decimal"
            autoComplete="off"
            value={ui.typed}
            maxLength={24}
            onChange={(e) => dispatch({ type: 'typed', value: e.currentTarget.value })}
          />
        </label>
        <button type="submit" className="go px-5" disabled={ui.sending || ui.typed.trim() === ''}>
          Record
        </button>
      </div>
      <FieldProblems id="reading-problems" problems={problemsAt(ui.problems, 'action')} />
      {good && short && good.outcome.kind === 'number' && short.outcome.kind === 'number' && (
        <dl className="soft mt-1 grid gap-x-4 text-sm sm:grid-cols-2">
          <div>
            <dt className="inline font-semibold">Near {show(kind, good.outcome.valueSi, units)}: </dt>
            <dd className="inline">{sayMeaning(good.top, setup.model.stages)}</dd>
          </div>
          <div>
            <dt className="inline font-semibold">Near {show(kind, short.outcome.valueSi, units)}: </dt>
            <dd className="inline">{sayMeaning(short.top, setup.model.stages)}</dd>
          </div>
        </dl>
      )}
    </form>
  );
};

const Something = (p: CardProps) => {
  const [open, setOpen] = useState(false);
  const { ui, dispatch, doIt, test } = p;
  const byWord = test.words.length > 0;
  if (!open)
    return (
      <button type="button" className="choice" onClick={() => setOpen(true)}>
        {OTHER_WORD}
      </button>
    );
  return (
    <div className="basis-full">
      <label className="block">
        <span className="caption">
          What did you see? It stays in the log{byWord ? ' and weighs nothing' : '; put it beside the reading'}.
        </span>
        <input
          className="field"
          value={ui.note}
          maxLength={300}
          onChange={(e) => dispatch({ type: 'note', value: e.currentTarget.value })}
        />
      </label>
      {byWord && (
        <button
          type="button"
          className="choice mt-1 font-semibold"
          disabled={ui.sending || ui.note.trim() === ''}
          onClick={() =>
            doIt({
              kind: 'saw',
              operation: test.operation,
              seen: { kind: 'word', word: 'other' },
              note: ui.note,
              correctsEventId: ui.correcting,
            })
          }
        >
          Save to the log
        </button>
      )}
    </div>
  );
};

/** The same was done since the last repair. */
const doneBefore = ({ state: { progress }, test }: CardProps): boolean =>
  progress.evidence.some(
    (e) =>
      !e.struck &&
      sameOperation(e.operation, test.operation) &&
      e.interventions.repairs.length === progress.interventions.repairs.length,
  );

/** One test: what, why, how, its caution and price, its outcomes, and what each would mean. */
export const TestCard = (p: CardProps) => {
  const { test, setup, record, machine, pending, lead, ui, dispatch, doIt } = p;
  const { operation } = test;
  const facts = OPERATION_FACTS[operation.kind];
  const { stages } = setup.model;
  return (
    <section aria-labelledby="next-test" className="panel p-3">
      <p className="caption flex flex-wrap items-center gap-x-3">
        <span className="text-primary flex items-center gap-1 font-bold">
          <TestTubes size={16} aria-hidden="true" /> {lead}
        </span>
        <span className="dial">
          {facts.minutes < 1 ? `${Math.round(facts.minutes * 60)} s` : `${facts.minutes} min`}
        </span>
        <span>{EXPOSURE_WORDS[facts.exposure]}</span>
        <span>{stateWords(operation, facts.state)}</span>
      </p>
      <h2 id="next-test" className="text-xl leading-tight font-bold sm:text-2xl">
        {testTitle(operation, stages)}
      </h2>
      <p className="mt-0.5">
        {sayWhy(operation, { minutes: test.minutes, exposure: facts.exposure, pending, again: doneBefore(p) })}
      </p>
      <p className="soft mt-1 text-sm">{testHow(operation)}</p>
      {facts.exposure > 0 && (
        <p className="tone-watch mt-1 flex items-start gap-2 text-sm font-semibold">
          <ShieldAlert size={18} aria-hidden="true" className="mt-0.5 shrink-0" />
          <span>{sayCaution(record.hazard, standingOf(facts.state))}</span>
        </p>
      )}
      {operation.kind === 'disc' && (
        <p className="mt-1">
          <a className="text-primary font-semibold underline" href={`/m/${encodeURIComponent(machine.tag)}/indicator`}>
            The disc for this hose, to print
          </a>
        </p>
      )}
      <div className="mt-2">
        {ui.correcting !== null && (
          <p className="tone-open mb-1 text-sm font-bold">
            Correcting: the old line is struck out and stays in the log.
          </p>
        )}
        {test.words.length > 0 ? <WordButtons {...p} /> : <ReadingPad {...p} />}
      </div>
      <div className="mt-2 flex flex-wrap gap-1">
        <button
          type="button"
          className="choice inline-flex items-center gap-1"
          disabled={ui.sending}
          onClick={() => doIt({ kind: 'skip', operation })}
        >
          <SkipForward size={16} aria-hidden="true" /> Skip it
        </button>
        <button
          type="button"
          className="choice"
          aria-expanded={ui.showOthers}
          onClick={() => dispatch({ type: 'others', show: !ui.showOthers })}
        >
          Choose another
        </button>
        {ui.picked && !ui.correcting && (
          <button type="button" className="choice" onClick={() => dispatch({ type: 'pick', operation: null })}>
            Back to the suggested test
          </button>
        )}
        <Something {...p} />
      </div>
      {test.words.length > 0 && <FieldProblems id="test-problems" problems={ui.problems} />}
    </section>
  );
};

/** Every other test this machine allows, best first. */
export const OtherTests = ({ findings, setup, dispatch, ui, state }: BenchPart) => {
  if (!ui.showOthers) return null;
  const skipped = (t: PresentedTest) => state.progress.skipped.some((s) => sameOperation(s, t.operation));
  return (
    <section aria-label="Other tests" className="panel p-3">
      <h3 className="caption">Other tests, most useful for the time first</h3>
      <ul className="mt-1 grid gap-1 sm:grid-cols-2">
        {findings.others
          .filter((t) => !skipped(t))
          .map((t) => (
            <li key={JSON.stringify(t.operation)}>
              <button
                type="button"
                className="choice w-full"
                onClick={() => dispatch({ type: 'pick', operation: t.operation })}
              >
                <span className="block font-semibold">{testTitle(t.operation, setup.model.stages)}</span>
                <span className="soft text-xs">
                  <span className="dial">{toDecimals(t.minutes, 1)}</span> min with its price,{' '}
                  {EXPOSURE_WORDS[t.exposure]}, settles <span className="dial">{fixed(t.bits, 2)}</span> bit
                </span>
              </button>
            </li>
          ))}
      </ul>
    </section>
  );
};
