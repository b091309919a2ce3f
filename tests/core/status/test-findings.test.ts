import { describe, expect, it } from 'vitest';
import { judgeAgainstBaseline } from '@/core/measure/judge-baseline';
import { judgeHoseVelocity } from '@/core/measure/judge-class';
import { boreAreaM2 } from '@/core/measure/bore-flow';
import type { TestReadings } from '@/core/measure/test-readings';
import type { Machine } from '@/core/machine/machine';
import { NO_USE, type TestUse } from '@/core/record/records';
import { type TestFinding, testFindingsOf } from '@/core/status/test-findings';
import { flowTest, limits, reduce } from '../../support/readings';

const HOSE = 0.036;
const machine = {
  kind: 'mExtractor',
  hoseSelectorM: HOSE,
  nominalVolts: 230,
  stages: [] as Machine['stages'],
} as Machine;
const litres = (...values: readonly number[]) => values.map((v) => v / 1000);
const atVelocity = (...ms: readonly number[]) => ms.map((v) => v * boreAreaM2(HOSE));

interface Case {
  readonly now: readonly number[];
  readonly over?: Partial<TestReadings>;
  readonly baseline?: readonly number[];
  readonly baselineOver?: Partial<TestReadings>;
  readonly machine?: Partial<Machine>;
  readonly use?: TestUse;
  readonly previous?: readonly number[];
}

const find = (c: Case): readonly TestFinding[] => {
  const now = reduce(flowTest(c.now, { hoseBoreM: HOSE, ...c.over }));
  const baseline = c.baseline ? reduce(flowTest(c.baseline, { hoseBoreM: HOSE, ...c.baselineOver })) : null;
  const at = { ...machine, ...c.machine };
  return testFindingsOf({
    now,
    machine: at,
    use: c.use ?? NO_USE,
    baseline,
    baselineVerdict: judgeAgainstBaseline({ now, baseline, thresholds: { warnLoss: 0.15, actLoss: 0.25 } }),
    hose: judgeHoseVelocity(now, true),
    previous: c.previous ? { reduced: reduce(flowTest(c.previous, { hoseBoreM: HOSE })), day: '2026-11-01' } : null,
  });
};

const only = (findings: readonly TestFinding[], kind: TestFinding['kind']) => findings.filter((f) => f.kind === kind);
const calm = litres(30, 30.1, 29.9);

