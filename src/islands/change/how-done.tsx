import type { BeforeChoice } from '@/view-models/change-props';
import type { Dispatch } from 'react';
import type { DustHazard } from '@/core/dust/level';
import { capital } from '@/messages/words';
import { FieldProblems, problemsAt } from '@/ui/problems';
import type { ChangeAction, ChangeState } from './state';

export interface Part {
  readonly state: ChangeState;
  readonly dispatch: Dispatch<ChangeAction>;
}

export const BeforeTest = ({ state, dispatch, before }: Part & { readonly before: readonly BeforeChoice[] }) => (
  <label className="block">
    <span className="font-bold">Measured before</span>
    <select
      className="field mt-1"
      value={state.beforeTestId ?? ''}
      onChange={(e) => dispatch({ type: 'before', id: e.target.value === '' ? null : Number(e.target.value) })}
    >
      <option value="">not measured as found</option>
      {before.map((b) => (
        <option key={b.id} value={b.id}>
          {b.words}
        </option>
      ))}
    </select>
  </label>
);

/** For dust that needs guided steps, an unguided change states its containment; the file marks it so. */
export const HowDone = ({ state, dispatch, level }: Part & { readonly level: DustHazard }) => (
  <fieldset>
    <legend className="font-bold">Without the guide, write down how the dust was contained</legend>
    <p className="soft text-sm">
      {capital(level)} dust. If a class filter was opened, the class is suspended until it is screened and tested.
    </p>
    <div className="grid grid-cols-[5rem_1fr] gap-2">
      <label className="block">
        <span className="caption">By whom</span>
        <input
          className="field"
          value={state.doneBy}
          maxLength={12}
          autoComplete="off"
          onChange={(e) => dispatch({ type: 'text', field: 'doneBy', value: e.currentTarget.value })}
        />
      </label>
      <label className="block">
        <span className="caption">How it was contained</span>
        <input
          className="field"
          value={state.doneHow}
          maxLength={300}
          placeholder="mask, tied bag, damp wipe, by the machine's own instructions"
          onChange={(e) => dispatch({ type: 'text', field: 'doneHow', value: e.currentTarget.value })}
        />
      </label>
    </div>
    <FieldProblems id="how-problems" problems={problemsAt(state.problems, 'how')} />
  </fieldset>
);
