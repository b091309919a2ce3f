import { beforeEach, describe, expect, it } from 'vitest';
import type { Result } from '@/core/failure/failure';
import { type Db, openMigrated } from '@/server/db/connect';
import { insertChange } from '@/server/repositories/changes';
import { loadMachineCosts } from '@/server/services/stock/machine-costs';
import { loadYard } from '@/server/services/yard/yard';
import { loadParts } from '@/server/repositories/stock';
import { loadTests } from '@/server/repositories/tests';
import { type Bench, loadBench } from '@/server/services/measuring/bench';
import { changeStory } from '@/server/services/jobs/change-story';
import { comparableTests, compareChosen } from '@/server/services/measuring/compare-page';
import { countStock } from '@/server/services/stock/count-stock';
import { correctChange, recordChange, withdrawChange } from '@/server/services/jobs/record-change';
import { correctTest, recordTest, withdrawTest } from '@/server/services/measuring/record-test';
import { loadRound } from '@/server/services/plan/round';
import { standInTarget } from '@/server/services/yard/stand-in-target';
import { loadTrend, trendKeys } from '@/server/services/measuring/trend';
import { trendCsv } from '@/server/services/measuring/trend-csv';
import type { Context } from '@/server/services/yard/user-action';
import { changeBody, readings, testBody } from '../support/bodies';
import { seedDemo } from '../../demo/seed';
import { demoContext, newId, NOW } from '../support/database';

let context: Context & { db: Db };
beforeEach(async () => {
  context = await demoContext();
});

const bench = async (tag: string): Promise<Bench> => {
  const { bench: found } = await loadBench(context, tag);
  if (!found) throw new Error(`no ${tag}`);
  return found;
};
const stageOf = async (tag: string, name: string) => {
  const stage = (await bench(tag)).status.machine.stages.find((s) => s.name === name);
  if (!stage) throw new Error(`no ${name} on ${tag}`);
  return stage;
};
const dueOf = async (tag: string, name: string) => {
  const stage = await stageOf(tag, name);
  return (await bench(tag)).status.due.find((d) => d.stageId === stage.id);
};
const shelf = async (partId: number) => (await loadParts(context.db)).find((p) => p.id === partId)?.onHand;
const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(result.failures.map((f) => `${f.code} at ${f.path}`).join());
  return result.value;
};
const codes = (result: Result<unknown>) =>
  result.ok ? ['accepted'] : result.failures.map((f) => `${f.code} ${f.path}`.trim());
const countRows = async (table: 'airflow_test' | 'stage_change' | 'test_reading' | 'stock_movement' | 'user_action') =>
  Number(
    (
      await context.db
        .selectFrom(table)
        .select((eb) => eb.fn.countAll().as('n'))
        .executeTakeFirstOrThrow()
    ).n,
  );

