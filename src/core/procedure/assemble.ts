import { fail, ok, type Result } from '../failure/failure';
import type { DustHazard, Machine } from '../machine/machine';
import { chooseProcedure, type Chosen, type Job } from './choose';
import { contain } from './containment';
import type { MethodContext } from './method';
import { METHODS_OF } from './methods';
import type { Precondition, Procedure } from './step';

/** Hours a washed medium stays out of service. A Moorwind default, a modelling choice. */
const DRYING_HOURS = 24;

const integrityOf = ({ id }: Chosen, machine: Machine, { stage }: MethodContext): Procedure['integrity'] => {
  const fine = stage.kind === 'hepa' || stage.kind === 'mainFilter';
  if (!fine || machine.machineClass === null || machine.machineClass === 'L' || id === 'purge' || id === 'service') return [];
  return machine.machineClass === 'M' ? ['cleanSide', 'smoke'] : ['particles', 'cleanSide', 'smoke'];
};

const beforeOf = ({ id }: Chosen, machine: Machine): readonly Precondition[] => {
  const bag = machine.stages.findIndex((s) => s.kind === 'bag');
  return id === 'prefilterWrap' && bag >= 0 ? [{ kind: 'afterChangeOf', stage: bag }] : [];
};

/** A new pre-filter always goes with a screw-on HEPA. */
const companions = ({ id }: Chosen, machine: Machine): readonly number[] => {
  const prefilter = machine.stages.findIndex((s) => s.kind === 'prefilter' && !s.missing);
  return id === 'screwHepa' && prefilter >= 0 ? [prefilter] : [];
};

/**
 * The procedure of a job on a machine, for a hazard: its method, made for the stage's own fit, with the containment laid
 * around it and the integrity test that is due. Errors as `chooseProcedure`. Source: common practice, no published source.
 */
export const assemble = (machine: Machine, job: Job, hazard: DustHazard): Result<Procedure> => {
  const chosen = chooseProcedure(machine, job);
  if (!chosen.ok) return chosen;
  const { id, school, position } = chosen.value;
  const stage = machine.stages[position];
  if (!stage) return fail({ code: 'stage.unknown', path: 'stage', facts: { tag: machine.tag } });
  const context: MethodContext = { position, stage };
  const integrity = integrityOf(chosen.value, machine, context);
  const method = METHODS_OF[id](context).filter((s) => s.key !== 'integrityTest' || integrity.length > 0);
  // A fine filter changed by a method without a test of its own is tested all the same.
  const tested = integrity.length > 0 && !method.some((s) => s.key === 'integrityTest');
  const whole = tested ? [...method, { key: 'integrityTest', run: 'running', stage: position, because: 'proof' } as const] : method;
  return ok({
    id,
    stage: job.kind === 'change' || 'stage' in job ? position : null,
    school,
    before: beforeOf(chosen.value, machine),
    steps: contain(whole, hazard),
    integrity,
    goesWith: companions(chosen.value, machine),
    driesHours: id === 'wash' ? DRYING_HOURS : null,
  });
};
