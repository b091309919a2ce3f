import { DAY_MS } from '@/core/calendar/time';
import { dayAt, daysBetween } from '@/core/calendar/calendar-date';
import { pressureProfile } from '@/core/path/pressure-profile';
import { compareTests } from '@/core/measure/compare-tests';
import { reduceAny } from '@/core/measure/reduce-any';
import type { ReducedTest } from '@/core/measure/reduce-test';
import { inForce, type TestRecord } from '@/core/record/records';
import { isSeries } from '@/core/record/series';
import { judgeTest } from '@/core/status/judge-test';
import { compareExhaust, type ExhaustCount, type ParticleProof, touchesExhaust } from '@/core/upgrade/particles';
import { judgeProof, type Proof, type Unlike } from '@/core/upgrade/prove';
import { bookedOf, type UpgradeRecord } from '@/core/upgrade/record';
import { AS_NEW } from '@/core/path/as-new';
import { airPathOfBench } from '../measuring/air-path';
import type { Bench } from '../measuring/bench';

export interface Proven {
  readonly before: TestRecord;
  readonly after: TestRecord | null;
  /** Measured means, m3/s; null without an after-test. */
  readonly flows: readonly [before: number, after: number] | null;
  readonly proof: Proof | null;
  /** Counts in the exhaust before and after; null where they are not both there. */
  readonly particles: ParticleProof | null;
}

const reducedOf = (bench: Bench, record: TestRecord): ReducedTest =>
  judgeTest({
    machine: bench.status.machine,
    tests: bench.tests,
    thresholds: bench.yard.site.thresholds,
    record,
  }).reduced;

/**
 * Largest share of the flow that a stage's load may have cost: the clean stage against its present state; null where
 * the model has no answer.
 */
const worthOf = (bench: Bench, stageId: number): number | null => {
  const { modelled, view } = airPathOfBench(bench);
  const position = modelled.model.stages.findIndex((s) => s.id === stageId);
  const { model, parameters } = modelled;
  const state = view.today.state;
  // Its earlier load is not on record after a change: all filters' loads together bound it.
  const loaded = pressureProfile({ model, parameters, state });
  const clean = pressureProfile({ model, parameters, state: AS_NEW });
  return position < 0 || !loaded.ok || !clean.ok
    ? null
    : Math.max(0, clean.value.flowPerToolM3s / loaded.value.flowPerToolM3s - 1);
};

/** Tests further apart than this are of parts that have aged. A Moorwind default. */
const OLDER_DAYS = 14;

/** Other differences between two tests of a machine, with their effect. */
export const unlikeOf = (
  bench: Bench,
  tests: { readonly before: TestRecord; readonly after: TestRecord },
  own: { readonly editId: number | null; readonly stageIds: readonly number[] },
): readonly Unlike[] => {
  const [before, after] = [reducedOf(bench, tests.before), reducedOf(bench, tests.after)];
  const { differs } = compareTests({ before, after });
  const between = (at: string): boolean => at > tests.before.performedAt && at <= tests.after.performedAt;
  const stageName = (id: number) => bench.status.machine.stages.find((s) => s.id === id)?.name ?? 'a stage';
  const daysApart = daysBetween({
    from: dayAt(tests.before.performedAt, bench.yard.site.timeZone),
    to: dayAt(tests.after.performedAt, bench.yard.site.timeZone),
  });
  const voltage =
    differs.includes('voltage') && before.volts !== null && after.volts !== null
      ? Math.sqrt(after.volts / before.volts) - 1
      : null;
  return [
    ...(differs.includes('voltage') ? [{ what: 'voltage' as const, name: '', explains: voltage }] : []),
    ...(differs.includes('instrument') ? [{ what: 'otherMeter' as const, name: '', explains: 0 }] : []),
    ...(differs.includes('rig') ? [{ what: 'otherRig' as const, name: '', explains: 0 }] : []),
    ...(differs.includes('hose') && own.editId === null
      ? [{ what: 'otherHose' as const, name: '', explains: null }]
      : []),
    ...(differs.includes('maxHold') ? [{ what: 'maxHold' as const, name: '', explains: null }] : []),
    ...(daysApart > OLDER_DAYS ? [{ what: 'older' as const, name: String(daysApart), explains: 0 }] : []),
    ...inForce(bench.changes)
      .filter((c) => between(c.performedAt) && !own.stageIds.includes(c.stageId))
      .map((c): Unlike => ({
        what: 'stageChanged',
        name: stageName(c.stageId),
        explains: worthOf(bench, c.stageId),
      })),
    ...bench.pathEdits
      .filter((e) => e.id !== own.editId && between(e.performedAt))
      .map((): Unlike => ({ what: 'edited', name: '', explains: null })),
  ];
};

