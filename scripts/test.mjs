// npm test: installs what is missing, then type check, lint, unit tests, build, interface tests; one closing line.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuiltBeside, ensureInstalledBeside, root, run, runBeside } from './ready.mjs';

const CHROMIUM = '/usr/bin/chromium';
let passed = 0;
let failed = 0;

const step = (name, good) => {
  console.log(`${good ? 'ok' : 'FAILED'}: ${name}`);
  if (good) passed += 1;
  else failed += 1;
  return good;
};

const ensureChromium = async () => {
  if (existsSync(CHROMIUM)) return;
  if (process.getuid?.() !== 0) {
    console.log(`The interface tests need Debian's chromium at ${CHROMIUM}; install it, or run as root.`);
    return;
  }
  console.log("Installing Debian's chromium...");
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  await runBeside('apt-get', ['update', '-qq'], env);
  await runBeside('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], env);
};

/** Runs one vitest project and adds what it counted; a run that counts nothing has failed. */
const vitest = (project) => {
  const report = join(root, `.cache/${project}.json`);
  rmSync(report, { force: true });
  const status = run('npx', [
    'vitest',
    'run',
    '--project',
    project,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
  ]);
  if (!existsSync(report)) return step(`${project} tests`, false);
  const { numPassedTests, numFailedTests, numTotalTests } = JSON.parse(readFileSync(report, 'utf8'));
  passed += numPassedTests;
  failed += numFailedTests;
  // A suite that does not load fails the run without failing a test.
  if (numTotalTests === 0 || (status !== 0 && numFailedTests === 0)) step(`${project} tests`, false);
};

// One waits for the network, the other for the compiler.
await Promise.all([ensureInstalledBeside(), ensureChromium()]);
mkdirSync(join(root, '.cache'), { recursive: true });
// Each keeps one core busy: side by side they take the time of the longer. The build follows the shorter.
const typesAndBuild = async () => {
  const status = await runBeside('npx', ['astro', 'check', '--minimumSeverity', 'warning']);
  return [status, await ensureBuiltBeside()];
};
const [[types, built], lint] = await Promise.all([
  typesAndBuild(),
  runBeside('npx', ['eslint', '.', '--max-warnings', '0']),
]);
step('type check', types === 0);
step('lint', lint === 0);
vitest('unit');
if (step('build', built)) vitest('e2e');

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
