import { useState } from 'react';
import type { CrewBody, CrewPageJson } from '@/contracts/crew';
import { sayContained, sayMinutes, sayToday, WEEKDAYS } from '@/messages/crew';
import type { Problem } from '@/messages/failures';
import { DayField } from '@/ui/day-field';
import { FieldProblems } from '@/ui/problems';
import { TextField } from '@/ui/text-fields';
import { usePostOnce } from '@/ui/use-post-once';

type Shown = CrewPageJson['people'][number];
type Entry = CrewBody['entry'];
type Send = (personId: number, entry: Entry) => Promise<void>;

/** The usual minutes of a person, by weekday, Monday first. */
const UsualMinutes = ({ person, send }: { readonly person: Shown; readonly send: Send }) => {
  const [minutes, setMinutes] = useState<readonly number[]>(person.usual ?? [0, 60, 60, 60, 60, 60, 0]);
  return (
    <div className="flex flex-wrap items-end gap-1">
      {[1, 2, 3, 4, 5, 6, 0].map((weekday) => (
        <label key={weekday} className="block w-18">
          <span className="caption">{WEEKDAYS[weekday]}</span>
          <input
            className="field"
            type="number"
            min={0}
            max={1440}
            aria-label={`Minutes of ${person.initials} on ${WEEKDAYS[weekday] ?? ''}`}
            value={minutes[weekday] ?? 0}
            onChange={(e) => {
              const typed = Math.min(1440, Math.max(0, Number(e.currentTarget.value) || 0));
              setMinutes(minutes.map((m, i) => (i === weekday ? typed : m)));
            }}
          />
        </label>
      ))}
      <button
        type="button"
        className="choice font-semibold"
        onClick={() => void send(person.id, { kind: 'times', minutes: [...minutes] })}
      >
        Save minutes
      </button>
    </div>
  );
};

const DaysAway = ({ person, today, send }: { readonly person: Shown; readonly today: string; readonly send: Send }) => {
  const [from, setFrom] = useState(today);
  const [to, setTo] = useState(today);
  const [why, setWhy] = useState('');
  return (
    <div className="flex flex-wrap items-end gap-1">
      <div className="w-40">
        <DayField label="Away from" value={from} onValue={setFrom} />
      </div>
      <div className="w-40">
        <DayField label="to" value={to} onValue={setTo} />
      </div>
      <TextField label="Why" value={why} maxLength={120} onValue={setWhy} />
      <button
        type="button"
        className="choice font-semibold"
        disabled={why.trim() === ''}
        onClick={() => void send(person.id, { kind: 'absent', from, to, why })}
      >
        Away
      </button>
      <button
        type="button"
        className="choice font-semibold"
        onClick={() => void send(person.id, { kind: 'present', from, to })}
      >
        Here after all
      </button>
    </div>
  );
};

interface HandOverProps {
  readonly person: Shown;
  readonly others: readonly Shown[];
  readonly today: string;
  readonly send: Send;
}

const HandOver = ({ person, others, today, send }: HandOverProps) => {
  const [day, setDay] = useState(today);
  return (
    <div className="flex flex-wrap items-end gap-1">
      <div className="w-40">
        <DayField label="Work of" value={day} onValue={setDay} />
      </div>
      {others.map((o) => (
        <button
          key={o.id}
          type="button"
          className="choice font-semibold"
          onClick={() => void send(person.id, { kind: 'handsOver', day, to: o.id })}
        >
          Hand over to {o.initials}
        </button>
      ))}
      <button
        type="button"
        className="choice font-semibold"
        onClick={() => void send(person.id, { kind: 'handsOver', day, to: null })}
      >
        Take back
      </button>
    </div>
  );
};

interface CrewProps {
  readonly crew: CrewPageJson;
  readonly today: string;
  readonly by: string;
}

/** Who works on the plan: minutes by weekday, days away, work handed over, and who may do contained work. */
export const Crew = ({ crew, today, by }: CrewProps) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const send: Send = async (personId, entry) => {
    const posted = await post('/api/plan/crew', { by: by.trim().toUpperCase(), personId, entry });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    // The whole plan follows from it.
    if (posted.ok) window.location.reload();
  };
  if (crew.people.length === 0) return null;
  const planned = crew.people.some((p) => p.usual !== null);
  return (
    <details className="panel mt-2 px-3 text-sm">
      <summary className="min-h-11 cursor-pointer py-3">
        <strong>Who works</strong> {sayToday(crew)}
      </summary>
      <p className="soft">
        {planned
          ? 'The plan uses these minutes. Contained work goes only to people with training and a fit test in date.'
          : 'Say the minutes of each person, and the plan uses them in place of one figure for the yard.'}
      </p>
      <FieldProblems id="crew-problems" problems={problems} />
      <ul>
        {crew.people.map((p) => (
          <li key={p.id} className="border-base-300 border-b py-1">
            <details>
              <summary className="min-h-11 cursor-pointer py-2">
                <strong className="dial">{p.initials}</strong> {p.name}. {sayMinutes(p)}{' '}
                <span className={p.notContained === null ? '' : 'tone-watch'}>{sayContained(p)}</span>
              </summary>
              <div className="space-y-2 pb-2">
                <UsualMinutes person={p} send={send} />
                <DaysAway person={p} today={today} send={send} />
                <HandOver person={p} others={crew.people.filter((x) => x.id !== p.id)} today={today} send={send} />
              </div>
            </details>
          </li>
        ))}
      </ul>
    </details>
  );
};
