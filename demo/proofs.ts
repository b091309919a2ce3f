import { DAY_MS } from '@/core/calendar/time';
import { addDays } from '@/core/calendar/calendar-date';
import { classLimit, integrityTestsOf } from '@/core/machine/integrity';
import type { MachineClass } from '@/core/filter/machine-class';
import type { StageKind } from '@/core/path/stage-kinds';
import { insertExamination, insertIntegrityCheck, insertPenetrationTest } from '@/server/repositories/proofs';
import type { MachineSpec } from './scenario';
import { momentOf, type Seeding } from './seeding';

interface ChangedSeat {
  readonly machineId: number;
  readonly stageId: number;
  readonly machineClass: MachineClass | null;
  readonly kind: StageKind;
  readonly performedAt: string;
  readonly by: string;
}

const QUARTER_HOUR_MS = 900_000;
const THREE_DAYS_MS = 3 * DAY_MS;

/** The screening after a change of the filter that carries a machine's class, and for H and HEPA the test of the firm that came three days later. */
export const proveSeat = async (
  s: Seeding,
  { machineId, stageId, machineClass, kind, performedAt, by }: ChangedSeat,
): Promise<void> => {
  const at = new Date(Date.parse(performedAt) + QUARTER_HOUR_MS).toISOString();
  for (const test of integrityTestsOf({ machineClass, hazard: 'plain' }, { kind })) {
    await insertIntegrityCheck(s.db, {
      machineId,
      stageId,
      at,
      by,
      test,
      passed: true,
      note: test === 'particles' ? 'counter of the yard, five minutes each' : '',
    });
  }
  if (machineClass !== 'H' && machineClass !== 'HEPA') return;
  if (integrityTestsOf({ machineClass, hazard: 'plain' }, { kind }).length === 0) return;
  const tested = new Date(Date.parse(performedAt) + THREE_DAYS_MS).toISOString();
  const testedOn = tested.slice(0, 10);
  const limit = classLimit(machineClass);
  await insertPenetrationTest(s.db, machineId, {
    at: tested,
    by,
    testedOn,
    tester: 'the test firm from the estuary',
    method: 'aerosol photometer',
    certificate: `P-${machineId}${testedOn.slice(2, 4)}${testedOn.slice(5, 7)}`,
    share: limit * 0.4,
    limit,
    nextDueOn: addDays(testedOn, 365),
  });
};

/** The last examination of a machine, by a competent person. */
export const insertExaminations = async (s: Seeding, spec: MachineSpec, machineId: number): Promise<void> => {
  if (!spec.examined) return;
  const { daysAgo, found } = spec.examined;
  await insertExamination(s.db, machineId, {
    on: addDays(s.today, -daysAgo),
    at: momentOf(s, daysAgo),
    by: 'AB',
    examiner: 'the inspector of the insurers',
    found,
  });
};
