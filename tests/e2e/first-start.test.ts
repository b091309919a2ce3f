import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newVisit, openBrowser, violations, type Visit } from '../support/browser';
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
    await page.getByLabel('Kind: its path').selectOption('singleStageCollector');
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
    await page.getByText('BAG-100, no bin').waitFor();
    await addPart();
    await page.getByText('There is a part bag-100 already. Nothing was saved.').waitFor();
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
    const form = page.locator('form', { hasText: 'Labels with LS-01' });
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
    await page.getByRole('button', { name: 'Take a copy now' }).click();
    await page.locator('li', { hasText: 'Asked for' }).waitFor();
    expect(await page.getByRole('main').innerText()).toContain('1 machine, 0 tests, 0 changes');
  });
});
