import { beforeEach, describe, expect, it } from 'vitest';
import type { Db } from '@/server/db/connect';
import { listMachines, listParts, listStock } from '@/server/repositories/lists';
import { listCases, listChanges, listJobs, listTests } from '@/server/repositories/machine-lists';
import { loadTests } from '@/server/repositories/tests';
import { demoContext } from '../support/database';

let db: Db;
let tagged: ReadonlyMap<string, number>;
beforeEach(async () => {
  ({ db } = await demoContext());
  tagged = new Map((await db.selectFrom('machine').select(['tag', 'id']).execute()).map((m) => [m.tag, m.id]));
});
const first = { after: 0, limit: 100 };

/** Walks all pages of a list. */
const walk = async <T extends { readonly id: number }>(
  page: (after: number) => Promise<{ readonly items: readonly T[]; readonly next: number | null }>,
): Promise<readonly T[]> => {
  const all: T[] = [];
  for (let after: number | null = 0; after !== null;) {
    const { items, next }: { readonly items: readonly T[]; readonly next: number | null } = await page(after);
    all.push(...items);
    after = next;
  }
  return all;
};

describe('lists for programs', () => {
  it('give every record once, whatever the size of a page', async () => {
    const id = tagged.get('CR-04') ?? 0;
    const whole = (await loadTests(db, id)).map((t) => t.id).sort((a, b) => a - b);
    expect(whole.length).toBeGreaterThan(7);
    for (const limit of [1, 7, whole.length, 500])
      expect((await walk((after) => listTests(db, id, { after, limit }))).map((t) => t.id)).toEqual(whole);
    expect((await walk((after) => listMachines(db, { after, limit: 5 }))).map((m) => m.tag).sort()).toEqual(
      [...tagged.keys()].sort(),
    );
  });

  it('keep to their days, both included', async () => {
    const id = tagged.get('CR-04') ?? 0;
    const { items } = await listChanges(db, id, first);
    const days = items.map((c) => c.performedAt.slice(0, 10)).sort();
    const [from, to] = [days[1] ?? '', days.at(-2) ?? ''];
    const inside = await listChanges(db, id, { ...first, from, to });
    expect(inside.items.map((c) => c.id)).toEqual(
      items.filter((c) => c.performedAt.slice(0, 10) >= from && c.performedAt.slice(0, 10) <= to).map((c) => c.id),
    );
    expect(inside.items.length).toBeLessThan(items.length);
    expect((await listChanges(db, id, { ...first, from: '2099-01-01' })).items).toEqual([]);
  });

  it('carry the ids that an action needs, and the ledger adds up to the stock on hand', async () => {
    const { items: machines } = await listMachines(db, first);
    const { items: parts } = await listParts(db, first);
    const ids = new Set(parts.map((p) => p.id));
    const fitted = machines.flatMap((m) => m.stages.flatMap((s) => s.partId ?? []));
    expect(fitted.length).toBeGreaterThan(3);
    expect(fitted.filter((p) => !ids.has(p))).toEqual([]);
    const moves = await walk((after) => listStock(db, { after, limit: 500 }));
    for (const part of parts)
      expect([part.code, moves.filter((m) => m.partId === part.id).reduce((sum, m) => sum + m.quantity, 0)]).toEqual([
        part.code,
        part.onHand,
      ]);
    const jobs = (await Promise.all([...tagged.values()].map((id) => listJobs(db, id, first)))).flatMap((p) => p.items);
    const cases = (await Promise.all([...tagged.values()].map((id) => listCases(db, id, first)))).flatMap(
      (p) => p.items,
    );
    expect([jobs.map((j) => j.ended), cases.map((c) => c.ended)]).toEqual([
      [null],
      expect.arrayContaining([null, 'closed']),
    ]);
  });
});
