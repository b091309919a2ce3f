import ICAL from 'ical.js';
import Papa from 'papaparse';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Result } from '@/core/failure/failure';
import { costOf, violationsOf } from '@/core/plan/cost';
import { explainPlan, waysOut } from '@/core/plan/explain';
import { eachOnItsOwnDay } from '@/core/plan/own-day';
import { sayBasis, sayOutlook } from '@/messages/outlook';
import type { Db } from '@/server/db/connect';
import { calendarFeed } from '@/server/http/calendar-feed';
import { sendReminders } from '@/server/http/reminders';
import { findMachine } from '@/server/repositories/machines';
import { loadParts } from '@/server/repositories/stock';
import { lockPlan } from '@/server/services/plan/lock-plan';
import { logAway, logLook, logUsage } from '@/server/services/yard/log-wear';
import { orderList } from '@/server/services/stock/order-list';
import { orderArrived, orderPart } from '@/server/services/stock/order-part';
import { planYard } from '@/server/services/plan/plan-yard';
import { recordChange } from '@/server/services/jobs/record-change';
import { recordTest } from '@/server/services/measuring/record-test';
import { readOutbox } from '@/server/services/plan/reminders';
import { loadRound } from '@/server/services/plan/round';
import { loadStockDesk } from '@/server/services/stock/stock-desk';
import type { Context } from '@/server/services/yard/user-action';
import { loadOutlook } from '@/server/services/plan/yard-outlook';
import { changeBody, readings, testBody } from '../support/bodies';
import { demoContext, newId } from '../support/database';

let context: Context & { readonly db: Db };
beforeEach(async () => {
  context = await demoContext();
});

const said = (r: Result<unknown>) => (r.ok ? 'accepted' : `${r.failures[0]?.code} ${r.failures[0]?.path}`);
const machine = async (tag: string) => (await findMachine(context.db, tag)) ?? Promise.reject(new Error(`no ${tag}`));
const stage = async (tag: string, name: string) =>
  (await machine(tag)).stages.find((s) => s.name === name) ?? Promise.reject(new Error(`no ${name}`));
const outlookOf = async (tag: string, name: string) => {
  const { id } = await stage(tag, name);
  return (
    (await loadOutlook(context)).machines.find((m) => m.machine.tag === tag)?.outlooks.find((o) => o.stageId === id) ??
    null
  );
};
const who = () => ({ clientId: newId(), by: 'MK' });

describe('the outlook from the record', () => {
  it('a look moves the forecast, hours make it count in hours, and what it rests on is said', async () => {
    const before = await outlookOf('CR-07', 'tank bag');
    expect(before?.basis.counts).toBe('hours');
    const bag = await stage('CR-07', 'tank bag');
    expect(said(await logLook(context, 'CR-07', { ...who(), stageId: bag.id, day: '2026-11-24', share: 0.25 }))).toBe(
      'accepted',
    );
    const after = await outlookOf('CR-07', 'tank bag');
    expect(after?.basis.inspections).toBe((before?.basis.inspections ?? 0) + 1);
    const soonest = (o: typeof after) => o?.forecast?.reached[1] ?? Number.NaN;
    expect(soonest(after)).toBeGreaterThan(soonest(before));
    expect(
      said(await logUsage(context, 'CR-16', { ...who(), day: '2026-11-24', hours: 3.5, dust: 'rope fibre' })),
    ).toBe('accepted');
    expect((await machine('CR-16')).hours).toEqual([{ day: '2026-11-24', hours: 3.5, dust: 'rope fibre' }]);
    // The newest word for a day stands.
    await logUsage(context, 'CR-16', { ...who(), day: '2026-11-24', hours: 2, dust: 'rope fibre' });
    expect((await machine('CR-16')).hours.map((h) => h.hours)).toEqual([2]);
  });

  it('a stage without a record uses the figures of its kind and says so; a rule it cannot forecast is named', async () => {
    const outlook = await outlookOf('CR-18', 'cone pre-filter');
    expect(outlook?.forecast?.binding.length).toBeGreaterThan(0);
    // The collector was given a canister and another dust: what was before counts little, and that is said.
    const collector = await outlookOf('CR-01', 'lower bag');
    expect(collector?.basis.regimeSince).not.toBeNull();
    expect(collector && sayBasis(collector.basis)).toContain('older changes count little.');
    const hepa = await outlookOf('CR-14', 'HEPA');
    expect(hepa).toMatchObject({ forecast: null, basis: { unknown: [expect.any(Number)] } });
    expect(hepa && sayOutlook(hepa, await machine('CR-14'))).toBeNull();
  });

  it('refuses hours and looks of days to come, and stages that are not there', async () => {
    expect(said(await logUsage(context, 'CR-04', { ...who(), day: '2026-11-25', hours: 1, dust: 'x' }))).toBe(
      'usage.future day',
    );
    expect(said(await logLook(context, 'CR-04', { ...who(), stageId: 9999, day: '2026-11-24', share: 0.5 }))).toBe(
      'stage.unknown stageId',
    );
    expect(said(await logUsage(context, 'CR-99', { ...who(), day: '2026-11-24', hours: 1, dust: 'x' }))).toBe(
      'machine.unknown ',
    );
  });
});

