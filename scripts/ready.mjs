// Installs and builds what is missing or out of date, for the other scripts. Plain Node, no packages.
import { Buffer } from 'node:buffer';
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));
const cache = join(root, '.cache');

export const run = (command, args, options = {}) => {
  const { status } = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    ...options,
    env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1', ...options.env },
  });
  return status ?? 1;
};

/** Runs a command in the background; resolves with its status. Its output is printed when it ends. */
export const runBeside = (command, args, env = {}) =>
  new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1', ...env } });
    const said = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => said.push(chunk));
    child.on('error', () => resolve(1));
    child.on('close', (code) => {
      process.stdout.write(Buffer.concat(said));
      resolve(code ?? 1);
    });
  });

/** Serves until it ends, and ends as it ends: who stops this stops the server too. */
export const serve = (env = {}) => {
  const child = spawn(process.execPath, [join(root, 'dist/run/serve.mjs')], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code) => process.exit(code ?? 1));
};

const filesBelow = (path) =>
  statSync(path).isDirectory()
    ? readdirSync(path)
        .sort()
        .flatMap((name) => filesBelow(join(path, name)))
    : [path];

const hashOf = (paths) => {
  const hash = createHash('sha256');
  for (const path of paths
    .map((p) => join(root, p))
    .filter(existsSync)
    .flatMap(filesBelow)) {
    hash.update(path.slice(root.length)).update(readFileSync(path));
  }
  return hash.digest('hex');
};

const stamped = (name, hash) => existsSync(join(cache, name)) && readFileSync(join(cache, name), 'utf8') === hash;

const stamp = (name, hash) => {
  mkdirSync(cache, { recursive: true });
  writeFileSync(join(cache, name), hash);
};

/** npm keeps a list of installed packages: the same packages at the same versions need no second install. */
const installed = () => {
  const copy = join(root, 'node_modules/.package-lock.json');
  if (!existsSync(copy)) return false;
  const packagesOf = (file) => JSON.parse(readFileSync(file, 'utf8')).packages;
  const have = packagesOf(copy);
  const wanted = Object.entries(packagesOf(join(root, 'package-lock.json')));
  return wanted.every(([path, p]) => path === '' || p.optional || have[path]?.version === p.version);
};

const INSTALLING = 'Installing packages (the database driver compiles: two or three minutes)...';
const INSTALL = ['ci', '--no-progress'];

/** Installs the packages when they are missing or the lock file asks for others. */
export const ensureInstalled = () => {
  if (installed()) return;
  console.log(INSTALLING);
  if (run('npm', INSTALL) !== 0) process.exit(1);
};

/** The same, in the background. */
export const ensureInstalledBeside = async () => {
  if (installed()) return;
  console.log(INSTALLING);
  if ((await runBeside('npm', INSTALL)) !== 0) process.exit(1);
};

const SOURCES = ['src', 'public', 'scripts', 'package-lock.json', 'astro.config.mjs', 'tsconfig.json'];
const BUILD = ['run', '--silent', 'build'];
const isBuilt = (hash) => existsSync(join(root, 'dist/run/serve.mjs')) && stamped('built', hash);

/** Builds when a source has changed since the last build. Answers whether it went well. */
export const ensureBuilt = () => {
  const hash = hashOf(SOURCES);
  if (isBuilt(hash)) return true;
  console.log('Building...');
  if (run('npm', BUILD) !== 0) return false;
  stamp('built', hash);
  return true;
};

/** The same, in the background. */
export const ensureBuiltBeside = async () => {
  const hash = hashOf(SOURCES);
  if (isBuilt(hash)) return true;
  if ((await runBeside('npm', BUILD)) !== 0) return false;
  stamp('built', hash);
  return true;
};
