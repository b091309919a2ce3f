import { hostname } from 'node:os';
import { resolve } from 'node:path';

export interface Config {
  readonly host: string;
  readonly port: number;
  readonly dataFile: string;
  readonly allowLan: boolean;
  /** Names this server answers to on its network, in small letters: its machine's own, and those it was given. */
  readonly hostNames: readonly string[];
  /** A fixed moment for tests and pictures; null means the real clock. */
  readonly fixedNow: string | null;
}

export class ConfigError extends Error {}

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '::1', '[::1]']);

export const isLoopback = (host: string): boolean => LOOPBACK.has(host.toLowerCase());

const port = (text: string | undefined): number => {
  const value = Number(text ?? '4321');
  if (!(Number.isInteger(value) && value >= 1 && value <= 65535))
    throw new ConfigError(`PORT is "${text}", it must be 1 to 65535.`);
  return value;
};

const fixedNow = (text: string | undefined): string | null => {
  if (text === undefined || text === '') return null;
  const moment = new Date(text);
  if (Number.isNaN(moment.getTime())) throw new ConfigError(`MOORWIND_NOW is "${text}", it must be an ISO moment.`);
  return moment.toISOString();
};

/** Parses the environment once. Throws ConfigError with a sentence for the person who starts the server. */
export const parseConfig = (env: Readonly<Record<string, string | undefined>>): Config => {
  const host = env['HOST'] ?? '127.0.0.1';
  const allowLan = env['MOORWIND_ALLOW_LAN'] === 'yes';
  if (!isLoopback(host) && !allowLan) {
    throw new ConfigError(
      `Moorwind does not listen on ${host}: anybody on that network could change the records. ` +
        'Leave HOST at 127.0.0.1, or set MOORWIND_ALLOW_LAN=yes if the network is yours alone.',
    );
  }
  return {
    host,
    port: port(env['PORT']),
    dataFile: resolve(env['MOORWIND_DATA'] ?? 'data/moorwind.sqlite'),
    allowLan,
    hostNames: `${hostname()},${hostname()}.local,${env['MOORWIND_HOSTS'] ?? ''}`
      .split(',')
      .map((name) => name.trim().toLowerCase())
      .filter((name) => name !== ''),
    fixedNow: fixedNow(env['MOORWIND_NOW']),
  };
};
