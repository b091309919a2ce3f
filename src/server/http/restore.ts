import type { RestoreBody } from '@/contracts/backup';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { bringBack, copyCalled, lookAtCopy } from '../services/house/restore';
import type { Context } from '../services/yard/user-action';
import { app, withRecordsClosed } from './app';
import { exclusively } from './restore-lock';

/** Longest wait for running requests, ms. */
const WAIT_MS = 10_000;

/** The last restore: the same request sent twice restores once. */
let last: { readonly clientId: string; readonly done: Result<{ readonly id: number }> } | null = null;

/** Restores a backup while Moorwind runs: other requests wait until it ends. */
export const restoreHere = async (
  { now }: Context,
  { name, clientId }: RestoreBody,
): Promise<Result<{ readonly id: number }>> => {
  if (last?.clientId === clientId) return last.done;
  const { dataFile } = (await app()).config;
  const from = copyCalled(dataFile, name);
  if (from === null) return fail(failure('restore.unknown', 'name'));
  const look = await lookAtCopy(dataFile, from);
  if (!look.ok) return look;
  const at = now();
  const done = await exclusively(() => withRecordsClosed((file) => bringBack(file, { from, at })), WAIT_MS);
  if (done === null) return fail(failure('restore.in-use', 'name'));
  if (!done.ok) return done;
  last = { clientId, done: ok({ id: 1 }) };
  return last.done;
};
