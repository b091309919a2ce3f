import type { Machine } from '@/core/machine/machine';
import type { DustHazard } from '@/core/dust/level';
import { careOf, inOrder, type JobScope, offersOf, wholeJobsOf } from '@/core/procedure/choose';
import type { ChangeSchool, ProcedureId } from '@/core/procedure/step';
import { CARE_WORDS, WHOLE_JOB_WORDS } from '@/messages/job';
import { capital } from '@/messages/words';

/** One thing that can be begun on a machine. */
export interface JobChoice {
  readonly key: string;
  readonly label: string;
  /** For the whole machine, or a care of a stage: set apart from the changes. */
  readonly side: boolean;
  readonly ways: readonly { readonly school: ChangeSchool; readonly id: ProcedureId; readonly job: JobScope }[];
}

/** Everything that can be begun on a machine, changes first, each with the ways its maker built it for. */
export const jobChoices = (machine: Machine, hazard: DustHazard = machine.hazard): readonly JobChoice[] => {
  const changes = machine.stages.flatMap((stage, position): readonly JobChoice[] => {
    const ways = (Object.entries(offersOf(machine, stage)) as readonly (readonly [ChangeSchool, ProcedureId])[]).map(
      ([school, id]) => ({ school, id, job: { kind: 'change', stage: position, school } as const }),
    );
    return ways.length === 0
      ? []
      : [{ key: `stage-${stage.id}`, label: capital(stage.name), side: false, ways: inOrder(ways, hazard) }];
  });
  const care = machine.stages.flatMap((stage, position) =>
    careOf({ ...machine, hazard }, stage).map((kind): JobChoice => ({
      key: `${kind}-${stage.id}`,
      label: `${CARE_WORDS[kind]}: ${stage.name}`,
      side: true,
      ways: [{ school: 'off', id: kind === 'section' ? 'linerSection' : kind, job: { kind, stage: position } }],
    })),
  );
  const whole = wholeJobsOf(machine).map((kind): JobChoice => ({
    key: kind,
    label: WHOLE_JOB_WORDS[kind],
    side: true,
    ways: [{ school: 'off', id: kind, job: { kind } }],
  }));
  return [...changes, ...care, ...whole];
};