describe('recording a test', () => {
  it('stores each reading once, as typed and in SI, and judges it on the board', async () => {
    const body = testBody({ readings: readings('cfm', '21.3 cfm', '21.1', '9,95 L/s') });
    const { id } = value(await recordTest(context, 'cr-04', body));
    const stored = (await loadTests(context.db)).find((t) => t.id === id);
    expect(stored?.readings.map((r) => [r.typed, r.unit])).toEqual([
      ['21.3 cfm', 'cfm'],
      ['21.1', 'cfm'],
      ['9,95 L/s', 'L/s'],
    ]);
    expect(stored?.test.readingsSi[2]).toBeCloseTo(0.00995, 9);
    expect((await bench('CR-04')).status.need).toMatchObject({ kind: 'belowClassLimit' });
  });

  it('makes one record of a double click, and refuses the same id for something else', async () => {
    const body = testBody();
    const [first, second] = await Promise.all([recordTest(context, 'CR-04', body), recordTest(context, 'CR-04', body)]);
    expect(value(first)).toEqual(value(second));
    expect((await loadTests(context.db)).filter((t) => t.performedAt === body.performedAt)).toHaveLength(1);
    expect(codes(await recordTest(context, 'CR-04', { ...body, note: 'other' }))).toEqual(['action.reused clientId']);
    expect(codes(await recordTest(context, 'CR-05', body))).toEqual(['action.reused clientId']);
  });

  it.each([
    [
      'an impossible suction',
      { method: 'sealedSuction', readings: readings('kPa', '40 psi') },
      'suction.impossible readings.0',
    ],
    ['pounds', { method: 'sealedSuction', readings: readings('kPa', '40 pounds') }, 'quantity.pounds readings.0'],
    ['a negative flow', { readings: readings('L/s', '-3') }, 'quantity.negative readings.0'],
    ['a wrong unit', { readings: readings('L/s', '3 m/s') }, 'quantity.wrong-unit readings.0'],
    ['no reading', { readings: [] }, 'readings.none readings'],
    [
      'only struck readings',
      { readings: readings('L/s', '3').map((r) => ({ ...r, struckBecause: 'slip' })) },
      'readings.all-struck readings',
    ],
    [
      'an anemometer without a bore',
      { method: 'anemometer', readings: readings('m/s', '3'), profileFactor: 0.82 },
      'bore.missing bore',
    ],
    ['a bore of zero', { hoseBore: { typed: '0', unit: 'mm' } }, 'quantity.out-of-range hoseBore'],
    ['the future', { performedAt: '2026-12-24T10:00:00.000Z' }, 'date.future performedAt'],
    ['before its first day', { performedAt: '2019-01-01T10:00:00.000Z' }, 'date.before-service performedAt'],
    ['an unknown instrument', { instrumentId: 99 }, 'instrument.unknown instrumentId'],
    ['an instrument of another kind', { instrumentId: 3 }, 'instrument.wrong-quantity instrumentId'],
    ['a change of another machine', { afterChangeId: 999_999 }, 'change.unknown afterChangeId'],
  ] as const)('refuses %s beside its field and writes nothing', async (_what, over, code) => {
    const before = [await countRows('airflow_test'), await countRows('test_reading'), await countRows('user_action')];
    expect(codes(await recordTest(context, 'CR-04', testBody(over as object)))).toContain(code);
    expect([await countRows('airflow_test'), await countRows('test_reading'), await countRows('user_action')]).toEqual(
      before,
    );
  });

  it('grants a clock that runs minutes ahead, not one that runs hours ahead', async () => {
    const ahead = (minutes: number) => new Date(Date.parse(context.now()) + minutes * 60_000).toISOString();
    expect(codes(await recordTest(context, 'CR-04', testBody({ performedAt: ahead(9) })))).toEqual(['accepted']);
    expect(codes(await recordTest(context, 'CR-04', testBody({ performedAt: ahead(11) })))).toEqual([
      'date.future performedAt',
    ]);
    expect(codes(await recordTest(context, 'CR-04', testBody({ performedAt: ahead(9 * 60) })))).toEqual([
      'date.future performedAt',
    ]);
  });

  it('takes the sign of a manometer, and questions what is implausible instead of refusing it', async () => {
    const suctions = readings('inH2O', '-92', '-91', '-92');
    const suction = value(
      await recordTest(context, 'CR-04', testBody({ method: 'sealedSuction', place: 'inlet', readings: suctions })),
    );
    expect(suction.questions).toEqual([]);
    const huge = value(await recordTest(context, 'CR-04', testBody({ readings: readings('L/s', '600 L/s') })));
    expect(huge.questions[0]?.code).toBe('reading.high');
  });

  it('keeps a test with a failed precondition and never uses it', async () => {
    const before = (await bench('CR-05')).status.latest?.record.id;
    const { id } = value(
      await recordTest(context, 'CR-05', testBody({ hoseBore: null, failedPreconditions: ['settled'] })),
    );
    const after = await bench('CR-05');
    expect(after.tests.some((t) => t.id === id)).toBe(true);
    expect(after.status.latest?.record.id).toBe(before);
  });

  it('knows no machine of another tag', async () => {
    expect(codes(await recordTest(context, 'CR-99', testBody()))).toEqual(['machine.unknown']);
  });
});

