import type { StartState } from './start-state';
import type { ChangeSchool } from '@/core/procedure/step';
import { CHANGE_REASONS } from '@/core/record/records';
import { RUN_SHORT } from '@/messages/job';
import { PROCEDURE_WORDS } from '@/messages/procedure';
import { REASON_WORDS } from '@/messages/words';
import { type JobChoice } from './choice';

export type Set = (over: Partial<StartState>) => void;

export const What = ({
  choices,
  chosen,
  choose,
}: {
  readonly choices: readonly JobChoice[];
  readonly chosen: JobChoice | null;
  readonly choose: (c: JobChoice) => void;
}) => {
  const button = (c: JobChoice, small: string) => (
    <button
      key={c.key}
      type="button"
      className={`choice ${small}`}
      aria-pressed={chosen?.key === c.key}
      onClick={() => choose(c)}
    >
      {c.label}
    </button>
  );
  return (
    <fieldset>
      <legend className="mb-1 font-bold">2. What is done?</legend>
      <div className="grid grid-cols-2 gap-1 xl:grid-cols-3">
        {choices.filter((c) => !c.side).map((c) => button(c, 'font-semibold'))}
      </div>
      <p className="caption mt-1">or without a new part</p>
      <div className="flex flex-wrap gap-1">{choices.filter((c) => c.side).map((c) => button(c, 'text-sm'))}</div>
    </fieldset>
  );
};

export const Way = ({
  chosen,
  school,
  setSchool,
}: {
  readonly chosen: JobChoice;
  readonly school: ChangeSchool;
  readonly setSchool: (s: ChangeSchool) => void;
}) => (
  <fieldset>
    <legend className="mb-1 font-bold">3. Which way?</legend>
    <div className="grid gap-1 sm:grid-cols-2">
      {chosen.ways.map((w) => (
        <button
          key={w.school}
          type="button"
          className="choice"
          aria-pressed={school === w.school}
          onClick={() => setSchool(w.school)}
        >
          <span className="block font-semibold">{PROCEDURE_WORDS[w.id]}</span>
          <span className="soft text-xs">
            {RUN_SHORT[w.school]}
            {w.school === 'running' ? ', air into the opening' : ''}
          </span>
        </button>
      ))}
    </div>
  </fieldset>
);

export const Why = ({ s, set }: { readonly s: StartState; readonly set: Set }) => (
  <fieldset>
    <legend className="mb-1 font-bold">Why now?</legend>
    <div className="flex flex-wrap gap-1">
      {CHANGE_REASONS.map((r) => (
        <button
          key={r}
          type="button"
          className="choice text-sm"
          aria-pressed={s.reason === r}
          onClick={() => set({ reason: r })}
        >
          {REASON_WORDS[r]}
        </button>
      ))}
    </div>
  </fieldset>
);
