import { useEffect, useReducer } from 'react';
import { type ChangeRecord } from '@/core/record/records';
import { AirPathStrip } from '@/ui/air-path/strip';
import { setChoice } from '@/ui/cookies';
import { Refused } from '@/ui/dust/dust-question';
import { momentSent } from '@/ui/local-moment';
import { postAction } from '@/ui/post-action';
import { BeforeTest, HowDone } from './how-done';
import { changeOfRecord, changeReducer, type ChangeState, startChange } from './state';
import { type ChangeProps, PartChoice, ReasonChoice, type ShelfPart, Signature, StageChoice } from './choices';
import { Record, Warning } from './record';

const bodyOf = (state: ChangeState, part: ShelfPart | null, correcting: ChangeRecord | null) => ({
  how:
    state.doneHow.trim() === ''
      ? null
      : { by: (state.doneBy.trim() || state.by.trim()).toUpperCase(), how: state.doneHow },
  clientId: state.clientId,
  by: state.by.trim().toUpperCase(),
  performedAt: momentSent(state.when),
  stageId: state.stageId,
  reason: state.reason,
  partId: state.fromStock ? (part?.id ?? null) : null,
  quantity: state.quantity,
  beforeTestId: state.beforeTestId,
  note: state.note,
  ...(correcting ? { supersedesId: correcting.id, correctionReason: state.correctionReason } : {}),
});

/** The bench's Change: stage, reason, part, before; recorded in one go, then measured again. */
export const Change = (props: ChangeProps) => {
  const { machine, correcting } = props;
  const [state, dispatch] = useReducer(changeReducer, props, (p) =>
    p.correcting
      ? changeOfRecord(p.correcting, p.clientId)
      : startChange({ ...p, beforeTestId: p.before.find((b) => b.recent)?.id ?? null }),
  );
  useEffect(() => {
    document.documentElement.dataset['change'] = 'ready';
  }, []);
  const stage = machine.stages.find((s) => s.id === state.stageId) ?? null;
  const part = props.parts.find((p) => p.id === stage?.part?.id) ?? null;
  const send = async () => {
    dispatch({ type: 'sending' });
    const base = `/api/machines/${encodeURIComponent(machine.tag)}/changes`;
    const posted = await postAction(correcting ? `${base}/correct` : base, bodyOf(state, part, correcting));
    if (!posted.ok) {
      dispatch({ type: 'refused', problems: posted.problems });
      return;
    }
    setChoice('mw_by', state.by.trim().toUpperCase());
    window.location.assign(`/m/${machine.tag}/changes/${posted.reply.id}`);
  };
  const form = { state, dispatch };
  if (machine.dust.standing.refusal) {
    return (
      <div>
        <AirPathStrip compact view={props.view} units={props.units} machine={machine} due={props.due} />
        <Refused standing={machine.dust.standing} />
      </div>
    );
  }
  return (
    <div>
      <AirPathStrip
        compact
        view={props.view}
        units={props.units}
        machine={machine}
        due={props.due}
        openStageId={state.stageId}
      />
      <Warning machine={machine} stageId={state.stageId} guided={!correcting} />
      <div className="grid gap-4 py-3 lg:grid-cols-2">
        <div className="space-y-4">
          <StageChoice {...form} machine={machine} due={props.due} />
          <ReasonChoice {...form} />
        </div>
        <div className="space-y-4">
          <PartChoice {...form} part={part} machine={machine} />
          {machine.hazard !== 'plain' && <HowDone {...form} level={machine.hazard} />}
          <BeforeTest {...form} before={props.before} />
          <Signature {...form} correcting={correcting !== null} />
          <Record state={state} correcting={correcting !== null} send={send} />
        </div>
      </div>
    </div>
  );
};
