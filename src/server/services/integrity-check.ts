import type { IntegrityBody } from '@/contracts/job';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { integrityTestsOf } from '@/core/machine/integrity';
import { reduceAny } from '@/core/measure/reduce-any';
import type { ParticleVerdict } from '@/core/measure/particle-count';
import { standing, type TestRecord } from '@/core/record/records';
import { findMachine } from '../repositories/machines';
import { insertIntegrityCheck } from '../repositories/proofs';
import { loadTests } from '../repositories/tests';
import { type Context, runOnce } from './user-action';

/** What the newest particle count since a moment says; null without one. */
export const countedSince = (tests: readonly TestRecord[], since: string | null): ParticleVerdict['outcome'] | null => {
  const counted = standing(tests).filter((t) => t.test.method === 'particles' && (since === null || t.performedAt >= since)).at(-1);
  const reduced = counted ? reduceAny(counted.test) : null;
  return reduced?.ok && reduced.value.form === 'particles' ? reduced.value.particles.outcome : null;
};

/** A pass by particles rests on a count of this machine, or on a note of who counted and how. */
const counts = (outcome: ParticleVerdict['outcome'] | null, { passed, note }: IntegrityBody): Result<true> => {
  if (!passed || outcome === 'belowRoom') return ok(true);
  if (outcome === 'aboveRoom') return fail(failure('integrity.above', 'passed'));
  return note === '' ? fail(failure('integrity.no-count', 'note', { counted: outcome ?? 'none' })) : ok(true);
};

/** Records one integrity test of a fine filter: what the class wording waits for. */
export const recordIntegrity = async ({ db, now }: Context, tag: string, body: IntegrityBody): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `integrity ${tag}`, body, at }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const stage = machine.stages.find((s) => s.id === body.stageId);
    if (!stage) return fail(failure('stage.unknown', 'stageId', { tag }));
    if (!integrityTestsOf(machine, stage).includes(body.test)) return fail(failure('integrity.not-due', 'test', { stage: stage.name }));
    const shown = body.test === 'particles' ? counts(countedSince(await loadTests(tx, machine.id), stage.fittedAt), body) : ok(true as const);
    if (!shown.ok) return shown;
    const { by, test, passed, note } = body;
    return ok({ id: await insertIntegrityCheck(tx, { machineId: machine.id, stageId: stage.id, at, by, test, passed, note }) });
  });
};
