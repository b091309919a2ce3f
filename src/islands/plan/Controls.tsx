import type { PlanOptions } from '@/core/plan/yard-problem';
import { InitialsField } from '@/ui/text-fields';

const WEEKS = [4, 8, 12, 26, 52] as const;

interface ControlsProps {
  readonly options: PlanOptions;
  /** Whether the minutes are the people's own: one figure for the yard counts for nothing then. */
  readonly byPeople: boolean;
  readonly setOptions: (o: PlanOptions) => void;
  readonly by: string;
  readonly setBy: (by: string) => void;
  readonly working: boolean;
  readonly rounds: number;
  /** null until there is a plan to stop at. */
  readonly stop: (() => void) | null;
}

/** Weeks, minutes a day and initials; the search can be stopped with its present plan. */
export const Controls = ({ options, byPeople, setOptions, by, setBy, working, rounds, stop }: ControlsProps) => (
  <div className="mt-2 flex flex-wrap items-end gap-2">
    <div role="group" aria-label="Weeks" className="flex gap-1">
      {WEEKS.map((w) => (
        <button
          key={w}
          type="button"
          className="choice font-semibold"
          aria-pressed={options.weeks === w}
          onClick={() => setOptions({ ...options, weeks: w })}
        >
          {w} weeks
        </button>
      ))}
    </div>
    {byPeople ? null : (
      <label className="block w-28">
        <span className="caption">Minutes a day</span>
        <input
          className="field"
          type="number"
          min={0}
          max={1440}
          value={options.minutesADay}
          onChange={(e) =>
            setOptions({ ...options, minutesADay: Math.min(1440, Math.max(0, Number(e.currentTarget.value) || 0)) })
          }
        />
      </label>
    )}
    <InitialsField value={by} onValue={setBy} />
    {working && (
      <span className="flex items-center gap-2 text-sm font-semibold" role="status">
        Planning, round {rounds}{' '}
        {stop && (
          <button type="button" className="choice" onClick={stop}>
            Stop here
          </button>
        )}
      </span>
    )}
  </div>
);
