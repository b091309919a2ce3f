import type {
  CheckProcedureInput,
  CheckProcedureOutput,
  ProcedureInput,
  ProcedureOutput,
} from '@/contracts/calc/procedure';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Machine } from '@/core/machine/machine';
import { assemble } from '@/core/procedure/assemble';
import { type JobScope, offersOf } from '@/core/procedure/choose';
import { prove } from '@/core/procedure/prove/prove';
import type { Procedure } from '@/core/procedure/step';
import { CAUTION_WORDS, CHECK_WORDS, PROCEDURE_WORDS, RUN_WORDS, WHY_WORDS } from '@/messages/procedure';
import { sayStepOf } from '@/messages/step-words';
import { sayViolation } from '@/messages/violations';
import { templateMachine } from './template-machine';

const jobOf = ({ job }: ProcedureInput, machine: Machine): Result<JobScope> => {
  if (!('stage' in job)) return ok(job);
  const stage = machine.stages.findIndex((s) => s.kind === job.stage);
  return stage < 0 ? fail(failure('stage.unknown', 'stage', { tag: machine.tag })) : ok({ ...job, stage });
};

interface Made {
  readonly machine: Machine;
  readonly procedure: Procedure;
}

const made = (input: ProcedureInput): Result<Made> => {
  const of = templateMachine({ ...input.machine, hazard: input.hazard, lastCollected: input.lastCollected });
  if (!of.ok) return of;
  const machine = of.value;
  const job = at('job', jobOf(input, machine));
  if (!job.ok) return job;
  const procedure = at('job', assemble(machine, job.value, machine.hazard));
  return procedure.ok ? ok({ machine, procedure: procedure.value }) : procedure;
};

/** `calc procedure`: a machine, a hazard and a job in; the steps, and why each is there, out. */
export const procedureCalc = (input: ProcedureInput): Result<ProcedureOutput> => {
  const result = made(input);
  if (!result.ok) return result;
  const { machine, procedure: p } = result.value;
  const name = (i: number | null) => (i === null ? 'machine' : (machine.stages[i]?.name ?? 'stage'));
  const stage = p.stage === null ? undefined : machine.stages[p.stage];
  return ok({
    procedure: PROCEDURE_WORDS[p.id],
    school: p.school,
    level: machine.hazard,
    steps: p.steps.map((s, i) => ({
      step: i + 1,
      key: s.key,
      text: sayStepOf(s, name(s.stage), p.id),
      machine: RUN_WORDS[s.run],
      check: s.check ? CHECK_WORDS[s.check] : null,
      caution: s.caution ? CAUTION_WORDS[s.caution] : null,
      part: s.moves ?? null,
      why: WHY_WORDS[s.because],
    })),
    ifItProvesNothing: p.turnBack.map((s) => sayStepOf(s, name(s.stage), p.id)),
    integrity: [...p.integrity],
    goesWith: p.goesWith.map(name),
    onlyRightAfter: p.before.flatMap((b) => (b.kind === 'afterChangeOf' ? [name(b.stage)] : [])),
    outOfServiceHours: p.driesHours,
    schools: stage ? Object.keys(offersOf(machine, stage)).filter((s) => s !== p.school) : [],
  });
};

/** `calc check-procedure`: the same in, with steps left out; what is then wrong with it out. */
export const checkProcedure = (input: CheckProcedureInput): Result<CheckProcedureOutput> => {
  const result = made(input);
  if (!result.ok) return result;
  const { machine, procedure } = result.value;
  const left = { ...procedure, steps: procedure.steps.filter((_, i) => !input.without.includes(i + 1)) };
  const violations = prove(left, machine, machine.hazard);
  return ok({
    sound: violations.length === 0,
    violations: violations.map((v) => ({ kind: v.kind, sentence: sayViolation(v) })),
  });
};
