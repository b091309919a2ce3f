import { beforeEach, describe, expect, it } from 'vitest';
import { parseTestEntry } from '@/core/measure/test-entry';
import type { TestRecord } from '@/core/record/records';
import { judgeTest } from '@/core/status/judge-test';
import { liveResult } from '@/islands/measure/live';
import { padFailures } from '@/islands/measure/pad-failures';
import { startState, stateOfRecord } from '@/islands/measure/start';
import { bufferLine } from '@/islands/measure/meter';
import { EMPTY_BUFFER } from '@/islands/measure/meter-buffer';
import { readingsOf } from '@/islands/measure/pads';
import { nextSlot, traverseStand } from '@/islands/measure/slots';
import { type MeasureAction, measureReducer, type MeasureState, toEntry } from '@/islands/measure/state';
import { type Bench, loadBench } from '@/server/services/measuring/bench';
import { demoContext } from '../support/database';

let bench: Bench;
beforeEach(async () => {
  const { bench: found } = await loadBench(await demoContext(), 'CR-04');
  if (!found) throw new Error('no CR-04');
  bench = found;
});

const start = (over: Partial<Parameters<typeof startState>[0]> = {}): MeasureState =>
  startState({
    machine: bench.status.machine,
    units: 'metric',
    by: 'MK',
    clientId: 'client-0001',
    afterChangeId: null,
    previous: null,
    ...over,
  });

const after = (state: MeasureState, ...actions: readonly MeasureAction[]) => actions.reduce(measureReducer, state);
const type = (value: string): MeasureAction => ({ type: 'text', field: 'pad', value });
const enter: MeasureAction = { type: 'enter' };

const live = (state: MeasureState) =>
  liveResult({
    state,
    machine: bench.status.machine,
    wanted: ['speedHigh'],
    instruments: bench.instruments,
    tests: bench.tests,
    altitudeM: 4,
    thresholds: { warnLoss: 0.15, actLoss: 0.25 },
    excludeId: null,
  });

describe('the pad and the record are judged by one judge', () => {
  const wye = () => {
    const { machine } = bench.status;
    const hose = machine.stages.findIndex((s) => s.kind === 'hose');
    return {
      ...machine,
      stages: machine.stages.flatMap((s, i) =>
        i === hose ? [s, { ...s, id: 9001, kind: 'wye' as const, name: 'Y' }] : [s],
      ),
    };
  };
  const both = (state: MeasureState, machine = bench.status.machine, tests = bench.tests) => {
    const shown = liveResult({
      state,
      machine,
      wanted: [],
      instruments: bench.instruments,
      tests,
      altitudeM: 4,
      thresholds: { warnLoss: 0.15, actLoss: 0.25 },
      excludeId: null,
    });
    const parsed = parseTestEntry(toEntry(state, []), {
      altitudeM: 4,
      instrument: bench.instruments.find((x) => x.id === state.instrumentId) ?? null,
    });
    const sample = bench.tests.at(-1);
    if (shown.form !== 'series' || !parsed.ok || !sample) throw new Error('no series');
    const record: TestRecord = {
      ...sample,
      id: 9002,
      performedAt: '2026-12-31T00:00:00.000Z',
      isBaseline: false,
      use: { wheelM: null, ductLoad: null },
      test: parsed.value.test,
    };
    return {
      shown: shown.judged,
      kept: judgeTest({ machine, tests, thresholds: { warnLoss: 0.15, actLoss: 0.25 }, record }),
    };
  };
  const typed = (place: MeasureState['place'], ...values: readonly string[]) =>
    after({ ...start(), place }, ...values.flatMap((v) => [type(v), enter]));

  it('10 L/s at a tool of a Y is not held against the main hose, on the page as in the file', () => {
    const { shown, kept } = both(typed('toolEnd', '10', '10', '10'), wye());
    expect(shown.hose).toMatchObject({ outcome: 'notJudged' });
    expect([shown.hose, shown.baseline, shown.findings]).toEqual([kept.hose, kept.baseline, kept.findings]);
    expect(both(typed('hoseEnd', '10', '10', '10'), wye()).shown.hose.outcome).toBe('fail');
  });

  it('the test before is the same one for both, a baseline too', () => {
    const base = bench.tests.find((t) => t.isBaseline && t.test.method === 'flowMeter' && t.test.place === 'hoseEnd');
    if (!base) throw new Error('no baseline');
    const { shown, kept } = both(typed('hoseEnd', '9.1', '9.0', '9.2'), bench.status.machine, [base]);
    expect(shown.findings).toEqual(kept.findings);
    expect(shown.findings.filter((f) => f.kind === 'previous')).toMatchObject([{ day: base.performedAt.slice(0, 10) }]);
  });
});

