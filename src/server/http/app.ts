import { parseConfig, type Config } from '../config';
import { openMigrated } from '../db/connect';
import { planDesk } from '../planner/plan-desk';
import { asksWho } from './connection';
import { offerFirstCode } from './first-code';

export { firstCode } from './first-code';
import { keepCopies } from '../services/house/backups';
import type { Context } from '../services/yard/user-action';
import { planAt } from '../services/plan/plan-yard';
import { loadYard } from '../services/yard/yard';

export interface App {
  readonly config: Config;
  readonly context: Context;
  /** Stops the background work. */
  readonly stop: () => Promise<void>;
}

let starting: Promise<App> | null = null;

const start = async (): Promise<App> => {
  const config = parseConfig(process.env);
  const db = await openMigrated(config.dataFile);
  const desk = planDesk(config.dataFile);
  planAt(db, desk.plan);
  const context: Context = { db, now: () => config.fixedNow ?? new Date().toISOString() };
  const stopCopies = keepCopies({ ...context, file: config.dataFile });
  if (await asksWho(context, config)) await offerFirstCode(context, (text) => console.log(text));
  // A large yard is read and planned before the first request, where it must be rebuilt.
  loadYard(context)
    .then((yard) => desk.plan(context, yard))
    .catch((error: unknown) => console.error(error));
  const stop = async () => {
    stopCopies();
    await desk.stop();
  };
  return { config, context, stop };
};

/** The running application: configuration, database and clock, made once. A failed start is tried again. */
export const app = (): Promise<App> => {
  starting ??= start().catch((error: unknown) => {
    starting = null;
    throw error;
  });
  return starting;
};

/** Closes the records, exchanges the file, and opens the new one. Valid only while no other request runs. */
export const withRecordsClosed = async <T>(exchange: (file: string) => Promise<T>): Promise<T> => {
  const { config, context, stop } = await app();
  await stop();
  await context.db.destroy();
  try {
    return await exchange(config.dataFile);
  } finally {
    starting = null;
    await app();
  }
};
