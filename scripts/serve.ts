// Checks the configuration and the records before the server listens, so that a refusal is a sentence and an exit code,
// not a page. SIGTERM and SIGINT finish what is in hand.
import { DAY_MS } from '@/core/calendar/time';
import http, { type RequestListener, type Server, type ServerResponse } from 'node:http';
import https from 'node:https';
import { readdirSync, statSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import compression from 'compression';
import sirv from 'sirv';
import { failure } from '@/core/failure/failure';
import { problemsOf } from '@/messages/failures';
import { ConfigError, parseConfig } from '@/server/config';
import { listCopies } from '@/server/db/copies';
import { EXIT, openRecords, StartError } from '@/server/db/open-records';

/** Time limit of a request, ms. */
const REQUEST_MS = 60_000;
/** Time for requests in hand to finish at shutdown, ms. */
const GOODBYE_MS = 10_000;

const refuse = (message: string, exitCode: number): never => {
  console.error(message);
  process.exit(exitCode);
};

const config = (() => {
  try {
    return parseConfig(process.env);
  } catch (error) {
    if (!(error instanceof ConfigError)) throw error;
    return refuse(error.message, EXIT.config);
  }
})();

try {
  await (await openRecords(config.dataFile)).destroy();
} catch (error) {
  if (!(error instanceof StartError)) throw error;
  refuse(error.message, error.exitCode);
}
// Or React draws every page in its development build, five times slower.
process.env['NODE_ENV'] ??= 'production';
process.env['HOST'] = config.host;
process.env['PORT'] = String(config.port);
process.env['ASTRO_NODE_AUTOSTART'] = 'disabled';
if (config.tls) {
  process.env['SERVER_CERT_PATH'] = config.tls.cert;
  process.env['SERVER_KEY_PATH'] = config.tls.key;
}

interface Entry {
  startServer: () => { server: { server: Server }; done: Promise<unknown> };
}
// Imports every page before the first request: a page that is first imported while no file handle is free would fail
// for good, and its request would never end.
const pages = join(process.cwd(), 'dist/server/pages');
for (const page of readdirSync(pages, { recursive: true, encoding: 'utf8' }))
  if (page.endsWith('.mjs')) await import(pathToFileURL(join(pages, page)).href);
const entry = (await import(pathToFileURL(join(process.cwd(), 'dist/server/entry.mjs')).href)) as Entry;
const started = entry.startServer();
// Astro's promise is ignored; the 'error' event below reports a port in use.
started.done.catch(() => undefined);
const { server } = started.server;
// Built files are served as compressed at the build; pages are compressed when sent, streams never.
const [answer] = server.listeners('request') as [RequestListener];
const compress = compression({
  filter: (request, response) =>
    !String(response.getHeader('content-type') ?? '').startsWith('text/event-stream') &&
    compression.filter(request, response),
});
const built = sirv(join(process.cwd(), 'dist/client'), {
  brotli: true,
  gzip: true,
  etag: true,
  setHeaders: (response, path) => {
    response.setHeader('x-content-type-options', 'nosniff');
    // Named by its content, so that it never changes.
    if (path.startsWith('/_astro/')) response.setHeader('cache-control', 'public, max-age=31536000, immutable');
  },
});
server.removeAllListeners('request');
const METHODS: ReadonlySet<string> = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);
/** Addresses of the framework that nothing here uses. */
const UNUSED = /^\/_(image|server-islands|actions)(\/|\?|$)/;
const refuseRequest = (response: ServerResponse, status: number, code: 'request.method' | 'page.unknown'): void => {
  response.writeHead(status, {
    'content-type': 'application/json; charset=utf-8',
    'x-content-type-options': 'nosniff',
  });
  response.end(JSON.stringify({ problems: problemsOf([failure(code)]) }));
};
server.on('request', (request, response) => {
  if (!METHODS.has(request.method ?? '')) {
    refuseRequest(response, 405, 'request.method');
    return;
  }
  if (UNUSED.test(request.url ?? '')) {
    refuseRequest(response, 404, 'page.unknown');
    return;
  }
  const others = () => compress(request, response, () => answer(request, response));
  if (request.method === 'GET' || request.method === 'HEAD') built(request, response, others);
  else others();
});
server.requestTimeout = REQUEST_MS;
server.headersTimeout = REQUEST_MS;
server.on('error', (error: NodeJS.ErrnoException) => {
  refuse(
    error.code === 'EADDRINUSE'
      ? `Port ${config.port} is taken: another Moorwind, or another program, listens there. Set PORT to another one.`
      : `Moorwind cannot listen on ${config.host}:${config.port} (${error.code ?? error.message}).`,
    EXIT.unavailable,
  );
});
server.on('listening', () => console.log(sayBackup(config.dataFile)));
server.on('listening', () =>
  console.log(
    `Moorwind: ${config.tls ? 'https' : 'http'}://${config.host}:${config.port}/   records in ${config.dataFile}`,
  ),
);

/** Requests its own board once at start, to warm the caches and print the first sign-in code. */
const wake = (): void => {
  const { request } = config.tls ? https : http;
  request({
    host: ['0.0.0.0', '::'].includes(config.host) ? 'localhost' : config.host,
    port: config.port,
    path: '/api/health',
    headers: { host: 'localhost' },
    // It is ourselves, under a name that the certificate need not have.
    rejectUnauthorized: false,
  })
    .on('response', (response) => response.resume())
    .on('error', (error) => console.error(error))
    .end();
};
server.on('listening', wake);

/** The newest copy beside the records, such as yard.sqlite.backup-2026-11-28 or one kept before a schema change. */
const sayBackup = (file: string): string => {
  const copies = readdirSync(dirname(file))
    .filter(
      (name) => name.startsWith(`${basename(file)}.`) && /\.(backup|before)-/.test(name) && !name.endsWith('.part'),
    )
    .map((name) => statSync(join(dirname(file), name)).mtimeMs);
  const moments = [...copies, ...listCopies(file).map((c) => Date.parse(c.at))];
  if (moments.length === 0)
    return 'No backup exists yet: the first is made in a minute, then one a day. Keep some elsewhere too.';
  const days = Math.floor((Date.now() - Math.max(...moments)) / DAY_MS);
  return `The newest backup beside the records is ${days === 0 ? 'of today' : days === 1 ? 'a day old' : `${days} days old`}.`;
};

const sayGoodbye = () => {
  // Open answers finish; listening pages are cut off. Acknowledged records are on disk already.
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => process.exit(0), GOODBYE_MS).unref();
  setTimeout(() => server.closeAllConnections(), GOODBYE_MS / 10).unref();
};
process.once('SIGTERM', sayGoodbye);
process.once('SIGINT', sayGoodbye);
