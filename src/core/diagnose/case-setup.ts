import { DAY_MS } from '../calendar/time';
import { baselinesOf, type ModelledMachine } from '../calibrate/machine-model';
import { observationsOfTest } from '../calibrate/observations-of-tests';
import type { StageDue } from '../interval/due';
import { MACHINE_KINDS } from '../machine/kinds';
import type { Machine } from '../machine/machine';
import { type ChangeRecord, inForce, type TestRecord } from '../record/records';
import { type CaseRecord, caseState } from './case-log';
import { type Complaint, complaintFactor, wordsFactor } from './complaint';
import { faultPlaces, type MachineTraits } from './fault';
import { hypothesesOf } from './hypotheses';
import { type Case, openCase } from './posterior';
import { type MachineRecord, recordFactor } from './record-prior';
import { type CaseSetup, subjectOf } from './subject';

export type { CaseSetup } from './subject';

export interface SetupInput {
  readonly machine: Machine;
  readonly modelled: ModelledMachine;
  readonly tests: readonly TestRecord[];
  readonly changes: readonly ChangeRecord[];
  readonly due: readonly StageDue[];
  /** Earlier cases of this machine, and of the others of its maker and kind. */
  readonly own: readonly CaseRecord[];
  readonly twins: readonly CaseRecord[];
  /** The moment the case is opened. */
  readonly at: string;
}

/** Opened this long before the complaint, a stage is under suspicion of having been done wrong. A Moorwind default. */
const JUST_MS = 4 * DAY_MS;
const OF_A_TWIN = 0.5;

export const traitsOf = (machine: Machine): MachineTraits => ({
  hasLamp: MACHINE_KINDS[machine.kind].hoseVelocityLimit,
  hasBrush: machine.hasBrush,
  selectorM: machine.hoseSelectorM,
  machineClass: machine.machineClass,
});

/** Readings of the sound machine, by test; the newest baseline of each. */
const baselinesRead = ({ machine, tests }: SetupInput): Readonly<Record<string, number>> =>
  Object.fromEntries(
    baselinesOf(tests, machine.reshapedAt).flatMap((t) =>
      observationsOfTest(t, machine).flatMap((o): readonly (readonly [string, number])[] => {
        if (o.what === 'stageDp') return [[`stageDp ${o.position}`, o.value]];
        if (t.test.place === 'outlet') return [];
        if (o.what === 'flow') return [[`flow ${t.test.place}`, o.value]];
        return o.drawnM3s === 0 ? [[`sealed ${t.test.place}`, o.value]] : [];
      }),
    ),
  );

const causesOf = (cases: readonly CaseRecord[], weight: number): MachineRecord['causes'] =>
  cases.flatMap((c) => {
    const end = caseState(c).ended?.event;
    return end?.kind === 'closed' && end.root ? [{ ...end.root, weight }] : [];
  });

/** Dusts that blind a fine medium. Common practice, no published source. */
const BLINDING = new Set(['filler', 'gypsum', 'silica']);

const recordOf = ({ machine, changes, due, own, twins, at }: SetupInput): MachineRecord => ({
  wet: machine.wetSet || machine.dust.standing.dusts.some((d) => d.properties.includes('wet')),
  blinding: machine.dust.standing.dusts.some((d) => BLINDING.has(d.key)),
  causes: [...causesOf(own, 1), ...causesOf(twins, OF_A_TWIN)],
  stages: machine.stages.map((stage) => {
    const mine = due.find((d) => d.stageId === stage.id);
    const opened = inForce(changes).some(
      (c) => c.stageId === stage.id && c.performedAt <= at && Date.parse(at) - Date.parse(c.performedAt) <= JUST_MS,
    );
    return { lifeUsed: mine ? Math.max(0, 1 - mine.remaining) : null, justOpened: opened };
  }),
});

/** The basis for weighing a case of this machine: its model, its own baselines, and its record. */
export const caseSetup = (input: SetupInput): CaseSetup => {
  const { machine, modelled } = input;
  return {
    model: modelled.model,
    parameters: modelled.parameters,
    traits: traitsOf(machine),
    hoseM: machine.hoseBoreM,
    nominalVolts: machine.nominalVolts,
    calibrated: modelled.basis.kind === 'calibrated',
    baselines: baselinesRead(input),
    record: recordOf(input),
  };
};

export interface Complained {
  readonly complaint: Complaint;
  /** The complaint in the words of the person who reported it. */
  readonly words: string;
}

/** Opens the weighing of a case. */
export const caseOfSetup = (setup: CaseSetup, { complaint, words }: Complained): Case => {
  const { model, traits, record } = setup;
  const medium = (position: number) => model.stages[position]?.spec.air.form === 'medium';
  const [recorded, said] = [recordFactor(record, medium), wordsFactor(words)];
  return openCase(
    subjectOf(setup),
    hypothesesOf(faultPlaces(model, traits), {
      record: (place) => recorded(place) * said(place),
      complaint: complaintFactor(complaint, model),
    }),
  );
};
