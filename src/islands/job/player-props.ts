import type { OpenJobReply } from '@/contracts/job';
import type { Machine } from '@/core/machine/machine';
import type { JobEvent, JobRecord, JobState } from '@/core/procedure/job-log';
import type { UnitSystem } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { thingAt } from '@/messages/procedure';

export interface PlayerProps {
  readonly machine: Machine;
  readonly record: JobRecord;
  readonly state: JobState;
  readonly reply: OpenJobReply;
  readonly by: string;
  readonly setBy: (by: string) => void;
  readonly act: (event: JobEvent, partCode?: string) => void;
  readonly reload: () => void;
  readonly problems: readonly Problem[];
  readonly sending: boolean;
  readonly units: UnitSystem;
  readonly keysOn: boolean;
}

export type Acting = Pick<PlayerProps, 'state' | 'act' | 'sending'>;

/** The stage, or its name, that a step is about. */
export const stageAt = ({ machine, record }: Pick<PlayerProps, 'machine' | 'record'>, position: number | null) =>
  position === null
    ? null
    : (machine.stages.find((s) => s.id === record.stages[position]?.id) ?? machine.stages[position] ?? null);
/** The stage, or its name, that a step is about. */
export const nameAt = (p: Pick<PlayerProps, 'machine' | 'record'>, position: number | null): string => {
  const stage = stageAt(p, position);
  return position === null ? 'machine' : stage ? thingAt(stage) : (p.record.stages[position]?.name ?? 'stage');
};
