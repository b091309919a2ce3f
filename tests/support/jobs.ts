import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';
import type { DustHazard } from '@/core/dust/level';
import type { Machine, MachineClass } from '@/core/machine/machine';
import { careOf, type JobScope, offersOf, wholeJobsOf } from '@/core/procedure/choose';
import { CHANGE_SCHOOLS } from '@/core/procedure/step';
import { templateMachine } from './machines';

export const KINDS = Object.keys(MACHINE_KINDS) as readonly MachineKind[];

const CLASS: Partial<Record<MachineKind, MachineClass>> = {
  mExtractor: 'M',
  hExtractor: 'H',
  hepaTank: 'HEPA',
  grinderExtractor: 'HEPA',
  pneumaticHepa: 'HEPA',
};
const HAS_PART = new Set(['dropChamber', 'cyclone', 'bag']);
const PART = { id: 1, code: 'P', name: 'part' };

/** A machine of a kind with its usual class, and a part for everything that is changed. */
export const machineOfKind = (kind: MachineKind): Machine => {
  const machine = templateMachine(kind, {
    machineClass: CLASS[kind] ?? null,
    hasBrush: MACHINE_KINDS[kind].brushRoll,
    ...(MACHINE_KINDS[kind].selector ? {} : { hoseSelectorM: null }),
  });
  const stages = machine.stages.map((s) =>
    s.spec.air.form === 'medium' || HAS_PART.has(s.kind) ? { ...s, part: PART } : s,
  );
  return { ...machine, stages };
};

/** Every job a machine allows: changes by every school, the whole machine, care of a stage. */
export const jobsOf = (of: Machine, hazard: DustHazard = 'plain'): readonly JobScope[] => {
  const machine = { ...of, hazard };
  return [
    ...machine.stages.flatMap((stage, i) =>
      CHANGE_SCHOOLS.filter((s) => offersOf(machine, stage)[s] !== undefined).map((school): JobScope => ({
        kind: 'change',
        stage: i,
        school,
      })),
    ),
    ...wholeJobsOf(machine).map((kind): JobScope => ({ kind })),
    ...machine.stages.flatMap((stage, i) => careOf(machine, stage).map((kind): JobScope => ({ kind, stage: i }))),
  ];
};
