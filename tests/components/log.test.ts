import { isSeries } from '@/core/record/series';
import { beforeEach, describe, expect, it } from 'vitest';
import { boardTags } from '@/view-models/board-tags';
import { beforeChoices } from '@/view-models/change-props';
import { comparable } from '@/view-models/comparable';
import { logEntries } from '@/view-models/log-entries';
import { keyOf, keyText, trendChart } from '@/view-models/trend-page';
import { type Bench, loadBench } from '@/server/services/measuring/bench';
import { correctTest, recordTest, withdrawTest } from '@/server/services/measuring/record-test';
import { loadTrend, trendKeys } from '@/server/services/measuring/trend';
import type { Context } from '@/server/services/yard/user-action';
import { loadYard } from '@/server/services/yard/yard';
import { readings, testBody } from '../support/bodies';
import { demoContext, newId, NOW } from '../support/database';

let context: Context;
beforeEach(async () => {
  context = await demoContext();
});

const bench = async (tag = 'CR-04'): Promise<Bench> => {
  const { bench: found } = await loadBench(context, tag);
  if (!found) throw new Error(`no ${tag}`);
  return found;
};

const record = async (over: Parameters<typeof testBody>[0] = {}) => {
  const result = await recordTest(context, 'CR-04', testBody(over));
  if (!result.ok) throw new Error(result.failures.map((f) => f.code).join());
  return result.value.id;
};

describe('the log of a machine', () => {
  it('is newest first and holds every record that stands', async () => {
    const b = await bench();
    const entries = logEntries(b, 'metric');
    expect(b.cases.length).toBe(2);
    const { machine } = b.status;
    const proofs =
      machine.stages.flatMap((s) => s.proven).length +
      machine.penetration.length +
      machine.examinations.length +
      machine.dust.collected.length;
    expect(proofs).toBeGreaterThan(3);
    expect(entries.length).toBe(b.tests.length + b.changes.length + b.cases.length + proofs);
    expect(entries.find((e) => e.key === `case-${b.cases[0]?.id ?? 0}`)).toMatchObject({
      title: 'Case: No suction: weak at the laminate saw after the bag',
      href: expect.stringContaining('/cases/') as string,
    });
    expect(
      [...entries]
        .map((e) => e.at)
        .sort()
        .reverse(),
    ).toEqual(entries.map((e) => e.at));
  });

  it('shows a correction with every original under it, and a withdrawal as withdrawn', async () => {
    const first = await record({ note: 'wrong' });
    const correction = await correctTest(context, 'CR-04', {
      ...testBody({ note: 'better' }),
      supersedesId: first,
      correctionReason: 'one',
    });
    if (!correction.ok) throw new Error('not corrected');
    const again = await correctTest(context, 'CR-04', {
      ...testBody({ note: 'right' }),
      supersedesId: correction.value.id,
      correctionReason: 'two',
    });
    if (!again.ok) throw new Error('not corrected');
    const entry = logEntries(await bench(), 'metric').find((e) => e.key === `test-${again.value.id}`);
    expect(entry).toMatchObject({ note: 'right', correctedBecause: 'two', withdrawn: false });
    expect(entry?.originals.map((o) => o.note)).toEqual(['better', 'wrong']);
    expect(entry?.originals.every((o) => o.correctHref === null)).toBe(true);
    await withdrawTest(context, 'CR-04', {
      clientId: newId(),
      by: 'MK',
      supersedesId: again.value.id,
      correctionReason: 'never was',
    });
    const withdrawn = logEntries(await bench(), 'metric').find((e) => e.note === 'right' && e.withdrawn);
    expect(withdrawn?.originals).toHaveLength(3);
  });

  it('tells each form of test in its own words', async () => {
    await record({ method: 'hand', readings: [], detail: { kind: 'hand', word: 'weak' } });
    await record({ method: 'sealedSuction', place: 'inlet', readings: readings('kPa', '22', '22.1', '22.2') });
    await record({ failedPreconditions: ['settled'] });
    const texts = logEntries(await bench(), 'metric').map((e) => `${e.title} ${e.text} ${e.said?.sentence ?? ''}`);
    expect(texts.some((t) => t.includes('Air by hand: weak'))).toBe(true);
    expect(texts.some((t) => t.includes('22.10 kPa') && t.includes('machine inlet'))).toBe(true);
    expect(texts.some((t) => t.includes('Not used: not settled'))).toBe(true);
  });
});

describe('what goes to the bench and the board', () => {
  it('only a test of the last two days is taken for "as found" unasked', async () => {
    const old = beforeChoices(await bench('CR-12'), { units: 'metric', now: NOW });
    expect(old.length).toBeGreaterThan(0);
    expect(old.every((b) => !b.recent)).toBe(true);
    await record();
    expect(beforeChoices(await bench(), { units: 'metric', now: NOW }).filter((b) => b.recent).length).toBeGreaterThan(
      0,
    );
  });

  it('the bench gets every baseline and the newest of the rest, usable ones only', async () => {
    const unusable = await record({ failedPreconditions: ['settled'] });
    const b = await bench();
    const tests = comparable(b);
    expect(tests.some((t) => t.id === unusable)).toBe(false);
    expect(tests.filter((t) => t.isBaseline)).toEqual(b.tests.filter((t) => t.isBaseline && isSeries(t)));
  });

  it('every tag of the board has a need in words, a class, and a life that matches its words', async () => {
    const yard = await loadYard(context);
    const tags = boardTags(yard, 'us');
    expect(tags.length).toBeGreaterThanOrEqual(6);
    for (const tag of tags) {
      expect(tag.need.length).toBeGreaterThan(3);
      expect(tag.classText.length).toBeGreaterThan(2);
      expect((tag.remaining ?? 1) <= 0).toBe(/overdue|today/.test(tag.remainingText));
    }
    expect(tags.find((t) => t.tag === 'CR-14')?.classText).toBe('class withdrawn');
  });

  it('a trend is found by its address, draws its limits, and an unknown address takes the first', async () => {
    const b = await bench();
    const [key] = trendKeys(b);
    if (!key) throw new Error('no trend');
    expect(keyOf(b, keyText(key))).toEqual(key);
    expect(keyOf(b, 'nonsense')).toEqual(key);
    const chart = trendChart(b, loadTrend(b, key), 'metric');
    expect(chart.lines.map((l) => l.name)).toEqual(['baseline', 'warn, -15 %', 'act, -25 %', '20 m/s in the hose']);
    expect(chart.lines[3]?.value).toBeCloseTo(20 * Math.PI * 0.0135 ** 2, 9);
  });
});
