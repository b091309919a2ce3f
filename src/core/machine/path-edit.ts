import type { StageKind } from '../path/stage-kinds';
import type { MachineModel } from '../path/machine-path';
import type { StageSpec } from '../path/stage-spec';
import type { Machine, MachineClass } from './machine';

/** One stage as the machine editor holds it. */
export interface EditedStage {
  /** null for one that was added. */
  readonly id: number | null;
  readonly kind: StageKind;
  readonly name: string;
  readonly partId: number | null;
  readonly missing: boolean;
  readonly doNotRemove: boolean;
  readonly spec: StageSpec;
}

/** What of a machine can be edited. SI. */
export interface EditedMachine {
  readonly name: string;
  readonly maker: string;
  readonly place: string;
  readonly machineClass: MachineClass | null;
  readonly hasBrush: boolean;
  readonly wetSet: boolean;
  readonly hoseBoreM: number | null;
  readonly hoseLengthM: number | null;
  readonly hoseSelectorM: number | null;
  readonly nominalVolts: number;
}

/** A machine before or after an edit: kept whole in the record of the edit. */
export interface PathSnapshot {
  readonly machine: EditedMachine;
  readonly stages: readonly EditedStage[];
}

export interface PathEditRecord {
  readonly id: number;
  readonly machineId: number;
  readonly performedAt: string;
  readonly by: string;
  readonly note: string;
  readonly before: PathSnapshot;
  readonly after: PathSnapshot;
}

export const snapshotOf = (machine: Machine): PathSnapshot => ({
  machine: {
    name: machine.name,
    maker: machine.maker,
    place: machine.place,
    machineClass: machine.machineClass,
    hasBrush: machine.hasBrush,
    wetSet: machine.wetSet,
    hoseBoreM: machine.hoseBoreM,
    hoseLengthM: machine.hoseLengthM,
    hoseSelectorM: machine.hoseSelectorM,
    nominalVolts: machine.nominalVolts,
  },
  stages: machine.stages.map(({ id, kind, name, part, missing, doNotRemove, spec }) => ({
    id,
    kind,
    name,
    partId: part?.id ?? null,
    missing,
    doNotRemove,
    spec,
  })),
});

export type PathDifference =
  | { readonly kind: 'added' | 'removed' | 'missing' | 'restored' | 'refitted' | 'resized'; readonly stage: string }
  | { readonly kind: 'moved' }
  | { readonly kind: 'renamed'; readonly stage: string; readonly was: string }
  | { readonly kind: 'machine'; readonly field: keyof EditedMachine };

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

const stageDifferences = (was: EditedStage, now: EditedStage): readonly PathDifference[] => [
  ...(was.name !== now.name ? [{ kind: 'renamed' as const, stage: now.name, was: was.name }] : []),
  ...(was.missing !== now.missing
    ? [{ kind: now.missing ? ('missing' as const) : ('restored' as const), stage: now.name }]
    : []),
  ...(same(was.spec.air, now.spec.air) ? [] : [{ kind: 'resized' as const, stage: now.name }]),
  ...(same([was.spec.fit, was.partId, was.doNotRemove], [now.spec.fit, now.partId, now.doNotRemove])
    ? []
    : [{ kind: 'refitted' as const, stage: now.name }]),
];

const FIELDS: readonly (keyof EditedMachine)[] = [
  'name',
  'maker',
  'place',
  'machineClass',
  'hasBrush',
  'wetSet',
  'hoseBoreM',
  'hoseLengthM',
  'hoseSelectorM',
  'nominalVolts',
];

/** The changes of an edit, in path order; empty without any. */
export const pathDifferences = (before: PathSnapshot, after: PathSnapshot): readonly PathDifference[] => {
  const kept = before.stages.filter((s) => after.stages.some((x) => x.id === s.id));
  const stillThere = after.stages.filter((s) => s.id !== null && kept.some((x) => x.id === s.id));
  return [
    ...after.stages.flatMap((now): readonly PathDifference[] => {
      const was = before.stages.find((s) => s.id === now.id && now.id !== null);
      return was ? stageDifferences(was, now) : [{ kind: 'added', stage: now.name }];
    }),
    ...before.stages.filter((s) => !kept.includes(s)).map((s): PathDifference => ({ kind: 'removed', stage: s.name })),
    ...(same(
      kept.map((s) => s.id),
      stillThere.map((s) => s.id),
    )
      ? []
      : [{ kind: 'moved' as const }]),
    ...FIELDS.filter((f) => before.machine[f] !== after.machine[f]).map((field): PathDifference => ({
      kind: 'machine',
      field,
    })),
  ];
};

/** Whether the air runs another way, or through something else, than before: older baselines no longer speak of it. */
export const reshapes = (differences: readonly PathDifference[]): boolean =>
  differences.some(
    (d) =>
      d.kind === 'added' ||
      d.kind === 'removed' ||
      d.kind === 'resized' ||
      d.kind === 'moved' ||
      (d.kind === 'machine' && (d.field === 'hoseBoreM' || d.field === 'hoseLengthM')),
  );

/** A snapshot as the air-path model sees it; a stage that is new has a number of its own below 0. */
export const modelOfSnapshot = ({ machine, stages }: PathSnapshot): MachineModel => ({
  stages: stages.map((s, i) => ({ id: s.id ?? -1 - i, kind: s.kind, name: s.name, missing: s.missing, spec: s.spec })),
  hoseBoreM: machine.hoseBoreM,
  hoseLengthM: machine.hoseLengthM,
});
