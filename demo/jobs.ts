import { assemble } from '@/core/procedure/assemble';
import { insertJob, insertJobEvent } from '@/server/repositories/jobs';
import { findMachine } from '@/server/repositories/machines';
import { momentOf, type Seeding } from './seeding';

const HOURS = 1 / 24;

/** A rinsed filter that was hung up this morning: its machine is out of service until it is dry. */
export const insertJobs = async (s: Seeding): Promise<void> => {
  const machine = await findMachine(s.db, 'CR-12');
  const position = machine?.stages.findIndex((x) => x.kind === 'prefilter') ?? -1;
  if (!machine || position < 0) throw new Error('the demo has no filter to rinse on CR-12');
  const made = assemble(machine, { kind: 'wash', stage: position }, machine.hazard);
  if (!made.ok) throw new Error('the demo wash cannot be assembled');
  const procedure = made.value;
  const hung = procedure.steps.findIndex((x) => x.key === 'startDrying');
  const begun = 5.2 * HOURS;
  const jobId = await insertJob(s.db, {
    machineId: machine.id,
    startedAt: momentOf(s, begun),
    by: 'TO',
    hazard: machine.hazard,
    lastCollected: machine.lastCollected,
    reason: 'date',
    people: 1,
    procedure,
    stages: machine.stages.map(({ id, name }) => ({ id, name })),
  });
  for (let step = 0; step <= hung; step += 1) {
    await insertJobEvent(s.db, {
      jobId,
      at: momentOf(s, begun - step * 0.02 * HOURS),
      by: 'TO',
      event: { kind: 'did', step },
    });
  }
};
