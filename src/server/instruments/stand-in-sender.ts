import { type OutboxMessage, putMessage } from '../repositories/plans';
import type { Db } from '../db/connect';

/** Takes messages out of the application; this stand-in writes them where one can read them. */
export interface Sender {
  readonly send: (message: Omit<OutboxMessage, 'id'>) => Promise<boolean>;
}

/** Ships with the application in place of a mail service. A message of the same key is sent once. */
export const standInSender = (db: Db): Sender => ({ send: (message) => putMessage(db, message) });
