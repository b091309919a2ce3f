import { beforeEach, describe, expect, it } from 'vitest';
import { PlainAnswer } from '@/contracts/action-answer';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Db } from '@/server/db/connect';
import { loadSite } from '@/server/repositories/site';
import { loadParts } from '@/server/repositories/stock';
import { loadTests } from '@/server/repositories/tests';
import { countStock } from '@/server/services/stock/count-stock';
import { logLook, logUsage } from '@/server/services/yard/log-wear';
import { orderPart } from '@/server/services/stock/order-part';
import { recordChange } from '@/server/services/jobs/record-change';
import { recordTest } from '@/server/services/measuring/record-test';
import { startJob } from '@/server/services/jobs/start-job';
import { type Context, refuseAndKeep, runOnce } from '@/server/services/yard/user-action';
import { findMachine } from '@/server/repositories/machines';
import { changeBody, dustBody, readings, testBody } from '../support/bodies';
import { demoContext, newId, NOW } from '../support/database';

// A double click makes one record, and the second click hears what the first one did.

let context: Context & { readonly db: Db };
beforeEach(async () => {
  context = await demoContext();
});

const machineOf = async (tag: string) => {
  const machine = await findMachine(context.db, tag);
  if (!machine) throw new Error(`no ${tag}`);
  return machine;
};
const stageOf = async (tag: string, name: string) => {
  const stage = (await machineOf(tag)).stages.find((s) => s.name === name);
  if (!stage) throw new Error(`no ${name} on ${tag}`);
  return stage;
};
const actions = async () => (await context.db.selectFrom('user_action').selectAll().execute()).length;
const codes = (result: Result<unknown>) =>
  result.ok ? ['accepted'] : result.failures.map((f) => `${f.code} ${f.path}`.trim());

type Ask = () => Promise<Result<unknown>>;

/** One action of each shape of answer, with something in every field of it. */
const asks: Readonly<Record<string, () => Promise<Ask>>> = {
  'a test that is questioned': () => {
    const body = testBody({ readings: readings('L/s', '600', '601', '600') });
    return Promise.resolve(() => recordTest(context, 'CR-04', body));
  },
  'a change that takes the last part': async () => {
    const bag = await stageOf('CR-04', 'fleece bag');
    const body = changeBody(bag.id, { partId: bag.part?.id ?? null, quantity: 9 });
    return () => recordChange(context, 'CR-04', body);
  },
  'a count with a difference': async () => {
    const [part] = await loadParts(context.db);
    const body = {
      clientId: newId(),
      by: 'MK',
      partId: part?.id ?? 0,
      counted: (part?.onHand ?? 0) + 3,
      note: 'found three',
    };
    return () => countStock(context, body);
  },
  'hours of a day': () => {
    const body = { clientId: newId(), by: 'MK', day: '2026-11-23', hours: 3.5, dust: '', note: '' };
    return Promise.resolve(() => logUsage(context, 'CR-04', body));
  },
  'a look at a bag': async () => {
    const bag = await stageOf('CR-01', 'lower bag');
    const body = { clientId: newId(), by: 'MK', day: '2026-11-24', stageId: bag.id, share: 0.5 };
    return () => logLook(context, 'CR-01', body);
  },
  'an order': async () => {
    const [part] = await loadParts(context.db);
    const body = { clientId: newId(), by: 'MK', partId: part?.id ?? 0, packs: 1, arrivesOn: '2026-12-10' };
    return () => orderPart(context, body);
  },
  'a job that is refused, and what was said of its dust is kept': () => {
    const body = {
      clientId: newId(),
      by: 'MK',
      job: { kind: 'service' as const },
      dust: dustBody('asbestos lagging'),
      reason: null,
      people: 1 as const,
      partInHand: false,
    };
    return Promise.resolve(() => startJob(context, 'CR-01', body as unknown as Parameters<typeof startJob>[2]));
  },
};

