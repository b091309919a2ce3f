import { STAGE_KINDS } from '@/core/path/stage-kinds';
import { useEffect, useState } from 'react';
import type { Machine } from '@/core/machine/machine';
import type { Problem } from '@/messages/failures';
import { capital } from '@/messages/words';
import { setChoice } from '@/ui/cookies';
import { DayField } from '@/ui/day-field';
import { FieldProblems } from '@/ui/problems';
import { InitialsField } from '@/ui/text-fields';
import { usePostOnce } from '@/ui/use-post-once';

interface LogWearProps {
  readonly machine: Machine;
  readonly today: string;
  readonly by: string;
}

const INSPECTION_WORDS = [
  ['empty', 0.05],
  ['a quarter', 0.25],
  ['half', 0.5],
  ['three quarters', 0.75],
  ['full', 1],
] as const;

interface HowFullProps {
  readonly machine: Machine;
  readonly send: (look: { readonly stageId: number; readonly share: number }) => Promise<void>;
}

const HowFull = ({ machine, send }: HowFullProps) => {
  const filled = machine.stages.filter((s) => STAGE_KINDS[s.kind].fills || s.rules.some((r) => r.rule.kind === 'fill'));
  return filled.map((s) => (
    <div key={s.id}>
      <p className="caption">{capital(s.name)}: how full?</p>
      <div className="flex flex-wrap gap-1">
        {INSPECTION_WORDS.map(([word, share]) => (
          <button key={word} type="button" className="choice" onClick={() => void send({ stageId: s.id, share })}>
            {word}
          </button>
        ))}
      </div>
    </div>
  ));
};

interface OutOfServiceProps {
  readonly today: string;
  readonly send: (away: { readonly from: string; readonly to: string; readonly why: string }) => Promise<void>;
}

const OutOfService = ({ today, send }: OutOfServiceProps) => {
  const [from, setFrom] = useState(today);
  const [to, setTo] = useState(today);
  const [why, setWhy] = useState('');
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">Out of service for some days</summary>
      <div className="flex flex-wrap items-end gap-1">
        <div className="w-40">
          <DayField label="From" value={from} onValue={setFrom} />
        </div>
        <div className="w-40">
          <DayField label="To" value={to} onValue={setTo} />
        </div>
        <label className="block min-w-32 flex-1">
          <span className="caption">Why</span>
          <input className="field" value={why} maxLength={120} onChange={(e) => setWhy(e.currentTarget.value)} />
        </label>
        <button
          type="button"
          className="choice font-semibold"
          disabled={why.trim() === ''}
          onClick={() => void send({ from, to, why })}
        >
          Plan around it
        </button>
      </div>
    </details>
  );
};

/** Run hours of a day, and a coarse look at a fill: the two things that make a forecast its own. */
export const LogWear = ({ machine, today, by }: LogWearProps) => {
  const [initials, setInitials] = useState(by);
  const [day, setDay] = useState(today);
  const [hours, setHours] = useState('');
  const [dust, setDust] = useState(machine.hours.at(-1)?.dust ?? machine.lastCollected);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  useEffect(() => {
    document.documentElement.dataset['wear'] = 'ready';
  }, []);
  const send = async (what: 'usage' | 'looks' | 'away', body: object) => {
    const upper = initials.trim().toUpperCase();
    const posted = await post(`/api/machines/${encodeURIComponent(machine.tag)}/${what}`, {
      by: upper,
      ...(what === 'away' ? {} : { day }),
      ...body,
    });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (!posted.ok) return;
    setChoice('mw_by', upper);
    window.location.reload();
  };
  const worked = Number(hours.replace(',', '.').replace(/\s*h(ours)?$/i, ''));
  return (
    <section className="panel space-y-2 p-3" aria-labelledby="log-wear">
      <h2 id="log-wear" className="font-bold">
        Log its work
      </h2>
      <div className="flex flex-wrap items-end gap-1">
        <div className="w-40">
          <DayField label="Day" value={day} max={today} onValue={setDay} />
        </div>
        <InitialsField value={initials} onValue={setInitials} />
      </div>
      <div className="flex flex-wrap items-end gap-1">
        <label className="block w-20">
          <span className="caption">Hours run</span>
          <input
            className="field"
            inputMode="decimal"
            value={hours}
            maxLength={6}
            onChange={(e) => setHours(e.currentTarget.value)}
          />
        </label>
        <label className="block min-w-40 flex-1">
          <span className="caption">On which dust</span>
          <input className="field" value={dust} maxLength={120} onChange={(e) => setDust(e.currentTarget.value)} />
        </label>
        <button
          type="button"
          className="choice font-semibold"
          disabled={hours.trim() === '' || !Number.isFinite(worked)}
          onClick={() => void send('usage', { hours: worked, dust })}
        >
          Log the hours
        </button>
      </div>
      <HowFull machine={machine} send={(body) => send('looks', body)} />
      <OutOfService today={today} send={(body) => send('away', body)} />
      <FieldProblems id="wear-problems" problems={problems} />
    </section>
  );
};
