import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { STAGE_KINDS, type StageKind } from '@/core/path/stage-kinds';
import { capital } from '@/messages/words';
import { AirFields } from './AirFields';
import { FitFields } from './FitFields';
import { Choose, type StageFieldProps, Tick } from './fields';
import type { EditAction } from './state';

interface StageFormProps extends StageFieldProps {
  readonly parts: readonly { readonly id: number; readonly code: string; readonly name: string }[];
  readonly children?: ReactNode;
}

/** Stages that may have a bag below them: then it is the part that is changed. */
const BAGGED: readonly StageKind[] = ['cyclone', 'dropChamber'];

/** Everything about the chosen stage. */
export const StageForm = (p: StageFormProps) => {
  const { stage, dispatch, parts } = p;
  const facts = STAGE_KINDS[stage.kind];
  const change = (c: Extract<EditAction, { type: 'stage' }>['change']) =>
    dispatch({ type: 'stage', key: stage.key, change: c });
  return (
    <section className="panel space-y-3 p-3" aria-label={`The ${stage.name}`}>
      <div className="flex items-end gap-3">
        <label className="min-w-0 flex-1">
          <span className="caption">Name of this {facts.label}</span>
          <input
            className="field font-bold"
            value={stage.name}
            maxLength={40}
            aria-invalid={stage.name.trim() === ''}
            onChange={(e) => change({ name: e.currentTarget.value })}
          />
        </label>
        <button
          type="button"
          className="choice flex items-center gap-1.5 font-semibold"
          onClick={() => dispatch({ type: 'remove', key: stage.key })}
        >
          <Trash2 size={16} aria-hidden="true" /> Take it off
        </button>
      </div>
      <AirFields {...p} key={`${stage.key}-air`} />
      {(facts.changeable || BAGGED.includes(stage.kind)) && (
        <Choose
          label="Part that belongs here"
          value={stage.partId === null ? '' : String(stage.partId)}
          options={[
            ['', 'none on the shelf'],
            ...parts.map((part) => [String(part.id), `${part.code} ${part.name}`] as const),
          ]}
          onChoose={(id) => change({ partId: id === '' ? null : Number(id) })}
        />
      )}
      {p.children}
      {stage.spec.air.form === 'medium' && <FitFields {...p} key={`${stage.key}-fit`} />}
      {stage.kind !== 'fan' && (
        <div className="grid sm:grid-cols-2">
          {facts.filters && (
            <Tick
              label="It is missing"
              hint="Recorded, and the class wording is withdrawn everywhere until it is back and proven."
              on={stage.missing}
              onTick={(missing) => change({ missing })}
            />
          )}
          <Tick
            label="Do not remove"
            hint={`${capital(facts.label)} that stays in, however dirty it looks.`}
            on={stage.doNotRemove}
            onTick={(doNotRemove) => change({ doNotRemove })}
          />
        </div>
      )}
    </section>
  );
};
