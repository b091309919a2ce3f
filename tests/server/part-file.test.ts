import { readFileSync } from 'node:fs';
import { beforeEach, describe, expect, it } from 'vitest';
import type { PartBody } from '@/contracts/registers';
import { standsFor } from '@/core/stock/merge';
import type { Db } from '@/server/db/connect';
import { findMachine, loadMachines } from '@/server/repositories/machines';
import { loadLedger, loadParts, takenSince } from '@/server/repositories/stock';
import { mergeParts } from '@/server/services/stock/merge-parts';
import { orderPart } from '@/server/services/stock/order-part';
import { keepPartPhoto, partPhotoOf } from '@/server/services/stock/part-photo';
import { loadPartPage } from '@/server/services/stock/part-page';
import { keepPart } from '@/server/services/yard/registers';
import type { Context } from '@/server/services/yard/user-action';
import { startJob } from '@/server/services/jobs/start-job';
import { dustBody, partBody } from '../support/bodies';
import { demoContext, newId } from '../support/database';
import { said } from '../support/said';

let context: Context & { readonly db: Db };
beforeEach(async () => {
  context = await demoContext();
});

const partCalled = async (code: string) => {
  const part = (await loadParts(context.db)).find((p) => p.code === code);
  if (!part) throw new Error(`no part ${code}`);
  return part;
};
const entered = async (over: Partial<PartBody>) => {
  const kept = await keepPart(context, partBody({ code: 'TWICE', ...over }));
  if (!kept.ok) throw new Error(said(kept));
  return kept.value.id;
};
const merge = (partId: number, intoId: number) => mergeParts(context, { clientId: newId(), by: 'MK', partId, intoId });
const stagesThatTake = async (id: number) =>
  (await loadMachines(context.db)).flatMap((m) => m.stages.filter((s) => s.part?.id === id)).length;

const positionOf = async (tag: string, partId: number) =>
  (await findMachine(context.db, tag))?.stages.findIndex((s) => s.part?.id === partId) ?? -1;

describe('a part that was entered twice', () => {
  it('becomes one: shelf, machines and use go over, the past stays, and it is done once', async () => {
    const shop = await partCalled('B-SHOP');
    const machines = await stagesThatTake(shop.id);
    expect(machines).toBeGreaterThan(0);
    const before = (await takenSince(context.db, '2020-01-01')).get(shop.id) ?? 0;
    const id = await entered({ onHand: 3 });
    // The shop bag goes, and the new entry stays: what its machines take must follow.
    const body = { clientId: newId(), by: 'MK', partId: shop.id, intoId: id };
    const first = await mergeParts(context, body);
    expect(said(first)).toBe('accepted');
    expect(await mergeParts(context, body)).toEqual(first);
    expect((await partCalled('TWICE')).onHand).toBe(3 + shop.onHand);
    expect(await partCalled('B-SHOP')).toMatchObject({ onHand: 0, retired: true });
    expect([await stagesThatTake(shop.id), await stagesThatTake(id)]).toEqual([0, machines]);
    // What was used under the old entry is still demand for it.
    const used = await takenSince(context.db, '2020-01-01');
    expect([used.get(shop.id), used.get(id)]).toEqual([undefined, before]);
    expect((await loadLedger(context.db, shop.id)).length).toBeGreaterThan(1);
    const page = await loadPartPage(context, shop.id);
    expect([page.readAs?.code, (await loadPartPage(context, id)).alsoWas]).toEqual(['TWICE', ['B-SHOP']]);
    // It cannot be brought back, nor go twice.
    expect(said(await keepPart(context, partBody({ id: shop.id, code: 'B-SHOP', onHand: null })))).toBe(
      'part.merge alreadyMerged',
    );
    expect(said(await merge(shop.id, id))).toBe('part.merge alreadyMerged');
  });

  it('is refused where anything says that it is another part, or that it is in hand', async () => {
    const shop = await partCalled('B-SHOP');
    const plain = { medium: 'Paper,  two layer', areaM2: 0.3, rating: 'M' };
    const kept = { id: shop.id, code: shop.code, name: shop.name, packSize: shop.packSize, onHand: null };
    expect(said(await keepPart(context, partBody({ ...kept, ...plain })))).toBe('accepted');
    const like = async (code: string, over: Partial<PartBody>) =>
      said(await merge(await entered({ ...plain, code, ...over }), shop.id));
    expect(await like('A', { medium: 'fleece' })).toBe('part.merge otherMedium');
    expect(await like('B', { areaM2: 0.4 })).toBe('part.merge otherArea');
    expect(await like('C', { rating: 'H13' })).toBe('part.merge otherRating');
    // The same words written otherwise, and an area read off another label, are no other part.
    expect(await like('D', { medium: 'paper, two layer', areaM2: 0.305, rating: '' })).toBe('accepted');
    const filter = (await loadMachines(context.db)).flatMap((m) => m.stages).find((s) => s.kind === 'hepa' && s.part);
    expect(said(await merge(filter?.part?.id ?? 0, shop.id))).toBe('part.merge otherSeat');
    expect(said(await merge(shop.id, shop.id))).toBe('part.merge same');
    expect(said(await merge(shop.id, 9999))).toBe('part.unknown intoId');
    const id = await entered({ code: 'E', ...plain });
    const order = { clientId: newId(), by: 'MK', partId: id, packs: 1, arrivesOn: '2030-01-01' };
    expect(said(await orderPart(context, order))).toBe('accepted');
    expect(said(await merge(id, shop.id))).toBe('part.merge onOrder');
    // A job on a machine that takes it has reserved, taken or held a piece.
    const started = await startJob(context, 'CR-02', {
      clientId: newId(),
      by: 'MK',
      job: { kind: 'change', stage: await positionOf('CR-02', shop.id), school: 'off' },
      dust: dustBody(),
      reason: 'fill',
      people: 1,
      partInHand: false,
    });
    expect(said(started)).toBe('accepted');
    const twin = await entered({ code: 'G', ...plain });
    expect(said(await merge(shop.id, twin))).toBe('part.merge held');
    const gone = await entered({ code: 'F', ...plain, retired: true });
    expect(said(await merge(id, gone))).toBe('part.merge keptIsRetired');
  });

  it('leads to the last of a chain', () => {
    const merged = new Map([
      [1, 2],
      [2, 3],
    ]);
    expect([1, 2, 3, 4].map((id) => standsFor(id, merged))).toEqual([3, 3, 3, 4]);
  });
});

describe('the picture of a part', () => {
  it('is kept by its bytes, the newest is shown, and what is none is refused', async () => {
    const { id } = await partCalled('B-SHOP');
    const png = new Uint8Array(readFileSync('docs/screenshots/bench.png'));
    const keep = (bytes: Uint8Array, partId = id) =>
      keepPartPhoto(context, { query: { clientId: newId(), by: 'MK', partId }, bytes });
    const first = await keep(png);
    expect(said(first)).toBe('accepted');
    const second = await keep(png);
    expect((await loadPartPage(context, id)).photoId).toBe(second.ok ? second.value.id : 0);
    expect((await partPhotoOf(context, first.ok ? first.value.id : 0))?.bytes).toEqual(Buffer.from(png));
    expect(said(await keep(new TextEncoder().encode('<svg/>')))).toBe('photo.not-image photo');
    expect(said(await keep(png, 9999))).toBe('part.unknown partId');
  });
});
