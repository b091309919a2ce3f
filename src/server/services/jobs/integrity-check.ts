import { PlainAnswer } from '@/contracts/action-answer';
import type { IntegrityBody } from '@/contracts/dust';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { classLimit, integrityTestsOf, wantsPenetration } from '@/core/machine/integrity';
import type { Machine, Stage } from '@/core/machine/machine';
import { judgeScreening, type ScreeningVerdict } from '@/core/measure/penetration-ratio';
import { reduceAny } from '@/core/measure/reduce-any';
import { inForce, type TestRecord } from '@/core/record/records';
import { dayAt } from '@/core/calendar/calendar-date';
import type { Db } from '../../db/connect';
import { findMachine } from '../../repositories/machines';
import { insertIntegrityCheck, insertPenetrationTest } from '../../repositories/proofs';
import { loadSite } from '../../repositories/site';
import { loadTests } from '../../repositories/tests';
import { refusedBy } from '../yard/state-dust';
import { type Context, runOnce } from '../yard/user-action';

/** Largest size a screening count may start at, um. A Moorwind default, next to the 0.3 um that HEPA is stated at. */
const SCREENING_SIZE_UM = 0.5;

/** The newest particle count since a seat was opened, judged by its limits; null without one. */
export const screenedSince = (
  tests: readonly TestRecord[],
  { machineClass }: Pick<Machine, 'machineClass'>,
  since: string | null,
): ScreeningVerdict | null => {
  if (machineClass === null) return null;
  const usable = inForce(tests).filter(
    (t) =>
      t.test.method === 'particles' &&
      t.test.failedPreconditions.length === 0 &&
      (since === null || t.performedAt >= since),
  );
  const counted = usable.at(-1);
  const reduced = counted ? reduceAny(counted.test) : null;
  if (!reduced?.ok || reduced.value.form !== 'particles') return null;
  // Coarse particles are held by any cloth: a count of them screens nothing.
  if (reduced.value.sizeUm > SCREENING_SIZE_UM) return null;
  const { exhaust, room } = reduced.value.counted;
  return judgeScreening({ through: exhaust, challenge: room }, { limit: classLimit(machineClass) });
};

/** Since when a count counts: the last opening of the seat, a look at the clean side being one. */
const countsSince = ({ openedAt, proven }: Stage): string | null =>
  proven.filter((c) => c.test === 'cleanSide' && (openedAt === null || c.at >= openedAt)).at(-1)?.at ?? openedAt;

/** A count decides by its limits, independent of the reader. */
const judged = async (tx: Db, machine: Machine, stage: Stage): Promise<Result<boolean>> => {
  const verdict = screenedSince(await loadTests(tx, machine.id), machine, countsSince(stage));
  if (!verdict) return fail(failure('integrity.no-count', 'test'));
  if (!Number.isFinite(verdict.high)) return fail(failure('integrity.no-challenge', 'test'));
  const { high, best, figure } = verdict;
  return verdict.outcome === 'notShown'
    ? fail(failure('integrity.not-shown', 'test', { high, best, figure }))
    : ok(verdict.outcome === 'screened');
};

/** Records one screening of a fine filter, or the penetration test its class wording waits for. */
export const recordIntegrity = async (
  { db, now }: Context,
  tag: string,
  body: IntegrityBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `integrity ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const refused = refusedBy(machine);
    if (refused) return refused;
    const stage = machine.stages.find((s) => s.id === body.stageId);
    if (!stage) return fail(failure('stage.unknown', 'stageId', { tag }));
    const { by } = body;
    if (body.test === 'penetration') {
      if (
        machine.machineClass === null ||
        (!wantsPenetration(machine, stage) && integrityTestsOf(machine, stage).length === 0)
      )
        return fail(failure('integrity.not-due', 'test', { stage: stage.name }));
      if (body.testedOn > dayAt(at, (await loadSite(tx)).timeZone))
        return fail(failure('examination.future', 'testedOn'));
      const { testedOn, tester, method, certificate, percent, nextDueOn } = body;
      return ok({
        id: await insertPenetrationTest(tx, machine.id, {
          at,
          by,
          testedOn,
          tester,
          method,
          certificate,
          share: percent / 100,
          limit: classLimit(machine.machineClass),
          nextDueOn,
        }),
      });
    }
    if (!integrityTestsOf(machine, stage).includes(body.test))
      return fail(failure('integrity.not-due', 'test', { stage: stage.name }));
    const passed = body.test === 'particles' ? await judged(tx, machine, stage) : ok(body.passed);
    if (!passed.ok) return passed;
    return ok({
      id: await insertIntegrityCheck(tx, {
        machineId: machine.id,
        stageId: stage.id,
        at,
        by,
        test: body.test,
        passed: passed.value,
        note: body.note,
      }),
    });
  });
};
