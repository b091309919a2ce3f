import type { RestoreBody } from '@/contracts/backup';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { bringBack, copyCalled, lookAtCopy } from '../services/restore';
import type { Context } from '../services/user-action';
import { app, withRecordsClosed } from './app';
import { alone } from './gate';

/** Those in hand are waited for so long, ms. */
const WAIT_MS = 10_000;

/** The one that was brought back last: sent twice it is brought back once. */
let last: { readonly clientId: string; readonly done: Result<{ readonly id: number }> } | null = null;

/** Brings a copy back while Moorwind runs: everybody else waits at the door for as long as it takes. */
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
  const done = await alone(() => withRecordsClosed((file) => bringBack(file, { from, at })), WAIT_MS);
  if (done === null) return fail(failure('restore.in-use', 'name'));
  if (!done.ok) return done;
  last = { clientId, done: ok({ id: 1 }) };
  return last.done;
};
