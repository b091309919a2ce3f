import { z } from 'zod';
import { Day } from './day';
import { DustStatementJson } from './dust';
import { MachineClassName, MachineKindName, StageKindName } from './enums';
import { ClientId, Initials, Note } from './requests';
import { PlausibleRule } from './rules';
import { StageSpecJson } from './stage-spec';

const Id = z.int().positive();
const Text = (most: number) => z.string().trim().min(1).max(most);
const Length = z.number().min(0.001).max(200);

export const EditedMachineJson = z.strictObject({
  name: Text(120),
  maker: z.string().trim().max(60),
  place: Text(80),
  machineClass: MachineClassName.nullable(),
  hasBrush: z.boolean(),
  wetSet: z.boolean(),
  hoseBoreM: Length.max(2).nullable(),
  hoseLengthM: Length.nullable(),
  hoseSelectorM: Length.max(2).nullable(),
  nominalVolts: z.number().min(50).max(600),
});

export const EditedStageJson = z.strictObject({
  id: Id.nullable(),
  kind: StageKindName,
  name: Text(40),
  partId: Id.nullable(),
  missing: z.boolean(),
  doNotRemove: z.boolean(),
  spec: StageSpecJson,
});

/** An older edit also held what the machine had collected: that is read from its dust history now. */
const StoredMachineJson = z.preprocess((stored) => {
  if (typeof stored !== 'object' || stored === null) return stored;
  return Object.fromEntries(Object.entries(stored).filter(([key]) => key !== 'lastCollected' && key !== 'hazard'));
}, EditedMachineJson);

export const StoredSnapshotJson = z.strictObject({
  machine: StoredMachineJson,
  stages: z.array(EditedStageJson).max(30),
});

export const PathSnapshotJson = z.strictObject({
  machine: EditedMachineJson,
  stages: z.array(EditedStageJson).max(30),
});

/** The rules a new stage begins with, by its place in the path; null takes the usual ones, none at all is a choice. */
const NewStageRules = z
  .array(
    z
      .array(z.strictObject({ rule: PlausibleRule, school: z.string().trim().max(120) }))
      .max(12)
      .nullable(),
  )
  .max(30)
  .optional();

const action = {
  clientId: ClientId,
  by: Initials,
  note: Note,
  rules: NewStageRules,
};

export const EditPathBody = z.strictObject({
  ...action,
  /** The newest edit the editor has seen: a later one means that another person edited the path. */
  seen: z.int().min(0),
  path: PathSnapshotJson,
});
export type EditPathBody = z.infer<typeof EditPathBody>;

/** The tag on a label, letters and digits first. */
const Tag = z
  .string()
  .trim()
  .min(1)
  .max(16)
  .regex(/^[A-Za-z0-9][A-Za-z0-9.-]*$/);

/** Corrects a wrong tag; the old one still finds the machine. */
export const RetagBody = z.strictObject({ clientId: ClientId, by: Initials, tag: Tag });
export type RetagBody = z.infer<typeof RetagBody>;

/** What becomes of a machine that is no longer kept, or that it is kept again. */
export const RetireBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  how: z.enum(['retired', 'sold', 'back']),
  note: z.string().trim().max(300),
});
export type RetireBody = z.infer<typeof RetireBody>;

export const NewMachineBody = z.strictObject({
  ...action,
  tag: Tag,
  kind: MachineKindName,
  /** Its timers run from this day; null for today. */
  firstUsedOn: Day.nullable().default(null),
  /** The dust it has collected so far; "nothing yet" for a new one. */
  dust: DustStatementJson,
  path: PathSnapshotJson,
});
export type NewMachineBody = z.infer<typeof NewMachineBody>;
