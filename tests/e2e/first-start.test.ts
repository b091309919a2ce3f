import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newVisit, openBrowser, violations, type Visit } from '../support/browser';
import { CAMERA_FLAGS, filmLabel } from '../support/camera';
import { type RunningServer, startServer } from '../support/server';

let server: RunningServer;
let browser: Browser;
let visit: Visit;

beforeAll(async () => {
  server = await startServer({ seeded: false });
  browser = await openBrowser();
  visit = await newVisit(browser);
});
afterAll(async () => {
  await browser.close();
  await server.stop();
});

const ready = (mark: string) => visit.page.waitForSelector(`html[data-${mark}=ready]`);
const alive = () =>
  visit.page.waitForFunction(() => document.querySelectorAll('astro-island[ssr]:not([client="visible"])').length === 0);
const open = async (path: string) => {
  await visit.page.goto(`${server.url}${path}`);
  await alive();
};
/** What the first page still asks for. */
const left = async (): Promise<number> => {
  await open('/');
  return visit.page.locator('section[aria-labelledby=going] li', { hasText: 'To do' }).count();
};

describe('an empty start', () => {
  it('asks which site it is, in the browser own time zone, and goes on to the first machine', async () => {
    const { page } = visit;
    await page.goto(server.url);
    await ready('site');
    expect(await page.getByLabel('Time zone').inputValue()).toBe('Europe/London');
    await page.getByLabel('Name of the site').fill('Low Shed');
    await page.getByRole('button', { name: 'US', exact: true }).click();
    await page.getByRole('button', { name: 'cfm, inH2O, in' }).click();
    await page.getByLabel('Height above the sea').fill('1200 ft');
    await page.getByLabel('Initials').fill('mk');
    // A double click is one yard.
    await page.getByRole('button', { name: 'Start this yard' }).dblclick();
    await page.getByRole('heading', { name: 'No machine yet: enter the first one.' }).waitFor();
    await open('/site');
    expect(await page.getByLabel('Height above the sea').inputValue()).toBe('1200 ft');
    expect(await page.getByRole('button', { name: 'US', exact: true }).getAttribute('aria-pressed')).toBe('true');
    expect(await left()).toBe(5);
  });

  it('takes a machine that has run for years, with the duct of its kind', async () => {
    const { page } = visit;
    await open('/machines/new');
    await page.getByLabel('Tag', { exact: true }).fill('ls-01');
    await page.getByLabel(/^Kind/).first().selectOption('singleStageCollector');
    expect(await page.getByLabel('Bore of its hose or duct').inputValue()).toBe('4.9213 in');
    await page.getByLabel('Name', { exact: true }).fill('Collector at the saw');
    await page.getByLabel('Place').fill('Saw bay');
    await page.getByRole('textbox', { name: 'In use since' }).fill('2023-05-02');
    await page.getByLabel('Last collected').fill('softwood');
    await page.getByLabel('Initials').fill('mk');
    await page.getByRole('button', { name: 'Enter this machine' }).click();
    await page.waitForURL('**/m/LS-01/path**');
    expect(await left()).toBe(4);
  });

  it('takes a part and a meter, and refuses in a sentence what it has already', async () => {
    const { page } = visit;
    const addPart = async () => {
      await open('/stock');
      if (!(await page.getByLabel('Code, as on its box').first().isVisible()))
        await page.getByText('A new part').click();
      await page.getByLabel('Code, as on its box').first().fill('bag-100');
      await page.getByLabel('Name', { exact: true }).first().fill('Lower bag, 100 L');
      await page.getByLabel('On the shelf now').fill('6');
      await page.getByRole('button', { name: 'Add the part' }).click();
    };
    await addPart();
    await page.getByRole('link', { name: 'Lower bag, 100 L' }).waitFor();
    await addPart();
    await page.getByText('Another part has the code bag-100. Nothing was saved.').waitFor();
    await open('/instruments');
    await page.getByLabel('Name and serial number').fill('Vane meter, no. 4');
    await page.getByLabel('Reads').selectOption('velocity');
    await page.getByLabel('% of the reading').fill('2');
    await page.getByLabel('Step of its display').fill('0,01 m/s');
    await page.getByRole('textbox', { name: 'Calibration due' }).fill('2024-03-01');
    expect(await violations(page)).toEqual([]);
    await page.getByRole('button', { name: 'Add the meter' }).click();
    await page.getByRole('heading', { name: 'The one meter on file is out of calibration.' }).waitFor();
    expect(await left()).toBe(2);
  });

  it('puts a wrong tag right, and the label that is printed goes on leading there', async () => {
    const { page } = visit;
    await open('/m/LS-01/tag');
    const form = page.locator('form', { hasText: 'Old labels with LS-01' });
    await form.getByLabel('Tag', { exact: true }).fill('LS-10');
    await form.getByRole('button', { name: 'Correct the tag' }).click();
    await page.waitForURL('**/m/LS-10/edit');
    await page.goto(`${server.url}/m/ls-01/measure`);
    expect(page.url()).toBe(`${server.url}/m/LS-10/measure`);
    expect(visit.complaints).toEqual([]);
  });

  it('takes a copy of the records when asked, and says what it holds', async () => {
    const { page } = visit;
    await open('/backups');
    await page.getByRole('button', { name: 'Make a backup now' }).click();
    await page.locator('li', { hasText: 'Made by hand' }).waitFor();
    expect(await page.getByRole('main').innerText()).toContain('1 machine, 0 tests, 0 changes');
  });

  it('brings parts from a spreadsheet: what is wrong is said in its cell, then all come in, and go back as a whole', async () => {
    const { page } = visit;
    await open('/sheets?kind=parts');
    await ready('sheet');
    const bring = async (csv: string) => {
      await page.setInputFiles('input[type=file]', {
        name: 'parts.csv',
        mimeType: 'text/csv',
        buffer: Buffer.from(csv),
      });
      await page.getByLabel('Initials').fill('mk');
    };
    await bring('Part no;Description;Qty\nF-1;Main filter;two\nF-2;Fore filter;3');
    await page.getByText('"two" is not a number.').waitFor();
    await page.getByRole('button', { name: 'Take another' }).click();
    await bring('Part no;Description;Qty\nF-1;Main filter;2\nF-2;Fore filter;3');
    expect(await violations(page)).toEqual([]);
    await page.getByRole('button', { name: 'Check every row' }).click();
    await page.getByRole('button', { name: 'Import 2 parts' }).dblclick();
    await page.getByRole('heading', { name: '2 rows imported.' }).waitFor();
    await page.goto(`${server.url}/stock`);
    await page.getByRole('link', { name: 'Fore filter' }).waitFor();
    await open('/sheets?kind=parts');
    await ready('sheet');
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Yes, undo all 2 rows' }).click();
    await page.getByText('undone', { exact: true }).waitFor();
    await page.goto(`${server.url}/stock`);
    expect(await page.getByRole('link', { name: 'Fore filter' }).count()).toBe(0);
  });

  it('hands everything out as a bundle, and knows it again', async () => {
    const { page } = visit;
    await open('/bundles');
    const fetched = await page.request.get(`${server.url}/api/bundle`);
    expect(fetched.headers()['content-type']).toBe('application/zip');
    const buffer = await fetched.body();
    await page.setInputFiles('input[type=file]', { name: 'yard.zip', mimeType: 'application/zip', buffer });
    await page.getByLabel('Initials').fill('mk');
    await page.getByRole('button', { name: 'Check it first' }).click();
    await page.getByText('Everything in it is here already.').waitFor();
    expect(await violations(page)).toEqual([]);
    const half = buffer.subarray(0, buffer.length / 2);
    await page.setInputFiles('input[type=file]', { name: 'half.zip', mimeType: 'application/zip', buffer: half });
    await page.getByRole('button', { name: 'Check it first' }).click();
    await page.getByText('This is not a complete Moorwind export file').waitFor();
  });

  it('finds a machine by the code on its label, held before the camera', async () => {
    const film = join(mkdtempSync(join(tmpdir(), 'moorwind-camera-')), 'label.y4m');
    // A label printed before its tag was put right.
    filmLabel(film, `${server.url}/m/LS-01`);
    const seeing = await openBrowser(CAMERA_FLAGS(film));
    try {
      const { page } = await newVisit(seeing);
      await page.goto(`${server.url}/machines`);
      await page.getByRole('button', { name: 'Scan a label' }).click();
      await page.waitForURL(`${server.url}/m/LS-10`, { timeout: 30_000 });
    } finally {
      await seeing.close();
    }
  });

  it('takes a machine out of the yard, and brings it back', async () => {
    const { page } = visit;
    await open('/m/LS-10/retire');
    await page.getByLabel('Why, to whom').fill('worn out, emptied and wiped');
    await page.getByRole('button', { name: 'Take it out of the yard' }).click();
    await page.waitForURL('**/m/LS-10');
    await page.getByText('no new records can be added. worn out').waitFor();
    await open('/machines');
    await page.getByRole('heading', { name: 'Retired' }).waitFor();
    await open('/m/LS-10/retire');
    await page.getByRole('button', { name: 'Bring it back' }).click();
    await page.waitForURL('**/m/LS-10');
    expect(await page.getByText('no new records can be added').count()).toBe(0);
    expect(visit.complaints).toEqual([]);
  });

  it('brings a copy back while it runs: says what is lost, once, and others only wait', async () => {
    const { page } = visit;
    await open('/backups');
    const copy = page.locator('li', { hasText: 'Made by hand' });
    await copy.getByText('Restore this backup').click();
    await copy.getByText(/Would be lost: .*2 retirements/).waitFor();
    await copy.getByLabel('Replace the records with this backup').check();
    await copy.getByLabel('Initials').fill('mk');
    expect(await violations(page)).toEqual([]);
    const others = Array.from({ length: 12 }, () => fetch(`${server.url}/api/health`).then((r) => r.status));
    await copy.getByRole('button', { name: 'Restore it' }).dblclick();
    await page.waitForURL('**/backups?restored');
    expect(await Promise.all(others)).toEqual(Array.from({ length: 12 }, () => 200));
    // What it replaced is kept, once, and the records are those of then.
    expect(await page.locator('li', { hasText: 'Records replaced by a restore' }).count()).toBe(1);
    const log = await (await fetch(`${server.url}/m/LS-10/file`)).text();
    expect(log).toContain('Collector at the saw');
    expect(log).not.toContain('worn out, emptied and wiped');
    expect(visit.complaints).toEqual([]);
  });
});
