import type { DustHazard } from '@/core/dust/level';
import type { IntegrityTest } from '@/core/machine/integrity';
import type { MachineKind } from '@/core/machine/kinds';
import type { Fixing } from '@/core/machine/part-ways';
import type { Machine } from '@/core/machine/machine';
import {
  type ChangeSchool,
  CHECKS,
  type CheckKind,
  type OpenedPart,
  type PartMove,
  type Procedure,
  type ProcedureId,
  type RunState,
  type Step,
  STEP_KEYS,
  type StepKey,
} from '@/core/procedure/step';

// Procedures written by hand, a word a step: `key @stage ~run +opens -closes =check ^fixing`. What moves follows from the key.

const MOVES: Partial<Record<StepKey, PartMove>> = {
  prepareNew: 'takeNew',
  fitNew: 'fitNew',
  bagOld: 'bagOld',
  holdOld: 'holdOld',
  disposeOld: 'disposeOld',
  putOldBack: 'putOldBack',
  returnNew: 'returnNew',
};
const KEYS: ReadonlySet<string> = new Set(STEP_KEYS);
const ASKED: ReadonlySet<string> = new Set(CHECKS);

const stepOf = (words: string, machine: Machine): Step => {
  const [first = '', ...rest] = words.trim().split(/\s+/);
  const key: StepKey = ASKED.has(first) && !KEYS.has(first) ? 'check' : (first as StepKey);
  if (!KEYS.has(key)) throw new Error(`no step "${first}"`);
  const of = (mark: string): string | undefined => rest.find((w) => w.startsWith(mark))?.slice(1);
  const at = of('@');
  const stage = at === undefined ? null : machine.stages.findIndex((s) => s.kind === at);
  if (stage !== null && stage < 0) throw new Error(`no stage "${at}"`);
  const check = (key === 'check' ? first : of('=')) as CheckKind | undefined;
  return {
    key,
    run: (of('~') as RunState | undefined) ?? 'off',
    stage,
    because: 'method',
    ...(of('+') && { opens: of('+') as OpenedPart }),
    ...(of('-') && { closes: of('-') as OpenedPart }),
    ...(of('^') && { fixing: of('^') as Fixing }),
    ...(check && { check }),
    ...(MOVES[key] && { moves: MOVES[key] }),
  };
};

export interface Written {
  readonly what: string;
  readonly kind: MachineKind;
  readonly level: DustHazard;
  readonly id: ProcedureId;
  /** The stage it is for; '' for the machine. */
  readonly of: string;
  readonly school?: ChangeSchool;
  readonly tests?: readonly IntegrityTest[];
  readonly goesWith?: readonly string[];
  readonly steps: string;
}

export const procedureOf = (w: Written, machine: Machine): Procedure => ({
  id: w.id,
  stage: w.of === '' ? null : machine.stages.findIndex((s) => s.kind === w.of),
  school: w.school ?? 'off',
  before: [],
  steps: w.steps
    .split(/[,\n]/)
    .filter((x) => x.trim() !== '')
    .map((x) => stepOf(x, machine)),
  turnBack: [],
  integrity: w.tests ?? [],
  goesWith: (w.goesWith ?? []).map((k) => machine.stages.findIndex((s) => s.kind === k)),
  driesHours: null,
});
