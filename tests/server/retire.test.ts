import { beforeAll, describe, expect, it } from 'vitest';
import { loadBench } from '@/server/services/measuring/bench';
import { goneOf, retireMachine } from '@/server/services/yard/retire';
import { loadYard } from '@/server/services/yard/yard';
import { loadPlanPage } from '@/server/services/plan/plan-page';
import { demoContext, newId } from '../support/database';

let context: Awaited<ReturnType<typeof demoContext>>;
beforeAll(async () => {
  context = await demoContext();
});

const put = (how: 'retired' | 'sold' | 'back', note = '') =>
  retireMachine(context, 'cr-20', { clientId: newId(), by: 'MK', how, note });
const planned = async () => (await loadPlanPage(context, await loadYard(context))).input.machines.map((m) => m.tag);
const codes = (r: Awaited<ReturnType<typeof put>>) => (r.ok ? [] : r.failures.map((f) => f.code));

describe('a machine that is no longer kept', () => {
  it('leaves the board and the plan; its file stays, and it comes back', async () => {
    const before = await loadYard(context);
    // It has collected what is contained or controlled: whoever gets it must know in what state it goes.
    expect(codes(await put('sold'))).toEqual(['retire.state']);
    expect(codes(await put('back'))).toEqual(['edit.nothing']);
    expect(codes(await put('sold', 'decontaminated, paper 12'))).toEqual([]);
    const yard = await loadYard(context);
    expect(yard.machines.length).toBe(before.machines.length - 1);
    expect(yard.retired.map((m) => m.machine.tag)).toEqual(['CR-20']);
    expect(await goneOf(context, 'CR-20')).toMatchObject({ how: 'sold', note: 'decontaminated, paper 12' });
    expect(await planned()).not.toContain('CR-20');
    expect((await loadBench(context, 'CR-20')).bench?.tests.length).toBeGreaterThan(0);
    expect(codes(await put('retired', 'again'))).toEqual(['edit.nothing']);
    expect(codes(await put('back'))).toEqual([]);
    expect((await loadYard(context)).machines.length).toBe(before.machines.length);
    expect(await planned()).toContain('CR-20');
  });

  it('is not retired in the middle of a job or a case', async () => {
    const retire = (tag: string) =>
      retireMachine(context, tag, { clientId: newId(), by: 'MK', how: 'retired', note: 'sealed' });
    const yard = await loadYard(context);
    const cased = yard.machines.find((m) => yard.openCases.has(m.machine.id) && !yard.openJobs.has(m.machine.id));
    expect(codes(await retire(cased?.machine.tag ?? ''))).toEqual(['case.open']);
    const working = yard.machines.find((m) => yard.openJobs.has(m.machine.id));
    if (working) expect(codes(await retire(working.machine.tag))).toEqual(['job.open']);
  });
});
