import type { Machine } from '@/core/machine/machine';
import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';
import { type EditedMachine, type EditedStage, type PathSnapshot, snapshotOf } from '@/core/machine/path-edit';
import { type RuleTemplate } from '@/core/interval/rule-templates';
import { freeName, newPath } from '@/core/machine/new-path';
import { stageTemplate } from '@/core/machine/stage-templates';
import { STAGE_KINDS, type StageKind } from '@/core/path/stage-kinds';
import type { StageSpec } from '@/core/path/stage-spec';
import type { Problem } from '@/messages/failures';

/** A stage under the editor's hands; `key` names it on the screen, saved or not. */
export interface DraftStage extends EditedStage {
  readonly key: string;
  /** Chosen rules of a new stage; null takes the usual ones. */
  readonly rules: readonly RuleTemplate[] | null;
}

export interface Draft {
  readonly tag: string;
  /** Since when a new machine has been in use; '' for today. */
  readonly firstUsedOn: string;
  readonly kind: MachineKind;
  readonly machine: EditedMachine;
  readonly stages: readonly DraftStage[];
  readonly selected: string | null;
  /** Fields with text that cannot be read. */
  readonly bad: readonly string[];
  readonly made: number;
  readonly by: string;
  readonly note: string;
  readonly clientId: string;
  readonly sending: boolean;
  readonly problems: readonly Problem[];
}

export type EditAction =
  | { readonly type: 'select'; readonly key: string }
  | { readonly type: 'add'; readonly kind: StageKind; readonly before: string | null }
  | { readonly type: 'move'; readonly key: string; readonly to: number }
  | { readonly type: 'remove'; readonly key: string }
  | { readonly type: 'stage'; readonly key: string; readonly change: Partial<Omit<DraftStage, 'id' | 'kind' | 'key'>> }
  | { readonly type: 'machine'; readonly change: Partial<EditedMachine> }
  | { readonly type: 'kind'; readonly kind: MachineKind }
  | { readonly type: 'tag'; readonly tag: string }
  | { readonly type: 'firstUsed'; readonly on: string }
  | { readonly type: 'sign'; readonly by?: string; readonly note?: string }
  | { readonly type: 'bad'; readonly field: string; readonly bad: boolean }
  | { readonly type: 'sending' }
  | { readonly type: 'refused'; readonly problems: readonly Problem[]; readonly clientId: string };

const newStage = (kind: StageKind, d: Pick<Draft, 'kind' | 'made' | 'stages'>): DraftStage => ({
  key: `new-${d.made + 1}`,
  rules: null,
  id: null,
  kind,
  name: freeName(
    STAGE_KINDS[kind].label,
    d.stages.map((s) => s.name),
  ),
  partId: null,
  missing: false,
  doNotRemove: false,
  spec: stageTemplate(kind, d.kind),
});

const templateStages = (kind: MachineKind): readonly DraftStage[] =>
  newPath(kind).map((s, i) => ({ ...s, key: `new-${i + 1}`, rules: null }));

export const startEdit = (machine: Machine, { by, clientId }: { by: string; clientId: string }): Draft => {
  const { machine: fields, stages } = snapshotOf(machine);
  return {
    tag: machine.tag,
    firstUsedOn: '',
    kind: machine.kind,
    machine: fields,
    stages: stages.map((s) => ({ ...s, rules: null, key: `stage-${s.id ?? ''}` })),
    selected: null,
    bad: [],
    made: 0,
    by,
    note: '',
    clientId,
    sending: false,
    problems: [],
  };
};

const BLANK: EditedMachine = {
  name: '',
  maker: '',
  place: '',
  machineClass: null,
  hasBrush: false,
  wetSet: false,
  hoseBoreM: MACHINE_KINDS.shopVacuum.hoseM,
  hoseLengthM: 3,
  hoseSelectorM: null,
  nominalVolts: 230,
};

interface NewStart {
  readonly by: string;
  readonly clientId: string;
  /** Another like this one: its path and plate, with stages of its own. */
  readonly like?: Machine | null;
}

