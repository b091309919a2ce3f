import { fail, ok, type Result } from '../failure/failure';
import { integrityTestsOf } from '../machine/integrity';
import type { DustHazard } from '../dust/level';
import type { Machine, Stage } from '../machine/machine';
import { chooseProcedure, type Chosen, type JobScope, offersOf } from './choose';
import { contain, containAgain } from './containment';
import type { MethodContext } from './method';
import { METHODS_OF, turnBack } from './methods';
import type { Precondition, Procedure, ProcedureId, Step } from './step';

/** Hours a washed medium stays out of service. A Moorwind default, a modelling choice. */
export const DRYING_HOURS = 24;

/** What is done without a new part in the stage leaves its test as it was. */
const UNTESTED: ReadonlySet<ProcedureId> = new Set<ProcedureId>([
  'purge',
  'service',
  'hosePlug',
  'indicatorCheck',
  'fullSet',
  'linerSection',
]);

const integrityOf = (
  { id }: Chosen,
  machine: Machine,
  { stage, with: others }: MethodContext,
): { readonly tests: Procedure['integrity']; readonly at: number } => {
  const carrier = [stage, ...(id === 'decontamination' ? others.map((o) => o.stage) : [])].find(
    (s) => integrityTestsOf(machine, s).length > 0,
  );
  return UNTESTED.has(id) || !carrier
    ? { tests: [], at: -1 }
    : { tests: integrityTestsOf(machine, carrier), at: machine.stages.indexOf(carrier) };
};

const beforeOf = ({ id }: Chosen, machine: Machine): readonly Precondition[] => {
  const bag = machine.stages.findIndex((s) => s.kind === 'bag');
  return id === 'prefilterWrap' && bag >= 0 ? [{ kind: 'afterChangeOf', stage: bag }] : [];
};

const positionsOf = (machine: Machine, want: (s: Stage) => boolean): readonly number[] =>
  machine.stages.flatMap((s, i) => (want(s) && !s.missing ? [i] : []));

/** A new pre-filter always goes with a screw-on HEPA; a full set takes every filter that is changed in it, a decontamination every filter there is. */
const companions = ({ id, position }: Chosen, machine: Machine): readonly number[] => {
  if (id === 'screwHepa') return positionsOf(machine, (s) => s.kind === 'prefilter').slice(0, 1);
  if (id === 'fullSet')
    return positionsOf(
      machine,
      (s) => s.spec.air.form === 'medium' && Object.keys(offersOf(machine, s)).length > 0,
    ).filter((i) => i !== position);
  if (id === 'service' || id === 'decontamination')
    return positionsOf(machine, (s) => s.spec.air.form === 'medium' && !s.doNotRemove).filter((i) => i !== position);
  return [];
};

/** Where the old part is held until the new one is proven, what is done when it is not. */
const turnedBack = (
  { id }: Chosen,
  context: MethodContext,
  { hazard, integrity }: { readonly hazard: DustHazard; readonly integrity: Procedure['integrity'] },
): readonly Step[] => {
  if (id !== 'stackedFilter') return [];
  return containAgain([...turnBack(context), ...(integrity.length > 0 ? [testStep(context.position)] : [])], hazard);
};

const testStep = (stage: number): Step => ({ key: 'integrityTest', run: 'running', stage, because: 'proof' });

/**
 * The procedure of a job on a machine, for a hazard: its method, made for the stage's own fit, with the containment laid
 * around it and the integrity test that is due. Errors as `chooseProcedure`. Source: common practice, no published source.
 */
export const assemble = (machine: Machine, job: JobScope, hazard: DustHazard): Result<Procedure> => {
  const chosen = chooseProcedure(machine, job);
  if (!chosen.ok) return chosen;
  const { id, school, position } = chosen.value;
  const stage = machine.stages[position];
  if (!stage) return fail({ code: 'stage.unknown', path: 'stage', facts: { tag: machine.tag } });
  const goesWith = companions(chosen.value, machine);
  const of = (i: number, s: Stage): MethodContext => ({ machine, position: i, stage: s, with: [] });
  const context: MethodContext = {
    ...of(position, stage),
    with: goesWith.flatMap((i) => (machine.stages[i] ? [of(i, machine.stages[i])] : [])),
  };
  const { tests: integrity, at: tested } = integrityOf(chosen.value, machine, context);
  const method = METHODS_OF[id](context).filter((s) => s.key !== 'integrityTest' || integrity.length > 0);
  // A fine filter changed by a method without a test of its own is tested all the same.
  const more = integrity.length > 0 && !method.some((s) => s.key === 'integrityTest') ? [testStep(tested)] : [];
  return ok({
    id,
    stage: job.kind === 'change' || 'stage' in job || id === 'fullSet' ? position : null,
    school,
    before: beforeOf(chosen.value, machine),
    steps: contain([...method, ...more], hazard),
    turnBack: turnedBack(chosen.value, context, { hazard, integrity }),
    integrity,
    goesWith,
    driesHours: id === 'wash' ? DRYING_HOURS : null,
  });
};