describe('every way of measuring', () => {
  const kPa = (...typed: string[]) => readings('kPa', ...typed);
  const mm = (typed: string) => ({ typed, unit: 'mm' });
  const s60 = { typed: '60', unit: 's' };
  const counting = {
    kind: 'particles' as const,
    sizeUm: 0.3,
    flow: { typed: '2.83', unit: 'L/min' },
    exhaustTime: s60,
    roomTime: s60,
  };
  const curve = { kind: 'curve' as const, orifices: ['0', '16', '30'].map(mm), coefficient: 0.61 };
  const pipe = { kind: 'plate' as const, orifice: mm('30'), coefficient: 0.61, pipe: mm('30') };
  const round = { kind: 'round' as const, diameter: mm('125'), pointsPerDiameter: 6 as const, diameters: 2 as const };

  it('stores detail, slots, use, rig and voltage, and reads them back as they were', async () => {
    const body = testBody({
      method: 'suctionCurve',
      place: 'inlet',
      readings: kPa('22', '15', '4'),
      detail: curve,
      volts: { typed: '228', unit: 'V' },
      rigSeries: 3,
      configuration: 'new bag',
      wheel: { typed: '4.5 in', unit: 'in' },
    });
    const { id } = value(await recordTest(context, 'CR-04', body));
    const stored = (await loadTests(context.db)).find((t) => t.id === id);
    expect(stored).toMatchObject({
      configuration: 'new bag',
      test: { detail: { kind: 'curve', orificesM: [0, 0.016, 0.03] }, slots: [0, 1, 2], rigSeries: 3, volts: 228 },
    });
    expect(stored?.use.wheelM).toBeCloseTo(0.1143, 9);
    // A curve is no series: the verdict on how the machine runs stays the flow's.
    expect((await bench('CR-04')).status.latest?.record.test.method).toBe('flowMeter');
  });

  it('a word needs no reading', async () => {
    const { id } = value(
      await recordTest(
        context,
        'CR-04',
        testBody({ method: 'hand', readings: [], detail: { kind: 'hand', word: 'weak' } }),
      ),
    );
    expect((await loadTests(context.db)).find((t) => t.id === id)?.test.detail).toEqual({ kind: 'hand', word: 'weak' });
  });

  it.each([
    [
      'a negative background',
      { method: 'particles', readings: readings('counts', '6', '-333'), detail: counting },
      'quantity.negative readings.1',
    ],
    [
      'a count with no time',
      {
        method: 'particles',
        readings: readings('counts', '6', '333'),
        detail: { ...counting, roomTime: { typed: '', unit: 's' } },
      },
      'quantity.empty detail.roomTime',
    ],
    [
      'half a particle',
      { method: 'particles', readings: readings('counts', '6.5', '333'), detail: counting },
      'particles.whole readings',
    ],
    [
      'no background',
      { method: 'particles', readings: readings('counts', '6'), detail: counting },
      'particles.both readings',
    ],
    ['two openings', { method: 'suctionCurve', readings: kPa('22', '15'), detail: curve }, 'curve.too-few readings'],
    [
      'a hole as wide as its pipe',
      { method: 'orifice', readings: kPa('0.5'), detail: pipe },
      'orifice.too-large detail.orifice',
    ],
    [
      'half a traverse',
      { method: 'anemometerTraverse', readings: readings('m/s', '20', '20'), detail: round },
      'traverse.incomplete readings',
    ],
    [
      'a point twice',
      {
        method: 'anemometerTraverse',
        readings: readings('m/s', '20', '20').map((r) => ({ ...r, slot: 0 })),
        detail: round,
      },
      'traverse.repeated-point readings',
    ],
    [
      'a duct of zero',
      { method: 'anemometerTraverse', readings: readings('m/s', '20'), detail: { ...round, diameter: mm('0') } },
      'quantity.out-of-range detail.diameter',
    ],
    [
      'a negative pitot point',
      { method: 'pitotTraverse', readings: readings('Pa', '60', '-4'), detail: round },
      'pitot.negative-point readings.1',
    ],
    [
      'a stage of another machine',
      { method: 'stageDp', readings: kPa('1.2'), detail: { kind: 'stage', stageId: 1 } },
      'stage.unknown detail.stageId',
    ],
    [
      'no zone',
      { method: 'gaugeZone', readings: [], detail: { kind: 'zone', stageId: 1, zone: null } },
      'detail.word detail.zone',
    ],
    ['a detail of another method', { method: 'hand', readings: [], detail: { kind: 'none' } }, 'field.invalid detail'],
    ['a wheel of a kilometre', { wheel: { typed: '1000 m', unit: 'm' } }, 'quantity.out-of-range wheel'],
    ['a line of 12 V', { volts: { typed: '12', unit: 'V' } }, 'quantity.out-of-range volts'],
  ] as const)('refuses %s by name and writes nothing', async (_what, over, code) => {
    const before = await countRows('airflow_test');
    expect(codes(await recordTest(context, 'CR-04', testBody(over as object)))).toContain(code);
    expect(await countRows('airflow_test')).toBe(before);
  });
});

