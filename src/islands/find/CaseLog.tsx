import { useState } from 'react';
import type { LoggedEvent } from '@/core/diagnose/case-log';
import { QUANTITY_OF } from '@/core/diagnose/operation';
import { sayEvent } from '@/messages/case-report';
import type { BenchPart } from './parts';

const clock = (at: string): string => new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });

const Line = ({ logged, struck, ...p }: BenchPart & { readonly logged: LoggedEvent; readonly struck: boolean }) => {
  const [asking, setAsking] = useState(false);
  const [because, setBecause] = useState('');
  const { event } = logged;
  const text = sayEvent(logged, {
    stages: p.setup.model.stages,
    units: p.units,
    quantityOf: (op) => QUANTITY_OF[op.kind],
  });
  const strikable = (event.kind === 'saw' || event.kind === 'repaired') && !struck;
  return (
    <li className="border-base-300 border-b py-1.5">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className="dial soft text-xs" suppressHydrationWarning>
          {clock(logged.at)} {logged.by}
        </span>
        <span className={`min-w-0 flex-1 ${struck ? 'line-through opacity-70' : ''}`}>
          {text}
          {event.kind === 'saw' && event.typed ? <span className="soft"> typed {event.typed}</span> : null}
          {struck && <span className="sr-only"> (struck out)</span>}
        </span>
        {strikable && (
          <span className="flex gap-1 max-sm:basis-full max-sm:justify-end">
            {event.kind === 'saw' && event.operation.kind !== 'takeOut' && (
              <button
                type="button"
                className="choice px-2 py-1 text-sm"
                onClick={() => p.dispatch({ type: 'correct', eventId: logged.id, operation: event.operation })}
              >
                Correct
              </button>
            )}
            <button
              type="button"
              className="choice px-2 py-1 text-sm"
              aria-expanded={asking}
              onClick={() => setAsking(!asking)}
            >
              Strike out
            </button>
          </span>
        )}
      </div>
      {asking && (
        <form
          className="mt-1 flex items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            setAsking(false);
            p.doIt({ kind: 'strike', eventId: logged.id, because });
          }}
        >
          <label className="block flex-1">
            <span className="caption">Why does it not count? The line stays readable.</span>
            <input
              className="field"
              value={because}
              maxLength={300}
              onChange={(e) => setBecause(e.currentTarget.value)}
            />
          </label>
          <button type="submit" className="go" disabled={because.trim() === ''}>
            Strike out
          </button>
        </form>
      )}
    </li>
  );
};

/** The running log of the case, newest first; any piece of evidence can be struck out or corrected. */
export const CaseLog = (p: BenchPart) => {
  const struck = new Set(p.record.events.flatMap(({ event }) => (event.kind === 'struck' ? [event.eventId] : [])));
  return (
    <section aria-labelledby="log" className="min-w-0">
      <h3 id="log" className="caption">
        Case log
      </h3>
      {p.record.events.length === 0 ? (
        <p className="soft">Nothing yet. Start with the complaint reading, as found.</p>
      ) : (
        <ol>
          {[...p.record.events].reverse().map((logged) => (
            <Line key={logged.id} {...p} logged={logged} struck={struck.has(logged.id)} />
          ))}
        </ol>
      )}
    </section>
  );
};
