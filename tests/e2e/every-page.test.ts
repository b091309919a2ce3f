import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newVisit, openBrowser, violations } from '../support/browser';
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
  '/m/CR-99',
  '/nothing-here',
];

describe.each(['moor-day', 'moor-night'])('every page in %s', (theme) => {
  it.each(PAGES)('%s passes axe at WCAG AA, fits its width and complains of nothing', async (path) => {
    const size = theme === 'moor-day' ? { width: 1280, height: 800 } : { width: 390, height: 844 };
    const { page, complaints } = await newVisit(browser, size);
    await page.context().addCookies([{ name: 'mw_theme', value: theme, url: full.url }]);
    await page.goto(`${full.url}${path}`);
    // Every island in sight has come to life: quicker than waiting for a silent line, and surer.
    await page.waitForFunction(
      () => document.querySelectorAll('astro-island[ssr]:not([client="visible"])').length === 0,
    );
    expect(await page.title()).toContain('Moorwind');
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
    // Tall enough that no bar which stays in sight lies over half a button: it moves away when a person scrolls.
    await page.setViewportSize({ ...size, height: 2600 });
    expect(await violations(page)).toEqual([]);
    expect(complaints).toEqual([]);
    await page.context().close();
  });
});

describe('an empty installation', () => {
  it.each(['/', '/round', '/plan', '/stock'])('%s says what to do first', async (path) => {
    const { page, complaints } = await newVisit(browser);
    await page.goto(`${empty.url}${path}`);
    expect(await page.getByRole('main').innerText()).toMatch(/No machine yet|No part in the catalogue yet/);
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
