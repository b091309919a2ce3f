import { describe, expect, it } from 'vitest';
import { InstrumentBody, PartBody } from '@/contracts/registers';
import { partBody as part } from '../support/bodies';
import { SiteBody } from '@/contracts/site';
import { worksOn } from '@/core/calendar/working-days';
import { NEW_SITE } from '@/core/site/site';
import { openMigrated } from '@/server/db/connect';
import { loadInstruments } from '@/server/repositories/instruments';
import { loadSite } from '@/server/repositories/site';
import { loadLedger, loadParts } from '@/server/repositories/stock';
import { gettingGoing } from '@/server/services/yard/getting-going';
import { planYard } from '@/server/services/plan/plan-yard';
import { receiveParts } from '@/server/services/stock/count-stock';
import { keepInstrument, keepPart, loadMeters } from '@/server/services/yard/registers';
import { keepSite, settingHistory } from '@/server/services/yard/site-settings';
import { loadYard } from '@/server/services/yard/yard';
import { newId } from '../support/database';

const NOW = '2026-11-27T09:00:00.000Z';
const opened = async () => ({ db: await openMigrated(':memory:'), now: () => NOW });

const site = (over: Partial<SiteBody> = {}): SiteBody => ({
  clientId: newId(),
  by: 'MK',
  name: 'Low Shed',
  timeZone: 'Europe/London',
  altitudeM: 120,
  ruleSet: 'eu_uk',
  thresholds: { warnLoss: 0.15, actLoss: 0.25 },
  weekdays: [1, 2, 3, 4, 5],
  closed: [],
  minutesADay: 120,
  ...over,
});
const meter = (over: Partial<InstrumentBody> = {}): InstrumentBody => ({
  clientId: newId(),
  by: 'MK',
  id: null,
  name: 'vane meter, no. 4',
  reads: 'velocity',
  accuracy: { meaning: 'limits', coverageFactor: 2, relative: 0.02, absoluteSi: 0.1, resolutionSi: 0.01 },
  certificate: 'LAB-77',
  calibrationDueOn: '2027-03-01',
  retired: false,
  ...over,
});

describe('the settings of a site', () => {
  it('an installation is set up once somebody says which site it is, and every later change is written down', async () => {
    const context = await opened();
    expect((await loadYard(context)).site).toMatchObject({ setUp: false, name: 'My workshop' });
    expect(await keepSite(context, site())).toMatchObject({ ok: true });
    expect((await loadYard(context)).site).toMatchObject({ setUp: true, name: 'Low Shed', altitudeM: 120 });
    const began = await settingHistory(context);
    expect(began.every((c) => c.before === '')).toBe(true);
    expect(began.map((c) => c.setting)).toContain('ruleSet');
    await keepSite(context, site({ by: 'JO', thresholds: { warnLoss: 0.1, actLoss: 0.25 }, weekdays: [6, 1, 1] }));
    expect((await settingHistory(context)).slice(0, 2)).toEqual([
      { at: NOW, by: 'JO', setting: 'weekdays', before: '12345', after: '16' },
      { at: NOW, by: 'JO', setting: 'warnLoss', before: '15 %', after: '10 %' },
    ]);
    // The same once more changes nothing, and a double click is one action.
    const before = (await settingHistory(context)).length;
    const again = site({ by: 'JO', thresholds: { warnLoss: 0.1, actLoss: 0.25 }, weekdays: [1, 6] });
    expect(await keepSite(context, again)).toEqual(await keepSite(context, again));
    expect(await settingHistory(context)).toHaveLength(before);
    await context.db.destroy();
  });

  it.each([
    ['a time zone nobody has', { timeZone: 'Europe/Leeds' }, 'site.time-zone'],
    ['limits the wrong way round', { thresholds: { warnLoss: 0.3, actLoss: 0.25 } }, 'site.limits'],
    ['a day that is none', { closed: ['2026-02-30'] }, null],
    ['no working day at all', { weekdays: [] }, null],
    ['the top of a mountain nobody works on', { altitudeM: 9000 }, null],
  ] as const)('refuse %s', (_, over, code) => {
    const read = SiteBody.safeParse({ ...site(), ...over });
    expect(read.success).toBe(false);
    if (code && !read.success) expect(read.error.issues[0]).toMatchObject({ code: 'custom', params: { code } });
  });

  it('a day it is closed is no day of the plan, whatever day of the week it is', async () => {
    const works = worksOn({ weekdays: [1, 2, 3, 4, 5], closed: ['2026-12-25'] }, '2026-12-24');
    // Thursday the 24th, Christmas, the weekend, Monday.
    expect([0, 1, 2, 3, 4].map(works)).toEqual([true, false, false, false, true]);
    const context = await opened();
    await keepSite(context, site({ weekdays: [6], closed: ['2026-11-28'], minutesADay: 45 }));
    const { input, options } = await planYard(context);
    // The 27th is a Friday: of the first nine days only Saturday week is worked.
    expect(input.works.slice(0, 9)).toEqual([false, false, false, false, false, false, false, false, true]);
    expect(options.minutesADay).toBe(45);
    await context.db.destroy();
  });
});