describe('the reading pad', () => {
  it('keeps the unit typed last for the next bare number', () => {
    const state = after(start(), type('21.3 cfm'), enter, type('21.1'), enter);
    expect(readingsOf(state)).toEqual([
      { typed: '21.3 cfm', unit: 'cfm', slot: 0, how: 'typed', struckBecause: null },
      { typed: '21.1', unit: 'cfm', slot: 1, how: 'typed', struckBecause: null },
    ]);
    expect(state.pad).toBe('');
  });

  it('strikes a reading with a reason and takes it back, and never drops one', () => {
    const two = after(start(), type('10'), enter, type('99'), enter);
    const struck = after(two, { type: 'strike', index: 1, because: 'misread' });
    expect(readingsOf(struck)[1]).toMatchObject({ typed: '99', struckBecause: 'misread' });
    expect(after(struck, { type: 'strike', index: 1, because: null })).toEqual(two);
  });

  it('a slip on the method buttons loses nothing', () => {
    const typed = after(start(), type('10'), enter);
    const there = after(typed, { type: 'method', method: 'sealedSuction' });
    expect(readingsOf(there)).toEqual([]);
    expect(readingsOf(after(there, { type: 'method', method: 'flowMeter' }))).toEqual(readingsOf(typed));
  });

  it('a problem goes when its field is mended, the others stay', () => {
    const problem = (path: string) => ({ code: 'x', path, title: '', sentence: '', hint: '' });
    const refused = after(start(), { type: 'refused', problems: [problem('by'), problem('air.temperature')] });
    expect(after(refused, { type: 'text', field: 'by', value: 'TO' }).problems.map((p) => p.path)).toEqual([
      'air.temperature',
    ]);
    expect(after(refused, { type: 'typed', field: 'temperature', value: '18' }).problems.map((p) => p.path)).toEqual([
      'by',
    ]);
  });

  it('says what is wrong before a reading is entered', () => {
    expect(padFailures({ ...start(), pad: 'strong' }).map((f) => f.code)).toEqual(['quantity.not-a-number']);
    expect(padFailures({ ...start(), method: 'sealedSuction', pad: '40 psi' }).map((f) => f.code)).toEqual([
      'suction.impossible',
    ]);
    expect(padFailures({ ...start(), pad: '29 L/s' })).toEqual([]);
  });

  it('what is not ticked goes out as failed', () => {
    const state = after(start(), { type: 'tick', precondition: 'settled' });
    expect(toEntry(state, ['speedHigh', 'settled']).failedPreconditions).toEqual(['speedHigh']);
  });
});

describe('a traverse on the pad', () => {
  const crossing = () =>
    after(
      start(),
      { type: 'method', method: 'anemometerTraverse' },
      {
        type: 'detail',
        detail: { kind: 'round', diameter: { typed: '125', unit: 'mm' }, pointsPerDiameter: 6, diameters: 2 },
      },
    );

  it('says where the probe goes next, and asks again for a struck point', () => {
    expect(traverseStand(crossing())).toMatchObject({
      traverse: 1,
      point: 1,
      points: 12,
      at: { fromWallM: 0.032 * 0.125 },
    });
    const three = after(crossing(), type('19'), enter, type('20'), enter, type('99'), enter);
    expect(nextSlot(three)).toBe(3);
    const struck = after(three, { type: 'strike', index: 1, because: 'probe slipped' });
    expect(nextSlot(struck)).toBe(1);
    expect(nextSlot(after(struck, type('20'), enter))).toBe(3);
  });

  it('gives no verdict before a traverse is whole', () => {
    expect(live(after(crossing(), type('19'), enter))).toMatchObject({
      form: 'nothing',
      failures: [{ code: 'traverse.incomplete' }],
    });
  });

  it('a moved rig ends the series: what was read before is struck with the reason', () => {
    const moved = after(crossing(), type('19'), enter, { type: 'rigMoved' });
    expect(moved.rigSeries).toBe(2);
    expect(readingsOf(moved)[0]?.struckBecause).toBe('before the rig was moved');
  });
});

