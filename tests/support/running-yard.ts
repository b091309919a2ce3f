import type { Browser } from 'playwright-core';
import { afterAll, beforeAll } from 'vitest';
import { newVisit, openBrowser, type Visit } from './browser';
import { type RunningServer, startServer } from './server';

export interface RunningYard {
  readonly server: RunningServer;
  readonly browser: Browser;
  readonly visit: Visit;
}

/** The demo yard on a server of its own with a browser before it, for the tests of one file. Filled before the first test. */
export const runningYard = (): RunningYard => {
  const held: { server?: RunningServer; browser?: Browser; visit?: Visit } = {};
  beforeAll(async () => {
    held.server = await startServer({ seeded: true });
    held.browser = await openBrowser();
    held.visit = await newVisit(held.browser);
  });
  afterAll(async () => {
    await held.browser?.close();
    await held.server?.stop();
  });
  const there = <T>(value: T | undefined): T => {
    if (value === undefined) throw new Error('the yard is not running yet');
    return value;
  };
  return {
    get server() {
      return there(held.server);
    },
    get browser() {
      return there(held.browser);
    },
    get visit() {
      return there(held.visit);
    },
  };
};