/** Days in which a test afterwards may be repeated: later ones show later effects too. A Moorwind default. */
const REPEAT_DAYS = 30;

/** The test afterwards: like the one from before, after the upgrade was booked, before anything else was changed. Repeated soon, the newest counts. */
const afterTestOf = (bench: Bench, upgrade: UpgradeRecord, before: TestRecord): TestRecord | null => {
  const booked = bookedOf(upgrade);
  if (!booked) return null;
  const undone = upgrade.events.find((e) => e.event.kind === 'undone')?.at ?? null;
  const alike = inForce(bench.tests)
    .filter(
      (t) =>
        isSeries(t) &&
        t.performedAt > booked.at &&
        (undone === null || t.performedAt <= undone) &&
        t.test.failedPreconditions.length === 0 &&
        t.test.method === before.test.method &&
        t.test.place === before.test.place,
    )
    .sort((a, b) => (a.performedAt < b.performedAt ? -1 : 1));
  const [first] = alike;
  if (!first) return null;
  const nextChange = [...inForce(bench.changes), ...bench.pathEdits]
    .map((c) => c.performedAt)
    .filter((at) => at > first.performedAt)
    .sort()[0];
  const until = new Date(Date.parse(first.performedAt) + REPEAT_DAYS * DAY_MS).toISOString();
  return (
    alike.findLast((t) => t.performedAt <= until && (nextChange === undefined || t.performedAt < nextChange)) ?? first
  );
};

const countOf = (record: TestRecord): ExhaustCount | null => {
  const reduced = record.test.method === 'particles' ? reduceAny(record.test) : null;
  return reduced?.ok && reduced.value.form === 'particles'
    ? { through: reduced.value.counted.exhaust, challenge: reduced.value.counted.room }
    : null;
};

/** The newest count before an upgrade was booked, and the newest one after. */
const particlesOf = (bench: Bench, bookedAt: string): ParticleProof | null => {
  const counts = inForce(bench.tests)
    .filter((t) => t.test.failedPreconditions.length === 0)
    .flatMap((t) => {
      const count = countOf(t);
      return count ? [{ at: t.performedAt, count }] : [];
    });
  const [before, after] = [counts.findLast((c) => c.at <= bookedAt), counts.findLast((c) => c.at > bookedAt)];
  return before && after ? compareExhaust(before.count, after.count) : null;
};

/** The result of the tests before and after a booked upgrade; null for an upgrade that is not booked. */
export const provenOf = (bench: Bench, upgrade: UpgradeRecord): Proven | null => {
  const booked = bookedOf(upgrade);
  const before = bench.tests.find((t) => t.id === booked?.beforeTestId);
  if (!booked || !before) return null;
  const after = afterTestOf(bench, upgrade, before);
  const particles = upgrade.changes.some(touchesExhaust) ? particlesOf(bench, booked.at) : null;
  if (!after) return { before, after: null, flows: null, proof: null, particles };
  const [first, second] = [reducedOf(bench, before), reducedOf(bench, after)];
  const stageIds = upgrade.changes.flatMap((c) => ('stageId' in c ? [c.stageId] : []));
  return {
    before,
    after,
    particles,
    flows: [first.repeats.mean, second.repeats.mean],
    proof: judgeProof({
      comparison: compareTests({ before: first, after: second }),
      before: first,
      after: second,
      predicted: upgrade.predicted.ratio,
      unlike: unlikeOf(bench, { before, after }, { editId: booked.editId, stageIds }),
    }),
  };
};
