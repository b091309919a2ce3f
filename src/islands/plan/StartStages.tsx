import { useState } from 'react';
import type { Problem } from '@/messages/failures';
import { DayField } from '@/ui/day-field';
import { FieldProblems } from '@/ui/problems';
import { InitialsField } from '@/ui/text-fields';
import { usePostOnce } from '@/ui/use-post-once';

interface StartStagesProps {
  readonly stages: readonly { readonly id: number; readonly tag: string }[];
  readonly today: string;
  readonly by: string;
}

const EVERY = '';

/** Asks once from which day the time of these stages counts: for all of them, or for one machine. */
export const StartStages = ({ stages, today, by }: StartStagesProps) => {
  const [initials, setInitials] = useState(by);
  const [tag, setTag] = useState(EVERY);
  const [day, setDay] = useState(today);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const tags = [...new Set(stages.map((s) => s.tag))];
  const chosen = stages.filter((s) => tag === EVERY || s.tag === tag);
  const begin = async (from: string) => {
    const posted = await post('/api/plan/starts', {
      by: initials.trim().toUpperCase(),
      stageIds: chosen.map((s) => s.id),
      day: from,
    });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (posted.ok) window.location.reload();
  };
  return (
    <div className="panel my-2 space-y-2 p-3 text-sm">
      <p>
        These parts have been in for more than two of their intervals, and no change is on record. They were probably
        changed before. Look at each one. Say once from which day their time counts. A part that may be old stays
        unknown until you know.
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <InitialsField value={initials} onValue={setInitials} />
        <label className="block">
          <span className="caption">Of</span>
          <select className="field" value={tag} onChange={(e) => setTag(e.currentTarget.value)}>
            <option value={EVERY}>all machines</option>
            {tags.map((t) => (
              <option key={t} value={t}>
                {t}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="choice font-semibold" onClick={() => void begin(today)}>
          {chosen.length === 1 ? 'Count it from today' : `Count all ${chosen.length} from today`}
        </button>
        <div className="w-40">
          <DayField label="or from" value={day} max={today} onValue={setDay} />
        </div>
        <button type="button" className="choice font-semibold" disabled={day === ''} onClick={() => void begin(day)}>
          Count from this day
        </button>
      </div>
      <FieldProblems id="start-problems" problems={problems} />
    </div>
  );
};
