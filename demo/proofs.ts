import { integrityTestsOf } from '@/core/machine/integrity';
import type { MachineClass } from '@/core/machine/machine-class';
import type { StageKind } from '@/core/path/stage-kinds';
import { insertIntegrityCheck } from '@/server/repositories/proofs';
import type { Seeding } from './seeding';

interface ChangedSeat {
  readonly machineId: number;
  readonly stageId: number;
  readonly machineClass: MachineClass | null;
  readonly kind: StageKind;
  readonly performedAt: string;
  readonly by: string;
}

const QUARTER_HOUR_MS = 900_000;

/** The integrity tests after a change of the filter that carries a machine's class, passed a quarter of an hour later. */
export const proveSeat = async (s: Seeding, { machineId, stageId, machineClass, kind, performedAt, by }: ChangedSeat): Promise<void> => {
  const at = new Date(Date.parse(performedAt) + QUARTER_HOUR_MS).toISOString();
  for (const test of integrityTestsOf({ machineClass }, { kind })) {
    await insertIntegrityCheck(s.db, { machineId, stageId, at, by, test, passed: true, note: test === 'particles' ? 'counter of the yard, below the room' : '' });
  }
};