describe('an action sent twice', () => {
  it.each(Object.keys(asks))('%s: done once, and answered alike', async (name) => {
    const ask = await (asks[name] ?? (() => Promise.reject(new Error(name))))();
    const before = await actions();
    const first = await ask();
    expect(await actions()).toBe(before + 1);
    expect(await ask()).toEqual(first);
    expect(await actions()).toBe(before + 1);
  });

  it('hears the questions, the shortage and the difference again, not only a number', async () => {
    const answers = await Promise.all(
      ['a test that is questioned', 'a change that takes the last part', 'a count with a difference'].map(
        async (name) => {
          const ask = await (asks[name] ?? (() => Promise.reject(new Error(name))))();
          await ask();
          return ask();
        },
      ),
    );
    expect(answers[0]).toMatchObject({ ok: true, value: { questions: [{ code: 'reading.high' }] } });
    expect(answers[1]).toMatchObject({ ok: true, value: { short: { onHand: -6 } } });
    expect(answers[2]).toMatchObject({ ok: true, value: { difference: 3 } });
  });

  it('is refused when the same id names something else', async () => {
    const body = testBody();
    await recordTest(context, 'CR-04', body);
    expect(codes(await recordTest(context, 'CR-04', { ...body, by: 'TO' }))).toEqual(['action.reused clientId']);
    expect(codes(await recordTest(context, 'CR-11', body))).toEqual(['action.reused clientId']);
    expect((await loadTests(context.db)).filter((t) => t.performedAt === NOW)).toHaveLength(1);
  });
});

describe('an action that fails', () => {
  const action = (clientId: string) => ({ kind: 'trial', body: { clientId }, at: NOW, answers: PlainAnswer });

  it('leaves nothing behind, and the same id can be sent again once it is mended', async () => {
    const body = testBody({ hoseBore: { typed: '0', unit: 'mm' } });
    const before = await actions();
    expect(codes(await recordTest(context, 'CR-04', body))).toEqual(['quantity.out-of-range hoseBore']);
    expect(await actions()).toBe(before);
    expect(codes(await recordTest(context, 'CR-04', { ...body, hoseBore: { typed: '27', unit: 'mm' } }))).toEqual([
      'accepted',
    ]);
  });

  it('takes back what it wrote before it was refused', async () => {
    const id = newId();
    const { name } = await loadSite(context.db);
    const refused = await runOnce(context.db, action(id), async (tx) => {
      await tx.updateTable('site').set({ name: 'Somewhere else' }).execute();
      return fail(failure('machine.unknown', '', { tag: 'X' }));
    });
    expect(codes(refused)).toEqual(['machine.unknown']);
    expect((await loadSite(context.db)).name).toBe(name);
  });

  it('keeps what it wrote where the refusal says so, and answers the same refusal again', async () => {
    const id = newId();
    const before = await actions();
    const work = () => Promise.resolve(refuseAndKeep(fail(failure('dust.since', 'since', { tag: 'CR-01' }))));
    const first = await runOnce(context.db, action(id), work);
    expect(codes(first)).toEqual(['dust.since since']);
    expect(await actions()).toBe(before + 1);
    expect(await runOnce(context.db, action(id), () => Promise.resolve(ok({ id: 1 })))).toEqual(first);
  });

  it('throws what is a fault of ours, and leaves nothing behind', async () => {
    const before = await actions();
    await expect(
      runOnce(context.db, action(newId()), async (tx) => {
        await tx.updateTable('site').set({ name: 'Somewhere else' }).execute();
        throw new Error('a fault of ours');
      }),
    ).rejects.toThrow('a fault of ours');
    expect(await actions()).toBe(before);
    expect((await loadSite(context.db)).name).not.toBe('Somewhere else');
  });

  it('does not take an answer of another shape for its own', async () => {
    const id = newId();
    await runOnce(context.db, action(id), () => Promise.resolve(ok({ id: 7 })));
    await context.db
      .updateTable('user_action')
      .set({ result_json: '{"ok":true,"value":{"id":"seven"}}' })
      .where('client_id', '=', id)
      .execute();
    await expect(runOnce(context.db, action(id), () => Promise.resolve(ok({ id: 8 })))).rejects.toThrow();
  });
});
