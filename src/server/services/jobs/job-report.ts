import type { StageDue } from '@/core/interval/due';
import { type JobRecord, type JobState, jobState } from '@/core/procedure/job-log';
import { inForce } from '@/core/record/records';
import { loadIntegrityChecks, type NewIntegrityCheck } from '../../repositories/proofs';
import type { Bench } from '../measuring/bench';
import { changeStory, type ChangeStory } from './change-story';
import type { Context } from '../yard/user-action';

export interface JobReport {
  readonly record: JobRecord;
  readonly state: JobState;
  /** The recorded changes, with the measurements before and after. */
  readonly stories: readonly ChangeStory[];
  /** When the stages it touched are due next. */
  readonly due: readonly StageDue[];
  readonly checks: readonly NewIntegrityCheck[];
  readonly wasteKg: number | null;
}

/** The report of one job; null when this machine has no such job. */
export const loadJobReport = async (
  { db }: Pick<Context, 'db'>,
  bench: Bench,
  id: number,
): Promise<JobReport | null> => {
  const record = bench.jobs.find((j) => j.id === id);
  if (!record) return null;
  const state = jobState(record);
  const stories = inForce(bench.changes)
    .filter((c) => c.jobId === id)
    .flatMap((c) => changeStory(bench, c.id) ?? []);
  const touched = new Set(stories.map((s) => s.change.stageId));
  const checks = (await loadIntegrityChecks(db, record.machineId)).filter(
    (c) => touched.has(c.stageId) && c.at >= record.startedAt,
  );
  const end = state.ended?.event;
  return {
    record,
    state,
    stories,
    due: bench.status.due.filter((d) => touched.has(d.stageId)),
    checks,
    wasteKg: end?.kind === 'finished' ? end.wasteKg : null,
  };
};