describe('comparing and the trend', () => {
  it('the demo collector gained with its canister, and the gain is real', async () => {
    const heron = await bench('CR-01');
    const named = (name: string) => heron.tests.find((t) => t.configuration === name)?.id ?? 0;
    const compared = compareChosen(heron, [named('cloth bag'), named('pleated canister')]);
    expect(compared.comparison).toMatchObject({ outcome: 'more', differs: [] });
    expect(compared.comparison?.relative).toBeCloseTo(0.992 / 0.845 - 1, 1);
    expect(compareChosen(heron, [named('cloth bag')]).comparison).toBeNull();
  });

  it('lets no test into a chain that does not count', async () => {
    const taken = async (minute: number, over: Partial<Parameters<typeof testBody>[0]> = {}) => {
      const performedAt = `2026-11-24T07:0${minute}:00.000Z`;
      return value(await recordTest(context, 'CR-11', testBody({ performedAt, hoseBore: null, ...over }))).id;
    };
    const three = [await taken(1), await taken(2), await taken(3)];
    expect(compareChosen(await bench('CR-11'), three).chain).toHaveLength(2);
    const off = await taken(4, { failedPreconditions: ['settled'] });
    expect(compareChosen(await bench('CR-11'), [...three.slice(0, 2), off]).chain).toEqual([]);
  });

  it('claims nothing where the voltage or two things done at once could be all of it', async () => {
    const at = (minute: number) => `2026-11-24T09:${String(minute).padStart(2, '0')}:00.000Z`;
    const taken = async (minute: number, typed: readonly string[], volts: string) =>
      value(
        await recordTest(
          context,
          'CR-11',
          testBody({
            performedAt: at(minute),
            hoseBore: null,
            readings: readings('L/s', ...typed),
            volts: { typed: volts, unit: 'V' },
          }),
        ),
      ).id;
    const low = await taken(1, ['12.0', '12.1', '12.05', '12.05'], '205');
    const high = await taken(2, ['12.5', '12.6', '12.55', '12.55'], '230');
    const far = await taken(3, ['14.5', '14.6', '14.55', '14.55'], '230');
    const dunlin = await bench('CR-11');
    // Flow goes with the root of the voltage: 5.9 % of the 4 % that were measured, not of the 20 %.
    const close = compareChosen(dunlin, [low, high]);
    expect([close.comparison?.outcome, close.withheld]).toEqual(['more', true]);
    expect(close.unlike[0]?.explains).toBeCloseTo(Math.sqrt(230 / 205) - 1, 9);
    expect(compareChosen(dunlin, [low, far]).withheld).toBe(false);
    expect(compareChosen(dunlin, [high, far])).toMatchObject({ withheld: false, unlike: [] });
  });

  it('names what is compared by what the technician called it, else by its state, and says that the bag was another', async () => {
    const at = (minute: number) => `2026-11-24T08:${String(minute).padStart(2, '0')}:00.000Z`;
    const taken = async (minute: number, over: Partial<Parameters<typeof testBody>[0]>) =>
      value(await recordTest(context, 'CR-11', testBody({ performedAt: at(minute), hoseBore: null, ...over }))).id;
    const found = await taken(1, { readings: readings('L/s', '12.1', '12.2', '12.0') });
    const left = await taken(2, { bagState: 'asLeft' });
    const called = await taken(3, { configuration: 'foam out' });
    const base = await taken(4, { isBaseline: true });
    const dunlin = await bench('CR-11');
    const all = compareChosen(dunlin, [base, called, left, found]);
    expect(all.chosen.map((c) => [c.name, c.day])).toEqual([
      ['as found', '2026-11-24'],
      ['as left', '2026-11-24'],
      ['foam out', '2026-11-24'],
      ['baseline', '2026-11-24'],
    ]);
    // Four tests are a chain; with a name of its own among them the bag's state is no longer the question.
    expect(all.chain).toHaveLength(3);
    expect(all.differs).not.toContain('bagState');

    const two = compareChosen(dunlin, [found, left]);
    expect([two.chain, two.differs]).toEqual([[], ['bagState']]);
    expect(two.comparison).toMatchObject({ outcome: 'more' });
    expect(compareChosen(dunlin, [found]).differs).toEqual([]);
    // Newest first to choose from, what is withdrawn left out; a hand's feel is no series.
    await recordTest(
      context,
      'CR-11',
      testBody({
        performedAt: at(5),
        method: 'hand',
        readings: [],
        hoseBore: null,
        detail: { kind: 'hand', word: 'weak' },
      }),
    );
    value(
      await withdrawTest(context, 'CR-11', {
        clientId: newId(),
        by: 'MK',
        supersedesId: base,
        correctionReason: 'slip',
      }),
    );
    const choice = comparableTests(await bench('CR-11'));
    expect(choice.slice(0, 3).map((t) => t.id)).toEqual([called, left, found]);
    const moments = choice.map((t) => t.performedAt);
    expect([...moments].sort().reverse()).toEqual(moments);
    // No more than eight at once.
    expect(
      compareChosen(
        await bench('CR-01'),
        (await bench('CR-01')).tests.map((t) => t.id),
      ).chosen.length,
    ).toBe(8);
  });

  it('a trend holds every standing test of one rig and place, and its CSV the same figures', async () => {
    const heron = await bench('CR-01');
    const [key] = trendKeys(heron);
    if (!key) throw new Error('no trend');
    const trend = loadTrend(heron, key);
    expect(trend.points.length).toBe(heron.tests.filter((t) => t.test.method === 'anemometer').length);
    expect(trend.baseline).toBe(trend.points[0]?.mean);
    const newest = heron.tests.at(-1);
    value(
      await withdrawTest(context, 'CR-01', {
        clientId: newId(),
        by: 'MK',
        supersedesId: newest?.id ?? 0,
        correctionReason: 'never was',
      }),
    );
    expect(loadTrend(await bench('CR-01'), key).points.map((p) => p.testId)).toEqual(
      trend.points.map((p) => p.testId).slice(0, -1),
    );
    const lines = trendCsv(heron, key).split('\r\n');
    expect(lines.length).toBe(trend.points.length + 1);
    expect(Number(lines[1]?.split(',')[2])).toBe(trend.points[0]?.mean);
  });

  it('the stand-in meter shows the machine as it is, and as new once a stage was changed', async () => {
    const wanted = { method: 'flowMeter', place: 'hoseEnd' } as const;
    const before = standInTarget(await bench('CR-04'), wanted);
    const bag = await stageOf('CR-04', 'fleece bag');
    value(await recordChange(context, 'CR-04', changeBody(bag.id, { partId: bag.part?.id ?? null })));
    expect(standInTarget(await bench('CR-04'), wanted) / before).toBeGreaterThan(1.3);
  });
});

