import { type CaseRecord, caseState } from '../diagnose/case-log';
import type { Machine } from '../machine/machine';
import { type JobRecord, jobState } from '../procedure/job-log';

/** A part that is neither on the shelf nor in a machine for good. */
export interface HeldPart {
  readonly partId: number;
  readonly machineId: number;
  /** The job, or the case of fault finding, that has it. */
  readonly by: { readonly kind: 'job' | 'case'; readonly id: number };
  /** `reserved`: the job will take it. `out`: taken, not yet in for good. `old`: bagged and tagged, held until the new one is proven. */
  readonly state: 'reserved' | 'out' | 'old';
}

interface Held {
  readonly jobs: readonly JobRecord[];
  /** The part of each stage, by the stage's number. */
  readonly partOf: ReadonlyMap<number, number>;
}

const ofJob = (job: JobRecord, partOf: Held['partOf']): readonly HeldPart[] => {
  const state = jobState(job);
  if (state.ended) return [];
  const base = { machineId: job.machineId, by: { kind: 'job', id: job.id } as const };
  const partAt = (position: number | null): number | undefined =>
    position === null ? undefined : partOf.get(job.stages[position]?.id ?? -1);
  const lastOf = (stage: number | null, kinds: readonly string[]) =>
    state.moves.findLast((m) => m.stage === stage && kinds.includes(m.move))?.move;
  const stages = [...new Set(state.steps.flatMap((s) => (s.moves === undefined ? [] : [s.stage])))];
  return stages.flatMap((stage): readonly HeldPart[] => {
    const partId = partAt(stage);
    if (partId === undefined) return [];
    const takes = state.steps.some((s, i) => i >= state.at && s.stage === stage && s.moves === 'takeNew');
    const fresh = lastOf(stage, ['takeNew', 'fitNew', 'returnNew']);
    const old = lastOf(stage, ['holdOld', 'putOldBack', 'disposeOld']);
    // While the old one is held, the new one is only on trial.
    const trial = fresh === 'takeNew' || (fresh === 'fitNew' && old === 'holdOld');
    return [
      ...(takes ? [{ ...base, partId, state: 'reserved' } as const] : []),
      ...(trial ? [{ ...base, partId, state: 'out' } as const] : []),
      ...(old === 'holdOld' ? [{ ...base, partId, state: 'old' } as const] : []),
    ];
  });
};

/** What open jobs have reserved, taken or hold. Definition: the logs of the jobs. */
export const heldParts = ({ jobs, partOf }: Held): readonly HeldPart[] => jobs.flatMap((j) => ofJob(j, partOf));

/** New parts that are in on trial in open cases, and the old ones that are held for them. Definition: the logs of the cases. */
export const trialParts = (cases: readonly CaseRecord[], machines: readonly Machine[]): readonly HeldPart[] =>
  cases.flatMap((c) => {
    const { trials, ended } = caseState(c);
    const stages = machines.find((m) => m.id === c.machineId)?.stages ?? [];
    if (ended) return [];
    return trials.flatMap((position): readonly HeldPart[] => {
      const part = stages[position]?.part;
      const base = { machineId: c.machineId, by: { kind: 'case', id: c.id } as const };
      return part
        ? [
            { ...base, partId: part.id, state: 'out' },
            { ...base, partId: part.id, state: 'old' },
          ]
        : [];
    });
  });

/** Pieces of each part that are on the shelf and not reserved by an open job. */
export const freeToTake = ({
  parts,
  ...held
}: Held & { readonly parts: readonly { readonly id: number; readonly onHand: number }[] }): ReadonlyMap<
  number,
  number
> => {
  const reserved = heldParts(held).filter((h) => h.state === 'reserved');
  return new Map(parts.map((p) => [p.id, p.onHand - reserved.filter((h) => h.partId === p.id).length]));
};
