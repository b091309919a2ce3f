import { DUST_HAZARDS, type DustHazard } from '@/core/dust/level';
import { MACHINE_KIND_NAMES, type MachineKind } from '@/core/machine/kinds';
import type { Machine, MachineClass, Stage } from '@/core/machine/machine';
import { stageTemplate } from '@/core/machine/stage-templates';
import { PART_STAGES } from '@/core/path/stage-kinds';
import { assemble } from '@/core/procedure/assemble';
import { everyJobOf } from '@/core/procedure/choose';
import { prove } from '@/core/procedure/prove/prove';
import type { Procedure } from '@/core/procedure/step';
import type { Violation } from '@/core/procedure/violation';
import { templateMachine } from './calc/template-machine';

const CLASSES: readonly (MachineClass | null)[] = [null, 'L', 'M', 'H', 'HEPA'];

/** A machine of a kind with every part it could have: the parts its template lacks are put in before the fan. */
const fullMachine = (kind: MachineKind, machineClass: MachineClass | null, hazard: DustHazard): Machine => {
  const made = templateMachine({ kind, machineClass, hazard, lastCollected: '' });
  if (!made.ok) throw new Error(made.failures.map((f) => f.code).join());
  return made.value;
};

/** The same machine with one more stage of a kind it lacks. */
const withStage = (machine: Machine, kind: (typeof PART_STAGES)[number]): Machine => {
  if (machine.stages.some((s) => s.kind === kind)) return machine;
  const fan = machine.stages.findIndex((s) => s.kind === 'fan');
  const [like] = machine.stages;
  if (!like) return machine;
  const added: Stage = { ...like, id: 900, kind, name: kind, spec: stageTemplate(kind, machine.kind) };
  const stages = [...machine.stages.slice(0, fan), added, ...machine.stages.slice(fan)];
  return { ...machine, stages: stages.map((s, position) => ({ ...s, position })) };
};

/** One procedure that was assembled, with everything that is wrong with it. */
export interface CheckedProcedure {
  readonly of: string;
  readonly procedure: Procedure;
  readonly machine: Machine;
  readonly violations: readonly Violation[];
}

/** Machines that lack a part, a selector or a brush: their procedures must not ask for it. */
const VARIANTS: readonly ((m: Machine) => Machine)[] = [
  (m) => m,
  // Nothing on the shelf, no selector, no brush.
  (m) => ({ ...m, hoseSelectorM: null, hasBrush: false, stages: m.stages.map((s) => ({ ...s, part: null })) }),
  (m) => ({ ...m, hoseSelectorM: 0.036, hasBrush: true }),
];

/** Assembles every kind, stage, method, level and class, and proves each. */
export const checkProcedures = (): readonly CheckedProcedure[] =>
  MACHINE_KIND_NAMES.flatMap((kind) =>
    CLASSES.flatMap((machineClass) =>
      DUST_HAZARDS.flatMap((hazard) => {
        const own = fullMachine(kind, machineClass, hazard);
        const machines = [own, ...PART_STAGES.map((stage) => withStage(own, stage)).filter((m) => m !== own)];
        return machines.flatMap((base) =>
          VARIANTS.flatMap((variant) => {
            const machine = variant(base);
            return everyJobOf(machine).flatMap((job): readonly CheckedProcedure[] => {
              const made = assemble(machine, job, hazard);
              if (!made.ok) return [];
              const of = `${kind} ${machineClass ?? 'no class'} ${hazard} ${made.value.id} ${JSON.stringify(job)}`;
              return [{ of, procedure: made.value, machine, violations: prove(made.value, machine, hazard) }];
            });
          }),
        );
      }),
    ),
  );
