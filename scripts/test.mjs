// npm test: installs what is missing, then type check, lint, unit tests, build, interface tests; one closing line.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, root, run, runBeside } from './ready.mjs';

const CHROMIUM = '/usr/bin/chromium';
let passed = 0;
let failed = 0;

const step = (name, good) => {
  console.log(`${good ? 'ok' : 'FAILED'}: ${name}`);
  if (good) passed += 1;
  else failed += 1;
  return good;
};

const ensureChromium = () => {
  if (existsSync(CHROMIUM)) return;
  if (process.getuid?.() !== 0) {
    console.log(`The interface tests need Debian's chromium at ${CHROMIUM}; install it, or run as root.`);
    return;
  }
  console.log("Installing Debian's chromium...");
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], { env });
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

ensureInstalled();
ensureChromium();
mkdirSync(join(root, '.cache'), { recursive: true });
// Each keeps one core busy: side by side they take the time of the longer.
const [types, lint] = await Promise.all([
  runBeside('npx', ['astro', 'check', '--minimumSeverity', 'warning']),
  runBeside('npx', ['eslint', '.', '--max-warnings', '0']),
]);
step('type check', types === 0);
step('lint', lint === 0);
vitest('unit');
if (step('build', ensureBuilt())) vitest('e2e');
else failed += 1;

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
