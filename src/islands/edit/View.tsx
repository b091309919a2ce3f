import { type ReactNode, useEffect, useReducer, useState } from 'react';
import { isCalendarDate } from '@/core/calendar/calendar-date';
import { type DustStatement, stated } from '@/core/dust/assess';
import type { Dust, RuleSet } from '@/core/dust/dust';
import { NO_DUST } from '@/core/dust/history';
import type { Machine } from '@/core/machine/machine';
import { show, type UnitSystem } from '@/core/units';
import { problemsOf } from '@/messages/failures';
import { setChoice } from '@/ui/cookies';
import { DustQuestion, type DustSaid, dustSaid } from '@/ui/dust/dust-question';
import { newClientId, postAction } from '@/ui/post-action';
import { FieldProblems } from '@/ui/problems';
import { ToneMark } from '@/ui/tone-mark';
import { MachineFields } from './MachineFields';
import { PathList } from './PathList';
import { pointedAt, type Preview, previewOf } from './preview';
import { StageForm } from './StageForm';
import { WhenDue } from './WhenDue';
import { type Draft, type EditAction, editReducer, snapshotOfDraft, startEdit, startNew } from './state';

interface EditProps {
  /** null enters a new machine. */
  readonly machine: Machine | null;
  /** A new one is to be like this one. */
  readonly like?: Machine | null;
  readonly parts: readonly { readonly id: number; readonly code: string; readonly name: string }[];
  readonly units: UnitSystem;
  readonly by: string;
  readonly clientId: string;
  readonly ownDusts: readonly Dust[];
  /** Which country's rules are proposed for a new stage. */
  readonly ruleSet: RuleSet;
}

const PreviewCard = ({ preview, units }: { preview: Preview; units: UnitSystem }) => {
  if (preview.failures.length > 0) {
    return (
      <div className="space-y-1">
        <ToneMark tone="stop" word="Air path not possible" />
        <FieldProblems id="path-problems" problems={problemsOf(preview.failures)} />
      </div>
    );
  }
  const { stairs } = preview;
  if (!stairs) return null;
  return (
    <p role="status">
      <ToneMark tone="good" word="Air path OK" />{' '}
      <span>
        The path as entered would give <strong className="dial">{show('flow', stairs.flowPerToolM3s, units)}</strong> at
        the tool
        {stairs.hoseVelocityMs !== null && (
          <>
            , <strong className="dial">{show('velocity', stairs.hoseVelocityMs, units)}</strong> in the hose
          </>
        )}
        .
      </span>
    </p>
  );
};

const bodyOf = (d: Draft, machine: Machine | null, dust: DustStatement): object => {
  const signed = {
    clientId: d.clientId,
    by: d.by.trim(),
    note: d.note.trim(),
    path: snapshotOfDraft(d),
    rules: d.stages.map((s) => s.rules),
  };
  return machine
    ? { ...signed, seen: machine.editedThrough }
    : {
        ...signed,
        tag: d.tag.trim().toUpperCase(),
        kind: d.kind,
        firstUsedOn: d.firstUsedOn.trim() === '' ? null : d.firstUsedOn.trim(),
        dust,
      };
};

interface SaveProps {
  readonly draft: Draft;
  readonly dispatch: (a: EditAction) => void;
  /** The missing input before it can be recorded; '' when complete. */
  readonly needed: string;
  readonly fresh: boolean;
  readonly onSave: () => void;
}

const SaveBar = ({ draft, dispatch, needed, fresh, onSave }: SaveProps) => (
  <div className="bg-base-100 border-base-300 board:bottom-0 sticky bottom-14 z-20 space-y-1 border-t py-2">
    <FieldProblems id="save-problems" problems={draft.problems} />
    <div className="flex flex-wrap items-end gap-2">
      <label className="w-24">
        <span className="caption">Initials</span>
        <input
          className="field"
          value={draft.by}
          maxLength={12}
          autoComplete="off"
          onChange={(e) => dispatch({ type: 'sign', by: e.currentTarget.value })}
        />
      </label>
      <label className="min-w-0 flex-1 basis-40">
        <span className="caption">Why</span>
        <input
          className="field"
          value={draft.note}
          maxLength={300}
          autoComplete="off"
          onChange={(e) => dispatch({ type: 'sign', note: e.currentTarget.value })}
        />
      </label>
      <button
        type="button"
        className="go basis-full sm:basis-auto"
        disabled={draft.sending || needed !== ''}
        onClick={onSave}
      >
        {draft.sending ? 'Recording...' : fresh ? 'Enter this machine' : 'Record the change of path'}
      </button>
    </div>
    {needed !== '' && <p className="soft text-sm">{needed}</p>}
  </div>
);