describe('changing a stage', () => {
  it('takes the part, moves the due moment and asks for a measurement', async () => {
    const bag = await stageOf('CR-04', 'fleece bag');
    const onHand = (await shelf(bag.part?.id ?? 0)) ?? 0;
    expect(await dueOf('CR-04', 'fleece bag')).toMatchObject({ daysLeft: 3 });
    value(await recordChange(context, 'CR-04', changeBody(bag.id, { partId: bag.part?.id ?? null })));
    // Half full or fourteen days, whichever comes first.
    const fresh = (await dueOf('CR-04', 'fleece bag'))?.daysLeft ?? 0;
    expect(fresh).toBeGreaterThan(7);
    expect(fresh).toBeLessThanOrEqual(14);
    expect(await shelf(bag.part?.id ?? 0)).toBe(onHand - 1);
    expect((await bench('CR-04')).status.need).toMatchObject({ kind: 'measureAgain', because: 'changed' });
  });

  it('counts on the stage that counts it', async () => {
    const bag = await stageOf('CR-07', 'tank bag');
    const before = await dueOf('CR-07', 'pre-filter wrap');
    value(await recordChange(context, 'CR-07', changeBody(bag.id, { partId: bag.part?.id ?? null })));
    const after = await dueOf('CR-07', 'pre-filter wrap');
    expect(after?.binding.counted).toBe((before?.binding.counted ?? 0) + 1);
  });

  it('shows before and after of a change with the gain and whether it is real', async () => {
    const bag = await stageOf('CR-04', 'fleece bag');
    const before = value(
      await recordTest(context, 'CR-04', testBody({ readings: readings('L/s', '10.0', '9.9', '10.1') })),
    );
    const change = value(
      await recordChange(
        context,
        'CR-04',
        changeBody(bag.id, { beforeTestId: before.id, partId: bag.part?.id ?? null }),
      ),
    );
    value(await recordTest(context, 'CR-04', testBody({ afterChangeId: change.id, bagState: 'asLeft' })));
    const story = changeStory(await bench('CR-04'), change.id);
    expect(story?.comparison).toMatchObject({ outcome: 'more' });
    expect(story?.comparison?.relative).toBeCloseTo(0.43, 6);
    expect(story?.dueWithout?.dueOn).not.toBe(story?.dueNow?.dueOn);
  });

  it('takes a part that is not there, with a warning and a count to settle; a count settles it', async () => {
    const bag = await stageOf('CR-12', 'bag');
    const partId = bag.part?.id ?? 0;
    const { short } = value(await recordChange(context, 'CR-12', changeBody(bag.id, { partId })));
    expect(short?.onHand).toBe(-1);
    const { difference } = value(
      await countStock(context, { clientId: newId(), by: 'MK', partId, counted: 4, note: '' }),
    );
    expect(difference).toBe(5);
    expect(await shelf(partId)).toBe(4);
  });

  it.each([
    ['a stage of another machine', 'CR-05', 'safety bag', {}, 'stage.unknown stageId'],
    ['a fan', 'CR-04', 'fan', {}, 'stage.not-changeable stageId'],
    ['a part that does not fit', 'CR-04', 'fleece bag', { partId: 1_000 }, 'part.wrong-for-stage partId'],
    ['a test of another machine', 'CR-04', 'fleece bag', { beforeTestId: 1 }, 'test.wrong-machine beforeTestId'],
    ['the future', 'CR-04', 'fleece bag', { performedAt: '2027-01-01T00:00:00.000Z' }, 'date.future performedAt'],
  ] as const)('refuses %s and writes nothing', async (_what, owner, name, over, code) => {
    const stage = await stageOf(owner, name);
    const before = [await countRows('stage_change'), await countRows('stock_movement')];
    expect(
      codes(await recordChange(context, 'CR-04', changeBody(stage.id, { partId: stage.part?.id ?? null, ...over }))),
    ).toContain(code);
    expect([await countRows('stage_change'), await countRows('stock_movement')]).toEqual(before);
  });

  it('a missing stage that is fitted again gives the machine its class back', async () => {
    const hepa = await stageOf('CR-14', 'HEPA');
    expect((await bench('CR-14')).status.need.kind).toBe('missingStage');
    value(await recordChange(context, 'CR-14', changeBody(hepa.id, { partId: hepa.part?.id ?? null })));
    expect((await bench('CR-14')).status.machine.stages.some((s) => s.missing)).toBe(false);
  });
});