describe('the plan of the demo yard', () => {
  it('tells its story: fewer openings than each rule on its own day, the wrap with its bag, the stock that runs out', async () => {
    const { made, days } = await planYard(context);
    expect(violationsOf(made.problem, days).filter((v) => v.kind !== 'unplaced' && v.kind !== 'apart')).toEqual([]);
    const own = costOf(
      made.problem,
      eachOnItsOwnDay(made.problem).map((d, i) => ((days[i] ?? null) === null ? null : d)),
    );
    expect(costOf(made.problem, days).openings).toBeLessThan(0.95 * own.openings);
    const at = (tag: string, name: string) => days[made.stages.findIndex((s) => s.tag === tag && s.name === name)];
    expect(at('CR-07', 'pre-filter wrap')).toBe(at('CR-07', 'tank bag'));
    const ways = waysOut(made.problem, days).map((w) => (w.kind === 'part' ? w.part : w.kind));
    expect(ways).toContain('F-GAS');
    expect(explainPlan(made.problem, days).some((r) => r?.kind === 'shared')).toBe(true);
  });

  it('plans around what is fixed, until it is set free; a day gone by is refused and nothing of it stands', async () => {
    const bag = await stage('CR-20', 'cyclone');
    expect(said(await lockPlan(context, { ...who(), locks: [{ stageId: bag.id, day: '2026-12-01' }] }))).toBe(
      'accepted',
    );
    const day = async () => {
      const { made, days } = await planYard(context);
      return days[made.stages.findIndex((s) => s.stageId === bag.id)];
    };
    expect(await day()).toBe(7);
    expect(
      said(
        await lockPlan(context, {
          ...who(),
          locks: [
            { stageId: bag.id, day: null },
            { stageId: bag.id, day: '2026-11-01' },
          ],
        }),
      ),
    ).toBe('plan.past locks');
    expect(await day()).toBe(7);
    await lockPlan(context, { ...who(), locks: [{ stageId: bag.id, day: null }] });
    expect(await day()).not.toBe(7);
  });

  it('a day that was fixed is used up by the change it was for', async () => {
    const bag = await stage('CR-04', 'fleece bag');
    await lockPlan(context, { ...who(), locks: [{ stageId: bag.id, day: '2026-12-02' }] });
    const locked = async () =>
      (await planYard(context)).input.machines.find((m) => m.tag === 'CR-04')?.stages.find((s) => s.stageId === bag.id)
        ?.lockedDay;
    expect(await locked()).toBe(8);
    context = { ...context, now: () => '2026-11-24T12:00:00.000Z' };
    expect(
      said(
        await recordChange(
          context,
          'CR-04',
          changeBody(bag.id, { partId: bag.part?.id ?? null, performedAt: '2026-11-24T11:00:00.000Z' }),
        ),
      ),
    ).toBe('accepted');
    expect(await locked()).toBeNull();
  });

  it("a flow as found carries the bag's share: it says less of the filter than one just after a bag", async () => {
    const before = await outlookOf('CR-04', 'main filter');
    const wide = async () => {
      const reached = (await outlookOf('CR-04', 'main filter'))?.forecast?.reached;
      return reached ? reached[3] - reached[1] : Number.NaN;
    };
    const loaded = await recordTest(
      context,
      'CR-04',
      testBody({ performedAt: '2026-11-24T09:00:00.000Z', readings: readings('L/s', '9.1', '9.2', '9.1') }),
    );
    expect(said(loaded)).toBe('accepted');
    expect((await outlookOf('CR-04', 'main filter'))?.basis.inspections).toBe((before?.basis.inspections ?? 0) + 1);
    const asFound = await wide();
    const bag = await stage('CR-04', 'fleece bag');
    await recordChange(
      context,
      'CR-04',
      changeBody(bag.id, { partId: bag.part?.id ?? null, performedAt: '2026-11-24T09:20:00.000Z' }),
    );
    await recordTest(
      context,
      'CR-04',
      testBody({ performedAt: '2026-11-24T09:40:00.000Z', readings: readings('L/s', '12.9', '13.0', '12.9') }),
    );
    expect((await outlookOf('CR-04', 'main filter'))?.basis.inspections).toBe((before?.basis.inspections ?? 0) + 2);
    expect(await wide()).toBeLessThan(asFound);
  });

  it('plans around days on which a machine is away; the newest word stands, and backwards is refused', async () => {
    const away = (from: string, to: string) =>
      logAway(context, 'CR-04', { ...who(), from, to, why: 'lent to the slip' });
    expect(said(await away('2026-11-30', '2026-11-20'))).toBe('away.backwards to');
    expect(said(await away('2026-11-24', '2026-12-04'))).toBe('accepted');
    const plan = await planYard(context);
    const bag = plan.made.stages.findIndex((s) => s.tag === 'CR-04' && s.name === 'fleece bag');
    expect(plan.days[bag]).toBe(13);
    await away('2026-10-01', '2026-10-02');
    expect((await planYard(context)).days[bag]).toBeLessThan(5);
  });

  it('a day that was fixed and is past is no longer fixed; one to come is, from today on', async () => {
    const bag = await stage('CR-04', 'fleece bag');
    const fixed = async () => {
      const { input } = await planYard(context);
      const machineInput = input.machines.find((m) => m.tag === 'CR-04');
      return machineInput?.stages.find((s) => s.stageId === bag.id)?.lockedDay;
    };
    const lock = (day: string | null) => lockPlan(context, { ...who(), locks: [{ stageId: bag.id, day }] });
    expect(await fixed()).toBeNull();
    await lock('2026-11-24');
    expect(await fixed()).toBe(0);
    await lock('2026-12-01');
    expect(await fixed()).toBe(7);
    const later = { ...context, now: () => '2026-12-03T10:00:00.000Z' };
    const { input } = await planYard(later);
    expect(
      input.machines.find((m) => m.tag === 'CR-04')?.stages.find((s) => s.stageId === bag.id)?.lockedDay,
    ).toBeNull();
    await lock(null);
    expect(await fixed()).toBeNull();
  });

  it('calls an examination by its name, and takes from the shelf only what has a part', async () => {
    const { input, parts } = await planYard(context);
    const stages = input.machines.find((m) => m.tag === 'CR-01')?.stages ?? [];
    expect(stages.map((s) => s.name)).toContain('examination');
    expect(stages.find((s) => s.name === 'examination')?.part).toBeNull();
    const lower = stages.find((s) => s.name === 'lower bag');
    expect(parts[lower?.part ?? -1]?.code).toBe('B-COLL');
    // The first part of the list is a part like any other.
    const first = input.machines.flatMap((m) => m.stages).filter((s) => s.part === 0);
    expect(first.length).toBeGreaterThan(0);
  });

  it('away from the first to the last day of it, both included, however long ago it began', async () => {
    const blocked = async () =>
      (await planYard(context)).input.machines.find((m) => m.tag === 'CR-02')?.blockedDays.slice(0, 5);
    expect(await blocked()).toEqual([]);
    await logAway(context, 'CR-02', { ...who(), from: '2026-11-20', to: '2026-11-26', why: 'hire' });
    expect(await blocked()).toEqual([0, 1, 2]);
    await logAway(context, 'CR-02', { ...who(), from: '2026-11-26', to: '2026-11-26', why: 'hire' });
    expect(await blocked()).toEqual([2]);
  });

  it('does not open a machine whose filter hangs up to dry', async () => {
    const { input } = await planYard(context);
    expect(input.machines.find((m) => m.tag === 'CR-12')?.blockedDays).toEqual([0]);
    expect(input.machines.find((m) => m.tag === 'CR-04')?.blockedDays).toEqual([]);
  });

  it("today's walk goes place after place and says which part, where, and what happens if not", async () => {
    const { walk } = await loadRound(context);
    expect(walk.length).toBeGreaterThan(1);
    expect(walk.map((w) => w.place)).toEqual([...walk.map((w) => w.place)].sort());
    expect(walk.flatMap((w) => w.items).every((i) => i.pastInAWeek >= 0 && i.pastInAWeek <= 1)).toBe(true);
    expect(walk.flatMap((w) => w.items).some((i) => i.part?.bin)).toBe(true);
  });
});

