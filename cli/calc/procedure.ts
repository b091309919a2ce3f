import type { CheckProcedureInput, CheckProcedureOutput, ProcedureInput, ProcedureOutput } from '@/contracts/calc/procedure';
import { hazardGate } from '@/core/diagnose/hazard-gate';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Machine, Stage } from '@/core/machine/machine';
import { PATH_TEMPLATES, stageTemplate } from '@/core/path/stage-templates';
import { assemble } from '@/core/procedure/assemble';
import { type Job, offersOf } from '@/core/procedure/choose';
import { prove } from '@/core/procedure/prove';
import type { Procedure } from '@/core/procedure/step';
import { CAUTION_WORDS, CHECK_WORDS, PROCEDURE_WORDS, RUN_WORDS, sayStepOf, sayViolation, WHY_WORDS } from '@/messages/procedure';

/** A machine of a kind as a new record has it, every part of it kept on the shelf. */
const machineOf = ({ machine: { kind, machineClass }, hazard, lastCollected }: ProcedureInput): Machine => ({
  id: 0,
  tag: 'This kind of machine',
  name: kind,
  kind,
  maker: '',
  place: '',
  machineClass,
  lastCollected,
  hazard,
  hasBrush: kind === 'floorCleaner',
  hoseBoreM: null,
  hoseLengthM: null,
  hoseSelectorM: null,
  nominalVolts: 230,
  wetSet: false,
  inServiceOn: '2000-01-01', hours: [],
  stages: PATH_TEMPLATES[kind].map((stageKind, i): Stage => ({ id: i + 1, position: i, kind: stageKind, name: stageKind, part: { id: i + 1, code: stageKind, name: stageKind }, missing: false, missingSince: null, doNotRemove: false, firstUsedOn: '2000-01-01', fittedAt: null, proven: [], looks: [], rules: [], spec: stageTemplate(stageKind, kind) })),
  retired: [],
  editedThrough: 0,
  reshapedAt: null,
});

const jobOf = ({ job }: ProcedureInput, machine: Machine): Result<Job> => {
  if (!('stage' in job)) return ok(job);
  const stage = machine.stages.findIndex((s) => s.kind === job.stage);
  return stage < 0 ? fail(failure('stage.unknown', 'stage', { tag: machine.tag })) : ok({ ...job, stage });
};

interface Made {
  readonly machine: Machine;
  readonly procedure: Procedure;
}

const made = (input: ProcedureInput): Result<Made> => {
  const gate = hazardGate(input.lastCollected);
  if (!gate.ok) return gate;
  const machine = machineOf(input);
  const job = at('job', jobOf(input, machine));
  if (!job.ok) return job;
  const procedure = at('job', assemble(machine, job.value, input.hazard));
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
    steps: p.steps.map((s, i) => ({
      step: i + 1,
      key: s.key,
      text: sayStepOf(s, name(s.stage)),
      machine: RUN_WORDS[s.run],
      check: s.check ? CHECK_WORDS[s.check] : null,
      caution: s.caution ? CAUTION_WORDS[s.caution] : null,
      part: s.moves ?? null,
      why: WHY_WORDS[s.because],
    })),
    ifItProvesNothing: p.turnBack.map((s) => sayStepOf(s, name(s.stage))),
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
  const violations = prove(left, machine, input.hazard);
  return ok({ sound: violations.length === 0, violations: violations.map((v) => ({ kind: v.kind, sentence: sayViolation(v) })) });
};