describe('correcting', () => {
  it('a test: the correction stands, the original stays readable, and only the newest can be corrected', async () => {
    const { id } = value(await recordTest(context, 'CR-04', testBody()));
    const correction = {
      ...testBody({ note: 'right' }),
      supersedesId: id,
      correctionReason: 'typed for the wrong hose',
    };
    const { id: second } = value(await correctTest(context, 'CR-04', correction));
    const tests = await loadTests(context.db);
    expect(tests.find((t) => t.id === id)).toMatchObject({ supersededById: second, note: '' });
    expect(tests.find((t) => t.id === second)).toMatchObject({
      supersedesId: id,
      correctionReason: 'typed for the wrong hose',
    });
    expect((await bench('CR-04')).status.latest?.record.id).toBe(second);
    const again = { ...testBody(), supersedesId: id, correctionReason: 'again' };
    expect(codes(await correctTest(context, 'CR-04', again))).toEqual(['record.superseded supersedesId']);
  });

  it('a change: the due moment and the ledger follow the correction', async () => {
    const bag = await stageOf('CR-04', 'fleece bag');
    const partId = bag.part?.id ?? 0;
    const onHand = (await shelf(partId)) ?? 0;
    const { id } = value(await recordChange(context, 'CR-04', changeBody(bag.id, { partId, quantity: 2 })));
    const body = changeBody(bag.id, { partId, performedAt: '2026-11-20T10:00:00.000Z' });
    value(
      await correctChange(context, 'CR-04', {
        ...body,
        supersedesId: id,
        correctionReason: 'it was on Friday, and one bag',
      }),
    );
    const moved = await dueOf('CR-04', 'fleece bag');
    expect([moved?.binding, ...(moved?.others ?? [])].find((r) => r?.rule.kind === 'calendarDays')).toMatchObject({
      dueOn: '2026-12-04',
    });
    expect(await shelf(partId)).toBe(onHand - 1);
  });

  it('withdrawing gives back the part and the due moment, and leaves both records', async () => {
    const bag = await stageOf('CR-04', 'fleece bag');
    const partId = bag.part?.id ?? 0;
    const [onHand, due] = [await shelf(partId), await dueOf('CR-04', 'fleece bag')];
    const { id } = value(await recordChange(context, 'CR-04', changeBody(bag.id, { partId })));
    const withdraw = { clientId: newId(), by: 'MK', supersedesId: id, correctionReason: 'it was CR-11' };
    value(await withdrawChange(context, 'CR-04', withdraw));
    expect(await shelf(partId)).toBe(onHand);
    expect(await dueOf('CR-04', 'fleece bag')).toEqual(due);
    const { id: testId } = value(await recordTest(context, 'CR-04', testBody()));
    value(await withdrawTest(context, 'CR-04', { ...withdraw, clientId: newId(), supersedesId: testId }));
    expect((await bench('CR-04')).status.latest?.record.id).not.toBe(testId);
  });

  it('the database itself refuses to change or delete a record of work', async () => {
    await expect(context.db.updateTable('airflow_test').set({ note: 'x' }).execute()).rejects.toThrow(/append-only/);
    await expect(context.db.deleteFrom('stage_change').execute()).rejects.toThrow(/append-only/);
    await expect(context.db.updateTable('stock_movement').set({ quantity: 9 }).execute()).rejects.toThrow(
      /append-only/,
    );
  });
});

