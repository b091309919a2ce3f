import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';
import type { DustHazard } from '@/core/dust/level';
import type { Machine, MachineClass } from '@/core/machine/machine';
import { everyJobOf, type JobScope } from '@/core/procedure/choose';
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

/** Every job a machine allows in dust of a level. */
export const jobsOf = (machine: Machine, hazard: DustHazard = 'plain'): readonly JobScope[] =>
  everyJobOf({ ...machine, hazard });