describe('orders and the outbox', () => {
  it('an order is counted as on its way, arrives once, and lets the plan in', async () => {
    const part = (await loadParts(context.db)).find((p) => p.code === 'F-GAS');
    const placed = async () => {
      const { made, days } = await planYard(context);
      return days[made.stages.findIndex((s) => s.tag === 'CR-09' && s.name === 'carbon cell')] ?? null;
    };
    expect(await placed()).toBeNull();
    expect(said(await orderPart(context, { ...who(), partId: part?.id ?? 0, packs: 1, arrivesOn: '2026-11-01' }))).toBe(
      'order.past arrivesOn',
    );
    const order = await orderPart(context, { ...who(), partId: part?.id ?? 0, packs: 1, arrivesOn: '2026-12-03' });
    expect(await placed()).toBeGreaterThanOrEqual(9);
    const orderId = order.ok ? order.value.id : 0;
    expect(said(await orderArrived(context, { ...who(), orderId }))).toBe('accepted');
    expect(said(await orderArrived(context, { ...who(), orderId }))).toBe('order.unknown orderId');
    expect((await loadParts(context.db)).find((p) => p.code === 'F-GAS')?.onHand).toBe(1);
    // Today, or tomorrow where today's minutes are promised to others.
    expect(await placed()).toBeLessThanOrEqual(1);
  });

  it('the order list is a table another package reads, and says what the stock desk says', async () => {
    const parsed = Papa.parse<Record<string, string>>(await orderList(context), { header: true });
    expect(parsed.errors).toEqual([]);
    const { lines } = await loadStockDesk(context);
    expect(parsed.data.map((r) => [r['code'], Number(r['packs'])])).toEqual(
      lines.filter((l) => l.reorder.packs > 0).map((l) => [l.part.code, l.reorder.packs]),
    );
    expect(parsed.data.length).toBeGreaterThan(3);
  });

  it('the calendar is read by an independent package: whole days, and an id that stays when its opening moves (RFC 5545, ical.js)', async () => {
    const eventsOf = async () => {
      const component = new ICAL.Component(
        ICAL.parse(calendarFeed(await planYard(context), context.now())) as unknown[],
      );
      return component.getAllSubcomponents('vevent').map((v) => new ICAL.Event(v));
    };
    const events = await eventsOf();
    const { made, days } = await planYard(context);
    const openings = new Set(
      made.problem.tasks.flatMap((t, i) => ((days[i] ?? null) === null ? [] : [`${t.machine} ${days[i]}`])),
    );
    expect(events).toHaveLength(openings.size);
    expect(events.every((e) => e.startDate.isDate)).toBe(true);
    expect(new Set(events.map((e) => e.uid)).size).toBe(events.length);
    const cyclone = events.find((e) => e.summary.startsWith('CR-20'));
    const { id } = await stage('CR-20', 'cyclone');
    const bags = await stage('CR-20', 'filter bag');
    await lockPlan(context, {
      ...who(),
      locks: [
        { stageId: id, day: '2026-12-18' },
        { stageId: bags.id, day: '2026-12-18' },
      ],
    });
    const moved = (await eventsOf()).find((e) => e.uid === cyclone?.uid);
    expect(moved?.startDate.toString()).toBe('2026-12-18');
    expect(cyclone?.startDate.toString()).not.toBe('2026-12-18');
    // Once it has been changed, the next opening is another one.
    const part = (await stage('CR-20', 'cyclone')).part;
    context = { ...context, now: () => '2026-11-24T11:00:00.000Z' };
    expect(
      said(
        await recordChange(
          context,
          'CR-20',
          changeBody(id, { partId: part?.id ?? null, performedAt: '2026-11-24T10:30:00.000Z' }),
        ),
      ),
    ).toBe('accepted');
    expect((await eventsOf()).some((e) => e.uid === cyclone?.uid)).toBe(false);
  });

  it('a reminder goes out once, however often it is asked', async () => {
    const first = await sendReminders(context);
    expect(first).toBeGreaterThan(3);
    expect(await sendReminders(context)).toBe(0);
    const messages = await readOutbox(context);
    expect(messages).toHaveLength(first);
    expect(messages.some((m) => m.subject.startsWith('Order Carbon cell'))).toBe(true);
  });
});
