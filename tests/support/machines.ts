import { MACHINE_KINDS } from '@/core/machine/kinds';
import { NO_DUST } from '@/core/dust/history';
import type { MachineKind } from '@/core/machine/kinds';
import type { Machine, Stage } from '@/core/machine/machine';
import type { ChangeRecord } from '@/core/record/records';
import type { MachineModel, PathState } from '@/core/path/machine-path';
import { REFERENCE_AIR } from '@/core/path/model/air';
import { NOMINAL_DRIVE } from '@/core/path/model/fan';
import { stageTemplate } from '@/core/machine/stage-templates';

/** A stage of an extractor in good order; what a test needs is laid over it. */
export const stageOf = (id: number, over: Partial<Stage> = {}): Stage => ({
  id,
  position: id,
  kind: 'bag',
  name: 'bag',
  part: null,
  missing: false,
  missingSince: null,
  doNotRemove: false,
  firstUsedOn: '2026-01-01',
  fittedOn: null,
  openedAt: null,
  proven: [],
  looks: [],
  rules: [],
  spec: stageTemplate(over.kind ?? 'bag', 'mExtractor'),
  ...over,
});

export const machineOf = (stages: readonly Stage[], over: Partial<Machine> = {}): Machine => ({
  id: 1,
  tag: 'T-1',
  name: 'Test',
  kind: 'mExtractor',
  maker: 'Maker A',
  place: 'here',
  machineClass: 'M',
  lastCollected: 'dust',
  hazard: 'plain',
  dust: NO_DUST,
  hasBrush: false,
  hoseBoreM: 0.027,
  hoseLengthM: 3,
  hoseSelectorM: 0.027,
  nominalVolts: 230,
  wetSet: false,
  inServiceOn: '2026-01-01',
  hours: [],
  stages,
  examinations: [],
  penetration: [],
  retired: [],
  editedThrough: 0,
  timeZone: 'UTC',
  reshapedAt: null,
  ...over,
});

/** The stages of a kind's template, as entered on a new record. */
export const templateMachine = (kind: MachineKind, over: Partial<Machine> = {}): Machine =>
  machineOf(
    MACHINE_KINDS[kind].path.map((stageKind, i) =>
      stageOf(i + 1, { position: i, kind: stageKind, name: stageKind, spec: stageTemplate(stageKind, kind) }),
    ),
    { kind, hoseBoreM: 0.036, hoseLengthM: 4, ...over },
  );

export const modelOf = (machine: Machine): MachineModel => ({
  stages: machine.stages,
  hoseBoreM: machine.hoseBoreM,
  hoseLengthM: machine.hoseLengthM,
});

export const CLEAN_STATE: PathState = { stages: {}, leaksM2: {}, hose: null, drive: NOMINAL_DRIVE, air: REFERENCE_AIR };

/** A standing change of stage 1; what a test needs is laid over it. */
export const changeRecord = (
  over: Pick<ChangeRecord, 'id' | 'performedOn' | 'reason'> & Partial<ChangeRecord>,
): ChangeRecord => ({
  machineId: 1,
  stageId: 1,
  performedAt: `${over.performedOn}T10:00:00.000Z`,
  recordedAt: `${over.performedOn}T10:00:00.000Z`,
  by: 'MK',
  note: '',
  supersedesId: null,
  supersededById: null,
  voided: false,
  correctionReason: null,
  partId: 1,
  quantity: 1,
  beforeTestId: null,
  jobId: null,
  how: null,
  ...over,
});