describe('a streaming meter', () => {
  const line = (value: number | null, unit = 'm/s') =>
    JSON.stringify({ t: '2026-11-24T10:00:00.000Z', quantity: 'velocity', value, unit });
  const buffered = (data: string, from = EMPTY_BUFFER, atMs = 0) =>
    bufferLine(from, { data, atMs, wanted: 'velocity' });

  it('takes a sample in any unit of its quantity, and counts drops and garbage', () => {
    expect(buffered(line(3937, 'fpm')).samples[0]?.valueSi).toBeCloseTo(20, 2);
    expect(buffered(line(null))).toMatchObject({ dropped: 1, samples: [] });
    expect(buffered('{"hello"')).toMatchObject({ garbage: 1 });
    expect(buffered(line(3, 'kPa'))).toMatchObject({ garbage: 1 });
  });

  it('is bounded against a flood, and says so', () => {
    const flood = Array.from({ length: 500 }).reduce<typeof EMPTY_BUFFER>(
      (h) => buffered(line(20), h, 10),
      EMPTY_BUFFER,
    );
    expect(flood.samples.length).toBeLessThanOrEqual(40);
    expect(flood.flooded).toBe(true);
    const long = Array.from({ length: 2000 }).reduce<{ h: typeof EMPTY_BUFFER; t: number }>(
      ({ h, t }) => ({ h: buffered(line(20), h, t), t: t + 100 }),
      { h: EMPTY_BUFFER, t: 0 },
    );
    expect(long.h.samples.length).toBeLessThanOrEqual(600);
  });

  it('a held mean goes to the pad as held, a maximum as what it is', () => {
    const state = after(
      start(),
      { type: 'held', typed: '14.3', unit: 'L/s', how: 'hold' },
      { type: 'held', typed: '15', unit: 'L/s', how: 'max' },
    );
    expect(readingsOf(state)[0]).toEqual({ typed: '14.3', unit: 'L/s', slot: 0, how: 'hold', struckBecause: null });
    expect(readingsOf(state)[1]?.how).toBe('max');
  });
});

describe('the verdict while typing', () => {
  it('is silent without a reading, then judges by the records of the machine', () => {
    expect(live(start())).toEqual({ form: 'nothing', failures: [] });
    const low = after(
      start({ previous: bench.tests.at(-1) ?? null }),
      type('10.0 L/s'),
      enter,
      type('9.9'),
      enter,
      type('10.1'),
      enter,
    );
    expect(live(low)).toMatchObject({ judged: { baseline: { outcome: 'act' }, hose: { outcome: 'fail' } } });
  });

  it('questions what is implausible and names what cannot be read', () => {
    expect(live(after(start(), type('290'), enter))).toMatchObject({ judged: { question: { code: 'reading.high' } } });
    const noBore = after(start(), { type: 'method', method: 'anemometer' }, type('12'), enter);
    expect(live(noBore)).toMatchObject({ form: 'nothing', failures: [{ code: 'bore.missing' }] });
  });

  it('a record comes back to the pad as it was typed', () => {
    const record = bench.tests.at(-1);
    if (!record) throw new Error('no test');
    const state = stateOfRecord(record, {
      machine: bench.status.machine,
      units: 'us',
      by: 'MK',
      clientId: 'client-0002',
      afterChangeId: null,
      previous: null,
    });
    expect(readingsOf(state).map((r) => r.typed)).toEqual(record.readings.map((r) => r.typed));
    const again = live(state);
    expect(again.form === 'series' && again.judged.reduced.repeats.mean).toBeCloseTo(
      record.test.readingsSi.reduce((a, b) => a + b, 0) / record.test.readingsSi.length,
      12,
    );
  });
});

describe('a series and its rig', () => {
  const typed = (state: MeasureState, ...values: readonly string[]) =>
    values.reduce((s, v) => after(s, type(v), enter), state);

  it('a rig that was moved strikes what was read before, and leaves what was struck its own reason', () => {
    const struck = after(typed(start(), '30', '31'), { type: 'strike', index: 0, because: 'hose kinked' });
    const moved = after(struck, { type: 'rigMoved' });
    expect(readingsOf(moved).map((r) => r.struckBecause)).toEqual(['hose kinked', 'before the rig was moved']);
    expect(moved.rigSeries).toBe(struck.rigSeries + 1);
  });

  it('another method has another instrument: the one chosen before is not carried over', () => {
    const chosen = after(start(), { type: 'instrument', id: 1 });
    expect(chosen.instrumentId).toBe(1);
    const other = chosen.method === 'sealedSuction' ? 'flowMeter' : 'sealedSuction';
    expect(after(chosen, { type: 'method', method: other }).instrumentId).toBeNull();
    expect(after(chosen, { type: 'method', method: chosen.method }).instrumentId).toBe(1);
  });
});
