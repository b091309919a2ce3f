import type { Browser, BrowserContext, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { complaintsOf, LOOKS, newVisit, openBrowser, violations } from '../support/browser';
import { type RunningServer, startServer } from '../support/server';

let full: RunningServer;
let empty: RunningServer;
let browser: Browser;

beforeAll(async () => {
  [full, empty] = await Promise.all([startServer({ seeded: true }), startServer({ seeded: false })]);
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await Promise.all([full.stop(), empty.stop()]);
});

const PAGES = [
  '/',
  '/round',
  '/stock',
  '/m/CR-04',
  '/m/CR-05',
  '/m/CR-14',
  '/m/CR-16',
  '/m/CR-04/measure',
  '/m/CR-01/measure',
  '/m/CR-04/find',
  '/m/CR-07/find',
  '/m/CR-05/indicator',
  '/m/CR-04/cases/1',
  '/m/CR-07/job',
  '/m/CR-12/job',
  '/m/CR-12/jobs/1',
  '/m/CR-07/card?kind=change&stage=3&school=secondVacuum&hazard=contained',
  '/m/CR-07/change',
  '/m/CR-07/plan',
  '/plan',
  '/outbox',
  '/dusts',
  '/people',
  '/figures',
  '/site',
  '/backups',
  '/instruments',
  '/instruments/1',
  '/upgrades',
  '/m/CR-01/upgrades',
  '/m/CR-02/upgrade?c=separator:0.05:6:0.9~hepa:0.9&price=60',
  '/ring?filter=17.5+in&rim=19.25+in&gasket=16+in&gasketWidth=0.75+in&sheet=18+mm&screw=4+mm',
  '/ring/print?filter=17.5+in&rim=19.25+in&gasket=16+in&gasketWidth=0.75+in&sheet=18+mm&screw=4+mm',
  '/tools',
  '/tools/own00000001',
  '/m/CR-05/bonding',
  '/stock/parts/1',
  '/audit',
  '/machines',
  '/m/CR-05/dust',
  '/m/CR-12/dust',
  '/m/CR-04/file',
  '/m/CR-01/changes/1',
  '/m/CR-01/correct/test/1',
  '/m/CR-01/correct/change/1',
  '/m/CR-18',
  '/m/CR-04/path',
  '/m/CR-16/path',
  '/m/CR-05/filters',
  '/m/CR-14/filters',
  '/m/CR-07/edit',
  '/machines/new',
  '/m/CR-04/trend',
  '/m/CR-01/compare?test=1&test=2',
  '/sheets?kind=tests',
  '/bundles',
  '/labels?size=a4-8',
  '/machines/list',
  '/waste',
  '/m/CR-04/report',
  '/m/CR-05/examination',
  '/m/CR-20/retire',
  '/work',
  '/work?q=concrete&tool=grinder&size=125+mm&lead=40&section=1.5&machineA=5&breaker=16',
  '/work-yard',
  '/look-ups',
  '/m/CR-99',
  '/nothing-here',
];

/** One of each kind of page: what colours and sizes decide is the same on the others. */
const BY_NIGHT = new Set([
  '/round',
  '/m/CR-04',
  '/m/CR-04/measure',
  '/m/CR-04/cases/1',
  '/m/CR-07/job',
  '/m/CR-12/jobs/1',
  '/plan',
  '/stock',
  '/site',
  '/m/CR-04/file',
  '/m/CR-04/path',
  '/m/CR-07/edit',
  '/m/CR-04/trend',
  '/m/CR-05/filters',
]);

const DAY = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

/** Tall enough that no bar which stays in sight lies over half a button: it moves away when a person scrolls. */
const tall = (size: typeof DAY) => ({ ...size, height: 2600 });

const overWidth = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);

describe('every page', () => {
  // One context: the scripts the pages share are fetched once, as in a browser.
  let day: BrowserContext;
  beforeAll(async () => {
    day = await browser.newContext({ viewport: DAY, locale: 'en-GB', timezoneId: 'Europe/London' });
  });
  afterAll(() => day.close());

  it.each(PAGES)('%s passes axe at WCAG AA, fits desk and phone, complains of nothing', async (path) => {
    const page = await day.newPage();
    const complaints = complaintsOf(page);
    await page.goto(`${full.url}${path}`);
    // Every island in sight has come to life: quicker than waiting for a silent line, and surer.
    await page.waitForFunction(
      () => document.querySelectorAll('astro-island[ssr]:not([client="visible"])').length === 0,
    );
    expect(await page.title()).toContain('Moorwind');
    expect(await overWidth(page)).toBeLessThanOrEqual(0);
    await page.setViewportSize(tall(DAY));
    expect(await violations(page)).toEqual([]);
    // By night, and on a phone: the names and roles are the same.
    await page.setViewportSize(PHONE);
    await page.evaluate(() => (document.documentElement.dataset['theme'] = 'moor-night'));
    expect(await overWidth(page)).toBeLessThanOrEqual(0);
    if (BY_NIGHT.has(path)) {
      await page.setViewportSize(tall(PHONE));
      expect(await violations(page, LOOKS)).toEqual([]);
    }
    expect(complaints).toEqual([]);
    await page.close();
  });

  it('comes by night as it was chosen, and on a phone', async () => {
    const { page, complaints } = await newVisit(browser, PHONE);
    await page.context().addCookies([{ name: 'mw_theme', value: 'moor-night', url: full.url }]);
    await page.goto(`${full.url}/m/CR-04`);
    await page.waitForSelector('html[data-shell=ready]');
    expect(await page.getAttribute('html', 'data-theme')).toBe('moor-night');
    await page.setViewportSize(tall(PHONE));
    expect(await violations(page)).toEqual([]);
    expect(complaints).toEqual([]);
    await page.context().close();
  });
});

describe('an empty installation', () => {
  it.each([
    ['/', 'Which site is this?'],
    ['/round', 'No machine yet'],
    ['/plan', 'No machine yet'],
    ['/stock', 'No part in the catalogue yet'],
    ['/instruments', 'No meter on file yet'],
    ['/tools', 'No tool of your own on file yet'],
    ['/upgrades', 'No upgrade planned yet'],
    ['/machines/new', 'A new machine'],
  ])('%s says what to do first', async (path, said) => {
    const { page, complaints } = await newVisit(browser);
    await page.goto(`${empty.url}${path}`);
    expect(await page.getByRole('main').innerText()).toContain(said);
    expect(await violations(page)).toEqual([]);
    expect(complaints).toEqual([]);
    await page.context().close();
  });
});

describe('keys, help and units', () => {
  it('opens the help sheet with ?, goes by single keys, and switches the units', async () => {
    const { page } = await newVisit(browser);
    await page.goto(`${full.url}/m/CR-04`);
    await page.waitForSelector('html[data-shell=ready]');
    await page.keyboard.press('?');
    const sheet = page.getByRole('dialog');
    expect(await sheet.innerText()).toContain('Jump to a machine by its tag');
    expect(await violations(page)).toEqual([]);
    await page.keyboard.press('Escape');
    // The sheet takes every key until it is gone.
    await sheet.waitFor({ state: 'hidden' });
    await page.keyboard.press('p');
    await page.waitForURL('**/m/CR-04/plan');
    await page.goto(`${full.url}/m/CR-04`);
    await page.waitForSelector('html[data-shell=ready]');
    expect(await page.getByRole('main').innerText()).toContain('L/s');
    await page.keyboard.press('u');
    await expect.poll(() => page.getByRole('main').innerText()).toContain('fpm');
  });
});