const alike = (machine: Machine): Pick<Draft, 'kind' | 'machine' | 'stages'> => {
  const { machine: fields, stages } = snapshotOf(machine);
  const rulesOf = (id: number | null): readonly RuleTemplate[] =>
    (machine.stages.find((s) => s.id === id)?.rules ?? [])
      .filter(({ rule }) => rule.kind !== 'countOfChanges' && rule.kind !== 'together')
      .map(({ rule, school }) => ({ rule, school }));
  return {
    kind: machine.kind,
    machine: fields,
    stages: stages.map((s, i) => ({ ...s, rules: rulesOf(s.id), id: null, missing: false, key: `like-${i}` })),
  };
};

export const startNew = ({ by, clientId, like = null }: NewStart): Draft => ({
  tag: '',
  firstUsedOn: '',
  kind: 'shopVacuum',
  machine: BLANK,
  stages: templateStages('shopVacuum'),
  selected: null,
  bad: [],
  made: 20,
  by,
  note: '',
  clientId,
  sending: false,
  problems: [],
  ...(like ? alike(like) : {}),
});

const moved = (stages: readonly DraftStage[], key: string, to: number): readonly DraftStage[] => {
  const stage = stages.find((s) => s.key === key);
  if (!stage) return stages;
  const rest = stages.filter((s) => s.key !== key);
  const place = Math.max(0, Math.min(rest.length, to));
  return [...rest.slice(0, place), stage, ...rest.slice(place)];
};

const added = (d: Draft, kind: StageKind, before: string | null): Draft => {
  const stage = newStage(kind, d);
  const at = before === null ? d.stages.length : d.stages.findIndex((s) => s.key === before);
  const place = at < 0 ? d.stages.length : at;
  return {
    ...d,
    made: d.made + 1,
    selected: stage.key,
    stages: [...d.stages.slice(0, place), stage, ...d.stages.slice(place)],
  };
};

/** Its hose is its kind's until another is typed: a collector has a duct. */
const ofKind = (d: Draft, kind: MachineKind): Draft => {
  const untouched = d.machine.hoseBoreM === MACHINE_KINDS[d.kind].hoseM;
  return { ...d, kind, machine: untouched ? { ...d.machine, hoseBoreM: MACHINE_KINDS[kind].hoseM } : d.machine };
};

/** The machine editor's one reducer. */
export const editReducer = (d: Draft, a: EditAction): Draft => {
  switch (a.type) {
    case 'select':
      return { ...d, selected: a.key };
    case 'add':
      return added(d, a.kind, a.before);
    case 'move':
      return { ...d, stages: moved(d.stages, a.key, a.to) };
    case 'remove':
      return {
        ...d,
        stages: d.stages.filter((s) => s.key !== a.key),
        selected: d.selected === a.key ? null : d.selected,
        bad: d.bad.filter((f) => !f.startsWith(a.key)),
      };
    case 'stage':
      return { ...d, stages: d.stages.map((s) => (s.key === a.key ? { ...s, ...a.change } : s)) };
    case 'machine':
      return { ...d, machine: { ...d.machine, ...a.change } };
    case 'kind':
      return { ...ofKind(d, a.kind), stages: templateStages(a.kind), selected: null, made: 20, bad: [] };
    case 'tag':
      return { ...d, tag: a.tag };
    case 'firstUsed':
      return { ...d, firstUsedOn: a.on };
    case 'sign':
      return { ...d, by: a.by ?? d.by, note: a.note ?? d.note };
    case 'bad':
      return {
        ...d,
        bad: a.bad ? [...d.bad.filter((f) => f !== a.field), a.field] : d.bad.filter((f) => f !== a.field),
      };
    case 'sending':
      return { ...d, sending: true, problems: [] };
    case 'refused':
      return { ...d, sending: false, problems: a.problems, clientId: a.clientId };
  }
};

/** The snapshot to send: the draft without screen state. */
export const snapshotOfDraft = (d: Draft): PathSnapshot => ({
  machine: d.machine,
  stages: d.stages.map(({ id, kind, name, partId, missing, doNotRemove, spec }) => ({
    id,
    kind,
    name,
    partId,
    missing,
    doNotRemove,
    spec,
  })),
});

export const withAir = (spec: StageSpec, air: StageSpec['air']): StageSpec => ({ ...spec, air });
export const withFit = (spec: StageSpec, fit: Partial<StageSpec['fit']>): StageSpec => ({
  ...spec,
  fit: { ...spec.fit, ...fit },
});
