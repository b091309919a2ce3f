import { fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Db } from '../../db/connect';
import type { Context } from '../../services/yard/user-action';
import { machineNamed } from '../../services/yard/yard';

type Listing<Q, R> = (db: Db, machineId: number, query: Q) => Promise<R>;

/** Runs a listing for the machine in the address; `machine.unknown` for an unknown tag. */
export const ofMachine =
  <Q, R>(list: Listing<Q, R>) =>
  async (context: Context, { tag = '' }: Readonly<Record<string, string>>, query: Q): Promise<Result<R>> => {
    const machine = await machineNamed(context, tag);
    return machine ? ok(await list(context.db, machine.id, query)) : fail(failure('machine.unknown', '', { tag }));
  };
