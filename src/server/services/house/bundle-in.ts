import { createHash } from 'node:crypto';
import { ImportReport, type ImportAsk } from '@/contracts/bundle-report';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { type Bundle, DamagedBundle, openBundle } from '../../bundle/file';
import type { Db } from '../../db/connect';
import { insertAudit } from '../../repositories/people';
import { type Sorted, sortRows } from '../../bundle/sort';
import { holdsTogether, writeRows } from '../../bundle/write';
import { makeDigest } from '../yard/digest';
import { type Context, runOnce } from '../yard/user-action';

/** Sorts, writes and reads through, inside a transaction that a refusal takes back. */
const takeIn = async (tx: Db, bundle: Bundle, id: number): Promise<Result<ImportReport>> => {
  const sorted = await sortRows(tx, bundle);
  if (!sorted.ok) return sorted;
  const written = await writeRows(tx, bundle, sorted.value);
  if (!(await holdsTogether(tx))) return fail(failure('bundle.unreadable', '', { tags: 'some machines' }));
  const unreadable = await unreadableOf(tx, bundle, sorted.value);
  if (unreadable.length > 0) return fail(failure('bundle.unreadable', '', { tags: unreadable.slice(0, 5).join(', ') }));
  return ok({ id, scope: bundle.manifest.scope, ...written });
};

/** Machines whose records no page could read: they are not imported. */
const unreadableOf = async (tx: Db, bundle: Bundle, sorted: Sorted): Promise<readonly string[]> => {
  const wrong: string[] = [];
  for (const row of bundle.rows('machine'))
    try {
      await makeDigest(tx, sorted.idOf('machine', row.n));
    } catch {
      wrong.push(String(row['tag']));
    }
  return wrong;
};

class OnlyAsked extends Error {
  constructor(readonly result: Result<ImportReport>) {
    super('only asked');
  }
}

const wouldDo = async (db: Db, bundle: Bundle): Promise<Result<ImportReport>> => {
  try {
    return await db.transaction().execute(async (tx) => {
      throw new OnlyAsked(await takeIn(tx, bundle, 0));
    });
  } catch (error) {
    if (error instanceof OnlyAsked) return error.result;
    throw error;
  }
};

/**
 * Imports a bundle once, everything or nothing. Records that are here already are not doubled. A record that differs
 * here is not changed and is reported, except a machine that was edited only where the bundle comes from. With `dryRun`
 * it writes nothing and reports.
 */
export const takeInBundle = async (
  { db, now }: Context,
  bytes: Uint8Array,
  ask: ImportAsk,
): Promise<Result<ImportReport>> => {
  const opened = openBundle(bytes);
  if (!opened.ok) return opened;
  try {
    if (ask.dryRun) return await wouldDo(db, opened.value);
    const body = { clientId: ask.clientId, by: ask.by, sha256: createHash('sha256').update(bytes).digest('hex') };
    return await runOnce(db, { kind: 'bundle', body, at: now(), answers: ImportReport }, async (tx) => {
      const taken = await takeIn(tx, opened.value, 1);
      if (taken.ok) {
        const { scope } = opened.value.manifest;
        const detail = scope.kind === 'machine' ? `bundle of ${scope.tag}` : 'bundle of a yard';
        await insertAudit(tx, { at: now(), who: ask.by, kind: 'takenIn', detail, address: '' });
      }
      return taken;
    });
  } catch (error) {
    if (error instanceof DamagedBundle) return fail(failure('bundle.damaged', '', { where: error.message }));
    throw error;
  }
};
