import { createHash } from 'node:crypto';
import { type AnswerShape, storedResult } from '@/contracts/action-answer';
import { readStored } from '@/contracts/stored';
import { fail, failure, type Result } from '@/core/failure/failure';
import type { Person } from '@/core/people/person';
import type { Db } from '../../db/connect';
import { renewDigests, withoutDigest } from './digest';

/** Handed to every service: the store and the clock. */
export interface Context {
  readonly db: Db;
  /** The present moment, UTC ISO. */
  readonly now: () => string;
  /** The signed-in person; null or left out without sign-in. */
  readonly person?: Person | null | undefined;
}

export interface UserAction<T> {
  readonly kind: string;
  /** The parsed request; its `clientId` names the action. */
  readonly body: { readonly clientId: string };
  readonly at: string;
  /** The shape of its answer, read back when it is sent again. */
  readonly answers: AnswerShape<T>;
}

class RolledBack<T> extends Error {
  constructor(readonly result: Result<T>) {
    super('rolled back');
  }
}

/** A refusal with kept facts: the statement stays on record although the action is refused. */
type Kept<T> = Result<T> & { readonly keep?: true };

export const refuseAndKeep = (refused: {
  readonly ok: false;
  readonly failures: Extract<Result<never>, { ok: false }>['failures'];
}): Kept<never> => ({ ...refused, keep: true });

const hashOf = (body: unknown): string => createHash('sha256').update(JSON.stringify(body)).digest('hex');

/**
 * Runs one user action as one transaction, once. The same client id with the same request gets the first answer; with
 * another request it is refused. A failing action leaves nothing behind, except kept facts.
 */
export const runOnce = async <T>(
  db: Db,
  action: UserAction<T>,
  work: (tx: Db) => Promise<Kept<T>>,
): Promise<Result<T>> => {
  const requestHash = hashOf(action.body);
  try {
    return await db.transaction().execute(async (tx) => {
      const before = await tx
        .selectFrom('user_action')
        .selectAll()
        .where('client_id', '=', action.body.clientId)
        .executeTakeFirst();
      if (before) {
        return before.request_hash === requestHash && before.kind === action.kind
          ? readStored(storedResult(action.answers), before.result_json)
          : fail(failure('action.reused', 'clientId'));
      }
      const without = await withoutDigest(tx);
      const result = await work(tx);
      if (!result.ok && !result.keep) throw new RolledBack(result);
      await renewDigests(tx, without);
      await tx
        .insertInto('user_action')
        .values({
          client_id: action.body.clientId,
          kind: action.kind,
          request_hash: requestHash,
          result_json: JSON.stringify(result),
          at: action.at,
        })
        .execute();
      return result;
    });
  } catch (error) {
    if (error instanceof RolledBack) return error.result;
    throw error;
  }
};
