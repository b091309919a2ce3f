import type { ReactNode } from 'react';
import type { GaugeZone, HandWord, LightState } from '@/core/measure/detail';
import type { DetailEntry } from '@/core/measure/detail-entry';
import { HAND_WORDS, LIGHT_WORDS, ZONE_WORDS } from '@/messages/outcomes';
import { type EntryProps, Pick, type Props, set, StagePick, TypedInput } from './detail-inputs';
import { CurveFields, DuctFields, PlateFields } from './FlowDetails';

const ParticleFields = ({
  entry,
  dispatch,
  problems,
}: Omit<Props, 'machine' | 'state'> & { entry: Extract<DetailEntry, { kind: 'particles' }> }) => (
  <div className="grid grid-cols-2 gap-2">
    <div className="col-span-2">
      <Pick
        label="Size from"
        values={[0.3, 0.5, 1, 5] as const}
        chosen={entry.sizeUm as 0.3}
        words={(v) => `${v} µm`}
        pick={(sizeUm) => set(dispatch, { ...entry, sizeUm })}
      />
    </div>
    <TypedInput
      label="Flow of the counter"
      value={entry.flow}
      kind="flow"
      path="detail.flow"
      problems={problems}
      onChange={(flow) => set(dispatch, { ...entry, flow })}
    />
    <TypedInput
      label="Room counted for"
      value={entry.roomTime}
      kind="duration"
      path="detail.roomTime"
      problems={problems}
      onChange={(roomTime) => set(dispatch, { ...entry, roomTime })}
    />
    <TypedInput
      label="Exhaust counted for"
      value={entry.exhaustTime}
      kind="duration"
      path="detail.exhaustTime"
      problems={problems}
      onChange={(exhaustTime) => set(dispatch, { ...entry, exhaustTime })}
    />
    <p className="soft col-span-2 text-xs">Never in the wet exhaust of a water-bath machine: droplets count as dust.</p>
  </div>
);

const LightFields = ({ entry, dispatch, problems }: EntryProps<'light'>) => (
  <div className="space-y-2">
    <Pick
      label="The light is"
      values={Object.keys(LIGHT_WORDS) as LightState[]}
      chosen={entry.light}
      words={(v) => LIGHT_WORDS[v]}
      pick={(light) => set(dispatch, { ...entry, light })}
      large
    />
    <div className="grid grid-cols-2 gap-2">
      <label className="block">
        <span className="caption">Which light, at which speed</span>
        <input
          className="field"
          value={entry.name}
          maxLength={80}
          onChange={(e) => set(dispatch, { ...entry, name: e.target.value })}
        />
      </label>
      <TypedInput
        label="Seconds after the start"
        value={entry.after}
        kind="duration"
        path="detail.after"
        problems={problems}
        onChange={(after) => set(dispatch, { ...entry, after })}
      />
    </div>
  </div>
);

/** Inputs of the chosen method besides its readings. */
export const MethodFields = ({ state, dispatch, problems, machine }: Props): ReactNode => {
  const entry = state.details[state.method];
  switch (entry.kind) {
    case 'none':
      return null;
    case 'round':
    case 'rectangular':
      return <DuctFields entry={entry} dispatch={dispatch} problems={problems} />;
    case 'plate':
      return <PlateFields entry={entry} dispatch={dispatch} problems={problems} />;
    case 'curve':
      return <CurveFields entry={entry} dispatch={dispatch} problems={problems} state={state} />;
    case 'stage':
      return (
        <StagePick machine={machine} stageId={entry.stageId} pick={(stageId) => set(dispatch, { ...entry, stageId })} />
      );
    case 'mass':
      return (
        <div className="grid grid-cols-2 gap-2">
          <StagePick
            machine={machine}
            stageId={entry.stageId}
            pick={(stageId) => set(dispatch, { ...entry, stageId })}
          />
          <TypedInput
            label="A new one weighs"
            value={entry.newMass}
            kind="mass"
            path="detail.newMass"
            problems={problems}
            onChange={(newMass) => set(dispatch, { ...entry, newMass })}
          />
        </div>
      );
    case 'particles':
      return <ParticleFields entry={entry} dispatch={dispatch} problems={problems} />;
    case 'zone':
      return (
        <div className="space-y-2">
          <StagePick
            machine={machine}
            stageId={entry.stageId}
            pick={(stageId) => set(dispatch, { ...entry, stageId })}
          />
          <Pick
            label="Needle is in"
            values={Object.keys(ZONE_WORDS) as GaugeZone[]}
            chosen={entry.zone}
            words={(v) => ZONE_WORDS[v]}
            pick={(zone) => set(dispatch, { ...entry, zone })}
            large
          />
        </div>
      );
    case 'hand':
      return (
        <Pick
          label="The air feels"
          values={Object.keys(HAND_WORDS) as HandWord[]}
          chosen={entry.word}
          words={(v) => HAND_WORDS[v]}
          pick={(word) => set(dispatch, { ...entry, word })}
          large
        />
      );
    case 'light':
      return <LightFields entry={entry} dispatch={dispatch} problems={problems} />;
  }
};