describe('the registers of parts and meters', () => {
  it('a part comes with what lies on the shelf, keeps its history, and shares its code with no other', async () => {
    const context = await opened();
    const made = await keepPart(context, part());
    expect(made).toMatchObject({ ok: true });
    expect(await loadParts(context.db)).toMatchObject([{ code: 'BAG-25', onHand: 12, retired: false, minimum: null }]);
    expect(await keepPart(context, part({ code: ' Bag-25' }))).toMatchObject({
      ok: false,
      failures: [{ code: 'part.code-taken', path: 'code' }],
    });
    const id = made.ok ? made.value.id : 0;
    // What is on the shelf is counted, not written over; what is no longer kept keeps its pieces on record.
    await keepPart(context, part({ id, price: 5, minimum: 4, onHand: 99, retired: true }));
    expect(await loadParts(context.db)).toMatchObject([{ id, price: 5, minimum: 4, onHand: 12, retired: true }]);
    expect(await keepPart(context, part({ id: 77, code: 'x' }))).toMatchObject({ ok: false });
    await context.db.destroy();
  });

  it('a meter comes with how far off it may be; what it reads stays once a test hangs on it', async () => {
    const context = await opened();
    const made = await keepInstrument(context, meter());
    const id = made.ok ? made.value.id : 0;
    expect(await loadInstruments(context.db)).toMatchObject([{ certificate: 'LAB-77', accuracy: { relative: 0.02 } }]);
    expect(await keepInstrument(context, meter({ name: 'VANE METER, no. 4' }))).toMatchObject({
      ok: false,
      failures: [{ code: 'instrument.name-taken' }],
    });
    expect(await keepInstrument(context, meter({ id, reads: 'pressure' }))).toMatchObject({ ok: true });
    await keepInstrument(context, meter({ name: 'hood', reads: 'flow' }));
    await keepInstrument(context, meter({ id, reads: 'pressure', retired: true }));
    expect((await loadMeters(context)).map((i) => [i.name, i.retired])).toEqual([
      ['hood', false],
      ['vane meter, no. 4', true],
    ]);
    expect(InstrumentBody.safeParse(meter({ accuracy: { ...meter().accuracy, relative: 2 } })).success).toBe(false);
    expect(PartBody.safeParse(part({ packSize: 0 })).success).toBe(false);
    await context.db.destroy();
  });

  it('a new yard is told what comes next, and each is ticked off by what is on record', async () => {
    const context = await opened();
    const open = async () =>
      (await gettingGoing(context, await loadYard(context))).filter((s) => !s.done).map((s) => s.key);
    expect(await open()).toEqual(['machine', 'part', 'fitted', 'meter', 'baseline']);
    await keepPart(context, part());
    await keepInstrument(context, meter());
    expect(await open()).toEqual(['machine', 'fitted', 'baseline']);
    expect((await loadSite(context.db)).setUp).toBe(false);
    await context.db.destroy();
  });
});

describe('what the plan weighs', () => {
  it('is the site own: its money and its prices reach the plan and stand in the history; back to the usual is a change too', async () => {
    const context = await opened();
    await keepSite(context, site());
    const prices = {
      currency: 'EUR',
      lateFactor: 9,
      openingCost: { plain: 10, controlled: 25, contained: 80 },
      openingMinutes: { plain: 7, controlled: 14, contained: 30 },
    };
    expect((await keepSite(context, site({ prices }))).ok).toBe(true);
    expect((await loadSite(context.db)).prices).toEqual(prices);
    const plan = await planYard(context);
    expect(plan.options).toMatchObject({
      lateFactor: 9,
      openingCost: prices.openingCost,
      openingMinutes: prices.openingMinutes,
    });
    // A form that says nothing of prices leaves them.
    await keepSite(context, site({ name: 'High Shed' }));
    expect((await loadSite(context.db)).prices).toEqual(prices);
    await keepSite(context, site({ prices: NEW_SITE.prices }));
    const said = (await settingHistory(context))
      .filter((c) => c.setting === 'openingCost')
      .map((c) => [c.before, c.after]);
    const [mine, usual] = ['plain 10, controlled 25, contained 80', 'plain 8, controlled 18, contained 45'];
    expect(said.slice(0, 2)).toEqual([
      [mine, usual],
      [usual, mine],
    ]);
    expect(SiteBody.safeParse(site({ prices: { ...prices, lateFactor: 0 } })).success).toBe(false);
  });
});

describe('what came without an order', () => {
  it('is booked in once, as a delivery with its paper', async () => {
    const context = await opened();
    const made = await keepPart(context, part());
    const partId = made.ok ? made.value.id : 0;
    const body = { clientId: newId(), by: 'MK', partId, pieces: 10, note: 'note 77' };
    const [first, again] = [await receiveParts(context, body), await receiveParts(context, body)];
    expect(first.ok).toBe(true);
    expect(again).toEqual(first);
    const [kept] = await loadParts(context.db);
    expect(kept?.onHand).toBe(22);
    const ledger = await loadLedger(context.db, partId, { most: 1 });
    expect(ledger[0]).toMatchObject({ quantity: 10, reason: 'delivery', note: 'note 77' });
    const unknown = await receiveParts(context, { ...body, clientId: newId(), partId: 99 });
    expect(unknown.ok ? [] : unknown.failures.map((f) => f.code)).toEqual(['part.unknown']);
  });
});