describe('what else there is to say of a test', () => {
  it('nothing, when all is as it should be', () => {
    expect(find({ now: calm, baseline: calm })).toEqual([]);
  });

  it('a wrong selector, on machines that have a class limit only', () => {
    const wrong = { hoseSelectorM: 0.027 };
    expect(only(find({ now: calm, machine: wrong }), 'selector')).toHaveLength(1);
    expect(only(find({ now: calm, machine: { ...wrong, kind: 'shopVacuum' } }), 'selector')).toHaveLength(0);
    expect(only(find({ now: calm, machine: { hoseSelectorM: null } }), 'selector')).toHaveLength(0);
  });

  it('a voltage more than 2 % off, and only when it was read', () => {
    expect(only(find({ now: calm, over: { volts: 214 } }), 'voltage')[0]).toMatchObject({
      volts: 214,
      off: expect.closeTo(-0.0696, 3),
    });
    expect(only(find({ now: calm, over: { volts: 227 } }), 'voltage')).toEqual([]);
    expect(only(find({ now: calm }), 'voltage')).toEqual([]);
  });

  it('another air than at the baseline, past 2 % of density', () => {
    const air = (pressurePa: number) => ({ air: { temperatureK: 293.15, relativeHumidity: 0.5, pressurePa } });
    expect(only(find({ now: calm, baseline: calm, over: air(97_000) }), 'density')).toHaveLength(1);
    expect(only(find({ now: calm, baseline: calm, over: air(100_500) }), 'density')).toEqual([]);
  });

  it("another rig than the baseline's", () => {
    expect(only(find({ now: calm, baseline: calm, over: { rigSeries: 2 } }), 'rig')).toHaveLength(1);
    expect(only(find({ now: calm, baseline: calm }), 'rig')).toEqual([]);
  });

  it('how a straddled class limit is settled: fewer repeats the further from it, a better meter when it is the meter', () => {
    const settle = (findings: readonly TestFinding[]) => {
      const [f] = only(findings, 'settle');
      return f?.kind === 'settle' ? f : null;
    };
    const near = settle(find({ now: atVelocity(20, 20.8, 21) }));
    const nearer = settle(find({ now: atVelocity(19.8, 20.6, 20.8) }));
    expect(near).toMatchObject({ of: 'hoseVelocity', how: { by: 'repeats' } });
    expect(near?.how.by === 'repeats' && nearer?.how.by === 'repeats' && nearer.how.more > near.how.more).toBe(true);
    expect(settle(find({ now: atVelocity(20.2, 20.3, 20.25), over: { accuracy: limits(0.1) } }))?.how).toMatchObject({
      by: 'method',
      neededExpanded: expect.closeTo(0.25, 6),
    });
  });

  it('how a straddled baseline is settled, where no class limit is in doubt', () => {
    const [f] = only(find({ now: litres(25.3, 25.9, 26.4), baseline: calm }), 'settle');
    expect(f).toMatchObject({ of: 'loss', how: { by: 'repeats' } });
  });

  it('a wheel and a duct, judged by the flow on this branch and the velocity in this duct', () => {
    const found = find({ now: litres(60, 60.2, 59.8), use: { wheelM: 0.1143, ductLoad: 'woodChips' } });
    expect(only(found, 'wheel')[0]).toMatchObject({ decision: 'pass' });
    expect(only(found, 'duct')[0]).toMatchObject({ decision: 'pass', lowMs: 18 });
    const one = find({ now: litres(60), use: { wheelM: 0.1143, ductLoad: 'woodChips' } });
    expect([only(one, 'wheel')[0], only(one, 'duct')[0]]).toMatchObject([
      { decision: 'tooFew' },
      { decision: 'tooFew' },
    ]);
    expect(
      only(
        find({ now: calm, over: { failedPreconditions: ['settled'] }, use: { wheelM: 0.1143, ductLoad: null } }),
        'wheel',
      ),
    ).toEqual([]);
  });

  it('no wheel and no duct is declared served by a reading that is not of this branch: Y at the hose end, bare inlet, outlet, best moment (common practice, no published source)', () => {
    const use = { wheelM: 0.1143, ductLoad: 'woodChips' as const };
    const wye = { stages: [{ kind: 'wye' }] as unknown as Machine['stages'] };
    const cfm355 = litres(167.5, 167.6, 167.4);
    const why = (over: Partial<TestReadings>, at: Partial<Machine> = {}) =>
      only(find({ now: cfm355, over, use, machine: at }), 'useNotJudged').map((f) =>
        f.kind === 'useNotJudged' ? `${f.of} ${f.because}` : '',
      );
    expect(why({}, wye)).toEqual(['wheel branch']);
    expect(why({ place: 'inlet' })).toEqual(['wheel hoseOff', 'duct hoseOff']);
    expect(why({ place: 'outlet' })).toEqual(['wheel outlet', 'duct outlet']);
    expect(why({ maxHold: true })).toEqual(['wheel biased', 'duct biased']);
    for (const over of [{ place: 'inlet' as const }, { place: 'outlet' as const }, { maxHold: true }])
      expect(only(find({ now: cfm355, over, use }), 'wheel')).toEqual([]);
    // On its own branch, at the tool, it is judged.
    expect(only(find({ now: cfm355, over: { place: 'toolEnd' }, use, machine: wye }), 'wheel')).toHaveLength(1);
  });

  it('the change since the test before', () => {
    expect(only(find({ now: litres(27, 27.1, 26.9), previous: calm }), 'previous')[0]).toMatchObject({
      day: '2026-11-01',
      comparison: { outcome: 'less' },
    });
  });
});
