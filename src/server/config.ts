import { existsSync } from 'node:fs';
import { hostname } from 'node:os';
import { resolve } from 'node:path';

export interface Config {
  readonly host: string;
  readonly port: number;
  readonly dataFile: string;
  readonly allowLan: boolean;
  /** Names this server answers to on its network, in small letters: its machine's own, and those it was given. */
  readonly hostNames: readonly string[];
  /** Certificate and key, as files, when this server speaks TLS itself. */
  readonly tls: { readonly cert: string; readonly key: string } | null;
  /** A reverse proxy on this machine passes requests on, with the address of the sender. */
  readonly behindProxy: boolean;
  /** Writes that one asker may send in a minute. */
  readonly writesAMinute: number;
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

/** More than any person, or a bridge of a meter, has to say. A Moorwind default. */
const WRITES_A_MINUTE = 600;

const writesOf = (text: string | undefined): number => {
  const value = Number(text ?? WRITES_A_MINUTE);
  if (!(Number.isInteger(value) && value >= 1))
    throw new ConfigError(`MOORWIND_WRITES is "${text}", it must be a whole number of writes a minute.`);
  return value;
};

const tlsOf = (env: Readonly<Record<string, string | undefined>>): Config['tls'] => {
  const [cert, key] = [env['MOORWIND_TLS_CERT'] ?? '', env['MOORWIND_TLS_KEY'] ?? ''];
  if (cert === '' && key === '') return null;
  if (cert === '' || key === '')
    throw new ConfigError('MOORWIND_TLS_CERT and MOORWIND_TLS_KEY go together: set both, or neither.');
  for (const file of [cert, key])
    if (!existsSync(file))
      throw new ConfigError(`The file ${file} does not exist: see MOORWIND_TLS_CERT and MOORWIND_TLS_KEY.`);
  return { cert: resolve(cert), key: resolve(key) };
};

/** Parses the environment once. Throws ConfigError with a sentence for the person who starts the server. */
export const parseConfig = (env: Readonly<Record<string, string | undefined>>): Config => {
  const host = env['HOST'] ?? '127.0.0.1';
  const behindProxy = env['MOORWIND_PROXY'] === 'yes';
  const allowLan = env['MOORWIND_ALLOW_LAN'] === 'yes' || behindProxy;
  const tls = tlsOf(env);
  if (!isLoopback(host) && !allowLan)
    throw new ConfigError(
      `Moorwind does not listen on ${host} unasked: others on that network could reach it. ` +
        'Leave HOST at 127.0.0.1, or set MOORWIND_ALLOW_LAN=yes; everybody then signs in.',
    );
  if (!isLoopback(host) && behindProxy)
    throw new ConfigError(
      `MOORWIND_PROXY=yes trusts the address a proxy sends; on ${host} anyone could send one. Leave HOST at 127.0.0.1.`,
    );
  if (!isLoopback(host) && !tls && env['MOORWIND_PLAIN_HTTP'] !== 'yes')
    throw new ConfigError(
      `On ${host} passphrases would cross the network readable by all. Set MOORWIND_TLS_CERT and MOORWIND_TLS_KEY, ` +
        'or put a proxy with TLS before it (MOORWIND_PROXY=yes), or say MOORWIND_PLAIN_HTTP=yes if that network is yours alone.',
    );
  return {
    host,
    port: port(env['PORT']),
    dataFile: resolve(env['MOORWIND_DATA'] ?? 'data/moorwind.sqlite'),
    allowLan,
    tls,
    behindProxy,
    hostNames: `${hostname()},${hostname()}.local,${env['MOORWIND_HOSTS'] ?? ''}`
      .split(',')
      .map((name) => name.trim().toLowerCase())
      .filter((name) => name !== ''),
    writesAMinute: writesOf(env['MOORWIND_WRITES']),
    fixedNow: fixedNow(env['MOORWIND_NOW']),
  };
};
