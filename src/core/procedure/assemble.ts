import { fail, ok, type Result } from '../failure/failure';
import { dustParts } from '../machine/dust-parts';
import { integrityTestsOf } from '../machine/integrity';
import { wayOf } from '../machine/kinds';
import { type DustHazard, worst } from '../dust/level';
import type { Machine, Stage, MachineAirPath } from '../machine/machine';
import { chooseProcedure, type JobScope } from './choose';
import { ENDING_OF, endingOf } from './ending';
import type { MethodContext } from './method';
import { heldUntilProven, METHODS_OF, turnBack } from './methods';
import type { Precondition, Procedure, ProcedureId, Step } from './step';
import { worn, wornOn } from './worn';

/** Hours a washed medium stays out of service. A Moorwind default, a modelling choice. */
export const DRYING_HOURS = 24;

/** Whether a procedure can let dust past what carries the class: it puts something into a seat, or opens one. */
const opensSeat = (steps: readonly Step[], stage: number): boolean =>
  steps.some(
    (s) =>
      s.stage === stage &&
      (s.moves === 'fitNew' || s.moves === 'putOldBack' || s.moves === 'bagOld' || s.moves === 'holdOld'),
  );

/** The stages whose seat the steps open, with a screening due, deepest last. */
const testedIn = (machine: Machine, steps: readonly Step[]): readonly number[] =>
  machine.stages.flatMap((s, i) => (opensSeat(steps, i) && integrityTestsOf(machine, s).length > 0 ? [i] : []));

const beforeOf = (id: ProcedureId, machine: MachineAirPath): readonly Precondition[] => {
  const bag = machine.stages.findIndex((s) => s.kind === 'bag');
  return id === 'prefilterWrap' && bag >= 0 ? [{ kind: 'afterChangeOf', stage: bag }] : [];
};

const positionsOf = (machine: MachineAirPath, want: (s: Stage, i: number) => boolean): readonly number[] =>
  machine.stages.flatMap((s, i) => (want(s, i) && !s.missing ? [i] : []));

const NOTHING_WITH = (): readonly number[] => [];
const everyHolder = (machine: Machine): readonly number[] =>
  dustParts(machine).flatMap((p) => (p.at === 'stage' && p.place !== 'inside' ? [p.stage] : []));
const everyPart = (machine: Machine): readonly number[] =>
  positionsOf(machine, (s) => wayOf(machine, s) !== null && !s.doNotRemove);

/** The other stages that a procedure takes with it. A new wrap always goes with a screw-on HEPA. */
const GOES_WITH: Record<ProcedureId, (machine: Machine) => readonly number[]> = {
  plainBag: NOTHING_WITH,
  safetyBag: NOTHING_WITH,
  endlessLiner: NOTHING_WITH,
  cycloneBag: NOTHING_WITH,
  filterBags: NOTHING_WITH,
  tankBagHeadAside: NOTHING_WITH,
  tankBagSecondVacuum: NOTHING_WITH,
  prefilterWrap: NOTHING_WITH,
  screwHepa: (machine) => positionsOf(machine, (s) => wayOf(machine, s) === 'wrap' && !s.doNotRemove),
  boltedMainFilter: NOTHING_WITH,
  stackedFilter: NOTHING_WITH,
  gasStage: NOTHING_WITH,
  purge: NOTHING_WITH,
  wash: NOTHING_WITH,
  collectorEmpty: NOTHING_WITH,
  centralCan: NOTHING_WITH,
  plainFilter: NOTHING_WITH,
  hosePlug: NOTHING_WITH,
  service: everyHolder,
  indicatorCheck: NOTHING_WITH,
  commissioning: everyPart,
  fullSet: everyPart,
  linerSection: NOTHING_WITH,
  decontamination: everyHolder,
};

const ofTested = (context: MethodContext, tested: readonly number[]): MethodContext => {
  const at = tested.at(-1);
  const stage = at === undefined ? undefined : context.machine.stages[at];
  return stage && at !== undefined ? { ...context, position: at, stage } : context;
};

/** The steps that replace the rest where the new part proves nothing and the old one was held. */
const turnedBack = (
  id: ProcedureId,
  context: MethodContext,
  { tested, tests }: { readonly tested: MethodContext; readonly tests: Procedure['integrity'] },
): readonly Step[] => {
  if (id !== 'stackedFilter' || !heldUntilProven(context)) return [];
  const steps = turnBack(context);
  return wornOn([...steps, ...endingOf(id, steps, { context, tested, tests })], context.level);
};

/**
 * The procedure of a job on a machine, for a hazard: its method, made for the stage's own fit, its ending, and what is
 * worn around both. Errors as `chooseProcedure`. Source: common practice, no published source.
 */
export const assemble = (of: Machine, job: JobScope, hazard: DustHazard): Result<Procedure> => {
  const machine: Machine = { ...of, hazard: worst([of.hazard, hazard]) };
  const chosen = chooseProcedure(machine, job);
  if (!chosen.ok) return chosen;
  const { id, school, position } = chosen.value;
  const stage = machine.stages[position];
  if (!stage) return fail({ code: 'stage.unknown', path: 'stage', facts: { tag: machine.tag } });
  const goesWith = GOES_WITH[id](machine).filter((i) => i !== position);
  const contextOf = (i: number, s: Stage): MethodContext => ({
    machine,
    level: machine.hazard,
    position: i,
    stage: s,
    with: [],
  });
  const context: MethodContext = {
    ...contextOf(position, stage),
    with: goesWith.flatMap((i) => (machine.stages[i] ? [contextOf(i, machine.stages[i])] : [])),
  };
  const method = METHODS_OF[id](context);
  const at = ENDING_OF[id] === 'run' ? testedIn(machine, method) : [];
  const tested = ofTested(context, at);
  const tests = at.length > 0 ? integrityTestsOf(machine, tested.stage) : [];
  return ok({
    id,
    stage: job.kind === 'change' || 'stage' in job || id === 'fullSet' ? position : null,
    school,
    before: beforeOf(id, machine),
    steps: worn([...method, ...endingOf(id, method, { context, tested, tests })], machine.hazard),
    turnBack: turnedBack(id, context, { tested, tests }),
    integrity: tests,
    goesWith,
    driesHours: id === 'wash' ? DRYING_HOURS : null,
  });
};
