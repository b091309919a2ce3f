import { type OutboxMessage, putMessage } from '../repositories/plans';
import type { Db } from '../db/connect';

/** Sends messages out of the application; this stand-in writes them to a file. */
export interface Sender {
  readonly send: (message: Omit<OutboxMessage, 'id'>) => Promise<boolean>;
}

/** Ships with the application in place of a mail service. A message of the same key is sent once. */
export const standInSender = (db: Db): Sender => ({ send: (message) => putMessage(db, message) });
