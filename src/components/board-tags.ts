import { classStanding } from '@/core/machine/machine';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import type { MachineStatus } from '@/core/status/machine-status';
import type { UnitSystem } from '@/core/units';
import type { BoardTag } from '@/islands/board/View';
import { dueIn, sayNeed } from '@/messages/needs';
import { capital, CLASS_WORDS } from '@/messages/words';

/** The class as it may be said of a machine today. */
export const classText = (status: MachineStatus): string => {
  const standing = classStanding(status.machine);
  if (standing.withdrawn) return 'class withdrawn';
  return standing.label ? CLASS_WORDS[standing.label] : 'no class';
};

/** Class and kind in one phrase: "M class extractor", "tank vacuum, class withdrawn". */
export const kindText = (status: MachineStatus): string => {
  const { label } = MACHINE_KINDS[status.machine.kind];
  const standing = classStanding(status.machine);
  if (standing.withdrawn) return `${capital(label)}, class withdrawn`;
  return standing.label ? `${CLASS_WORDS[standing.label]} ${label}` : capital(label);
};

const toTag = (status: MachineStatus, units: UnitSystem, caseOpen: boolean): BoardTag => {
  const { machine } = status;
  const need = sayNeed(status.need, units);
  const least = status.due.reduce<MachineStatus['due'][number] | null>((a, d) => (a === null || d.remaining < a.remaining ? d : a), null);
  const stageName = machine.stages.find((s) => s.id === least?.stageId)?.name ?? '';
  return {
    tag: machine.tag,
    name: machine.name,
    classText: classText(status),
    kindText: MACHINE_KINDS[machine.kind].label,
    place: machine.place,
    tone: need.tone,
    mark: need.mark,
    need: need.sentence,
    caseOpen,
    remaining: least?.remaining ?? null,
    remainingText: least ? `${stageName}: ${least.daysLeft === null ? 'no date yet' : dueIn(least.daysLeft)}` : '',
  };
};

/** The machines as the board shows them; those with an open case say so. */
export const boardTags = (machines: readonly MachineStatus[], units: UnitSystem, openCases: ReadonlySet<number> = new Set()): readonly BoardTag[] =>
  machines.map((status) => toTag(status, units, openCases.has(status.machine.id)));
