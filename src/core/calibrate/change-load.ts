import type { Machine } from '../machine/machine';
import type { TestRecord } from '../record/records';
import { loadOfChange, type StageLoad } from './load';
import type { ModelledMachine } from './machine-model';
import { observationsOfTest } from './observations-of-tests';

/** The restriction of a changed part: its load, and its pressure at the flow before. */
export interface OldPart {
  readonly load: StageLoad;
  readonly dropPa: number;
}

export interface ChangeLoadInput {
  readonly machine: Machine;
  readonly modelled: ModelledMachine;
  readonly stageId: number;
  readonly before: TestRecord;
  readonly after: TestRecord;
}

/**
 * The restriction of the removed part, from the flow before and after its change at one place. Source: the air-path
 * model solved backwards (`loadOfChange`). null where it cannot be derived: no medium, no flow tests of one place, a
 * machine that is not calibrated, or no gain.
 */
export const oldPartOf = ({ machine, modelled, stageId, before, after }: ChangeLoadInput): OldPart | null => {
  const position = machine.stages.findIndex((s) => s.id === stageId);
  const [first, second] = [before, after].map((t) => observationsOfTest(t, machine).find((o) => o.what === 'flow'));
  if (
    modelled.basis.kind !== 'calibrated' ||
    position < 0 ||
    first?.what !== 'flow' ||
    second?.what !== 'flow' ||
    before.test.place !== after.test.place ||
    first.at !== 'in'
  )
    return null;
  const { model, parameters } = modelled;
  const others = new Map(
    machine.stages.flatMap((s, i) =>
      i !== position && !s.missing && s.spec.air.form === 'medium' ? [[i, 1] as const] : [],
    ),
  );
  const question = {
    model,
    parameters,
    state: first.state,
    entry: first.entry,
    others: others.size > 0 ? others : new Map([[position, 1]]),
  };
  const load = loadOfChange({ ...question, position, beforeM3s: first.value, afterM3s: second.value });
  if (!load.ok) return null;
  return { load: load.value, dropPa: load.value.resistancePaSM3 * first.value };
};