describe('what a machine costs in parts', () => {
  it('counts the last year and nothing before it', async () => {
    const { machine } = (await bench('CR-02')).status;
    const bag = await stageOf('CR-02', 'paper bag');
    const cost = async () => {
      return (
        (await loadMachineCosts(context, await loadYard(context))).find((c) => c.tag === 'CR-02')?.pieces ?? Number.NaN
      );
    };
    const before = await cost();
    const entry = (daysAgo: number) => ({
      machineId: machine.id,
      stageId: bag.id,
      performedAt: new Date(Date.parse(context.now()) - daysAgo * 86_400_000).toISOString(),
      recordedAt: context.now(),
      by: 'MK',
      note: '',
      reason: 'fill' as const,
      partId: bag.part?.id ?? null,
      quantity: 1,
      beforeTestId: null,
      jobId: null,
      supersedes: null,
    });
    await insertChange(context.db, entry(366));
    expect(await cost()).toBe(before);
    await insertChange(context.db, entry(364));
    expect(await cost()).toBe(before + 1);
  });
});

describe('the round', () => {
  it('has overdue, today, this week and what has no date, each in its own list and every ruled stage in at most one', async () => {
    const round = await loadRound(context);
    const lists = [round.overdue, round.today, round.thisWeek, round.undated];
    // The forecast dates every rule of the demo: what only the eye decides would be without a date.
    expect(lists.map((list) => list.length > 0)).toEqual([true, true, true, false]);
    const keys = lists.flat().map((l) => l.stage.id);
    expect(new Set(keys).size).toBe(keys.length);
    expect(round.overdue.every((l) => (l.due.daysLeft ?? 0) < 0)).toBe(true);
    expect(round.today.every((l) => l.due.daysLeft === 0)).toBe(true);
  });

  it('the same seed and moment make the same yard', async () => {
    const other = { db: await openMigrated(':memory:') };
    await seedDemo(other.db, { now: NOW, seed: 7 });
    const typed = (db: Db) => db.selectFrom('test_reading').select(['typed', 'unit']).orderBy('id').execute();
    expect(await typed(other.db)).toEqual(await typed(context.db));
  });
});