/** The first obstacle to recording the draft. */
const neededOf = (d: Draft, preview: Preview, fresh: boolean): string => {
  if (preview.failures.length > 0) return 'Fix the path first.';
  if (d.bad.length > 0) return 'A field cannot be read. Check the fields marked red.';
  if (d.stages.some((s) => s.name.trim() === '')) return 'Every stage needs a name.';
  if (fresh && d.tag.trim() === '') return 'Tag is needed.';
  if (fresh && d.firstUsedOn.trim() !== '' && !isCalendarDate(d.firstUsedOn.trim()))
    return 'Write the day it came into use like 2026-01-31, or leave it empty.';
  if (d.machine.name.trim() === '') return 'Name is needed.';
  if (d.machine.place.trim() === '') return 'Place is needed.';
  return d.by.trim() === '' ? 'Your initials are needed.' : '';
};

/** An entered machine is mostly not new: it counts as clean only if a person says so. */
const dustNeeded = ({ own }: DustSaid, text: string): string =>
  text.trim() === ''
    ? 'Say what it has collected; "nothing yet" if never used.'
    : own.toConfirm.length > 0
      ? 'Say yes or no to what it may have collected.'
      : '';

interface AboutProps extends Pick<EditProps, 'machine' | 'units'> {
  readonly draft: Draft;
  readonly dispatch: (a: EditAction) => void;
  /** Extra fields of a new machine. */
  readonly children: ReactNode;
}

/** The machine's own fields; folded away for a recorded machine, with links to its other settings. */
const About = ({ machine, units, draft, dispatch, children }: AboutProps) =>
  machine ? (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center font-bold">
        The machine: plate, place, hose, voltage
      </summary>
      <MachineFields draft={draft} dispatch={dispatch} units={units} fresh={false} />
      <p className="pt-2">
        <a className="text-primary font-semibold underline" href={`/m/${encodeURIComponent(machine.tag)}/dust`}>
          What it has collected
        </a>{' '}
        is said on a page of its own; so is{' '}
        <a className="text-primary font-semibold underline" href={`/m/${encodeURIComponent(machine.tag)}/tag`}>
          a tag that is wrong
        </a>
        , and{' '}
        <a className="text-primary font-semibold underline" href={`/m/${encodeURIComponent(machine.tag)}/retire`}>
          retire it
        </a>
        .{' '}
        <a
          className="text-primary font-semibold underline"
          href={`/machines/new?like=${encodeURIComponent(machine.tag)}`}
        >
          Another machine like this one
        </a>
      </p>
    </details>
  ) : (
    <>
      <MachineFields draft={draft} dispatch={dispatch} units={units} fresh />
      {children}
    </>
  );

/**
 * Edits a machine: its path by drag, arrow keys or template, the part, seat and rating of each stage, and its own facts.
 */
export const Edit = (props: EditProps) => {
  const { machine, units, parts } = props;
  const [draft, dispatch] = useReducer(editReducer, props, (p) => (p.machine ? startEdit(p.machine, p) : startNew(p)));
  useEffect(() => {
    document.documentElement.dataset['edit'] = 'ready';
  }, []);
  const [dust, setDust] = useState<DustStatement>(() => stated(''));
  const said = dustSaid({ statement: dust, dust: NO_DUST, ownDusts: props.ownDusts });
  const preview = previewOf(draft);
  const selected = draft.stages.find((s) => s.key === draft.selected);
  const needed = neededOf(draft, preview, machine === null) || (machine === null ? dustNeeded(said, dust.text) : '');
  const save = async () => {
    dispatch({ type: 'sending' });
    const posted = await postAction(
      machine ? `/api/machines/${encodeURIComponent(machine.tag)}/path` : '/api/machines',
      bodyOf(draft, machine, dust),
    );
    if (!posted.ok) {
      dispatch({ type: 'refused', problems: posted.problems, clientId: newClientId() });
      return;
    }
    setChoice('mw_by', draft.by.trim().toUpperCase());
    window.location.assign(
      `/m/${encodeURIComponent(draft.tag.trim().toUpperCase())}/path?saved${machine ? '' : '=new'}`,
    );
  };
  return (
    <div className="space-y-3 pt-2">
      <About {...props} draft={draft} dispatch={dispatch}>
        <DustQuestion
          legend="What has it collected so far?"
          statement={dust}
          set={(over) => setDust((held) => ({ ...held, ...over }))}
          said={said}
          problems={draft.problems}
        />
      </About>
      <PreviewCard preview={preview} units={units} />
      <div className="grid gap-6 lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
        <div>
          <PathList draft={draft} dispatch={dispatch} wrong={pointedAt(preview.failures)} ruleSet={props.ruleSet} />
        </div>
        {selected ? (
          <StageForm key={selected.key} stage={selected} dispatch={dispatch} units={units} parts={parts}>
            {selected.id === null && (
              <WhenDue
                stage={selected}
                dispatch={dispatch}
                of={{
                  kind: draft.kind,
                  machineClass: draft.machine.machineClass,
                  ruleSet: props.ruleSet,
                  hasGauge: selected.spec.fit.gaugePa !== null,
                }}
              />
            )}
          </StageForm>
        ) : (
          <p className="soft">Choose a stage to see its part, its seat and its rating.</p>
        )}
      </div>
      <SaveBar draft={draft} dispatch={dispatch} needed={needed} fresh={machine === null} onSave={() => void save()} />
    </div>
  );
};
