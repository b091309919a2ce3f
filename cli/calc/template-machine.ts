import { MACHINE_KINDS } from '@/core/machine/kinds';
import { assessDust, stated } from '@/core/dust/assess';
import { NO_DUST } from '@/core/dust/history';
import { type DustHazard, worst } from '@/core/dust/level';
import { BUILT_IN_DUSTS } from '@/core/dust/register';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import type { MachineKind } from '@/core/machine/kinds';
import type { Machine, MachineClass, Stage } from '@/core/machine/machine';
import { stageTemplate } from '@/core/machine/stage-templates';

interface Of {
  readonly kind: MachineKind;
  readonly machineClass: MachineClass | null;
  readonly hazard: DustHazard;
  readonly lastCollected: string;
  readonly missing?: readonly string[];
  /** True: a machine with refused dust is returned with its refusal. False: the call fails. */
  readonly allowRefused?: boolean;
}

/** A machine of a kind as a new record has it, every part of it kept on the shelf; its dust read through the register. Refused dust is refused. */
export const templateMachine = ({
  kind,
  machineClass,
  hazard,
  lastCollected,
  missing = [],
  allowRefused = false,
}: Of): Result<Machine> => {
  const standing = lastCollected.trim() === '' ? null : assessDust(BUILT_IN_DUSTS, stated(lastCollected));
  if (standing?.refusal && !allowRefused)
    return fail(
      failure('dust.refused', 'lastCollected', { what: standing.refusal.dust, instead: standing.refusal.instead }),
    );
  const stages = MACHINE_KINDS[kind].path.map((stageKind, i): Stage => ({
    id: i + 1,
    position: i,
    kind: stageKind,
    name: stageKind,
    part: { id: i + 1, code: stageKind, name: stageKind },
    missing: missing.includes(stageKind),
    missingSince: null,
    doNotRemove: false,
    firstUsedOn: '2000-01-01',
    fittedOn: null,
    openedAt: null,
    proven: [],
    looks: [],
    rules: [],
    spec: stageTemplate(stageKind, kind),
  }));
  return ok({
    id: 0,
    tag: 'This kind of machine',
    name: kind,
    kind,
    maker: '',
    place: '',
    machineClass,
    lastCollected,
    hazard: worst([hazard, ...(standing ? [standing.level] : [])]),
    dust: standing ? { ...NO_DUST, standing } : NO_DUST,
    hasBrush: MACHINE_KINDS[kind].brushRoll,
    hoseBoreM: null,
    hoseLengthM: null,
    hoseSelectorM: null,
    nominalVolts: 230,
    wetSet: false,
    inServiceOn: '2000-01-01',
    hours: [],
    stages,
    examinations: [],
    penetration: [],
    retired: [],
    editedThrough: 0,
    timeZone: 'UTC',
    reshapedAt: null,
  });
};
