import type { CaseRecord } from '@/core/diagnose/case-log';
import type { ChangeRecord, Instrument, TestRecord } from '@/core/record/records';
import type { PathEditRecord } from '@/core/machine/path-edit';
import type { JobRecord } from '@/core/procedure/job-log';
import type { MachineStatus } from '@/core/status/machine-status';
import { loadCases } from '../../repositories/cases';
import { loadChanges } from '../../repositories/changes';
import { loadPathEdits } from '../../repositories/machine-edits';
import { loadJobs } from '../../repositories/jobs';
import { loadInstruments } from '../../repositories/instruments';
import { loadParts, type PartOnHand } from '../../repositories/stock';
import { loadTests } from '../../repositories/tests';
import type { Context } from '../yard/user-action';
import { type Yard, yardMachine } from '../yard/yard';

export interface Bench {
  readonly yard: Yard;
  readonly status: MachineStatus;
  /** Every record of the machine, superseded and withdrawn ones too, oldest first. */
  readonly tests: readonly TestRecord[];
  readonly changes: readonly ChangeRecord[];
  /** Every edit of its air path, oldest first. */
  readonly pathEdits: readonly PathEditRecord[];
  /** Every case of fault finding, oldest first. */
  readonly cases: readonly CaseRecord[];
  /** Every guided job, oldest first. */
  readonly jobs: readonly JobRecord[];
  readonly instruments: readonly Instrument[];
  readonly parts: readonly PartOnHand[];
}

/** Everything the bench shows of one machine; null when there is no machine of that tag. */
export const loadBench = async (context: Context, tag: string): Promise<{ yard: Yard; bench: Bench | null }> => {
  const { yard, status } = await yardMachine(context, tag);
  if (!status) return { yard, bench: null };
  const { id } = status.machine;
  const bench: Bench = {
    yard,
    status,
    tests: await loadTests(context.db, id),
    changes: await loadChanges(context.db, yard.site.timeZone, id),
    pathEdits: await loadPathEdits(context.db, id),
    cases: await loadCases(context.db, id),
    jobs: await loadJobs(context.db, id),
    instruments: await loadInstruments(context.db),
    parts: await loadParts(context.db),
  };
  return { yard, bench };
};
