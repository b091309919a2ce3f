// npm run shots: the pictures of docs/screenshots, made from the demo yard on a server of its own.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { newVisit, openBrowser } from '../tests/support/browser';
import { startServer } from '../tests/support/server';

const folder = join(process.cwd(), 'docs/screenshots');
mkdirSync(folder, { recursive: true });
const server = await startServer({ seeded: true });
const browser = await openBrowser();

const take = async (name: string, page: Page) => {
  await page.waitForTimeout(300);
  await page.screenshot({ path: join(folder, `${name}.png`) });
};

const still = async (name: string, path: string, size?: { width: number; height: number }) => {
  const { page } = await newVisit(browser, size);
  await page.goto(`${server.url}${path}`, { waitUntil: 'networkidle' });
  await take(name, page);
  await page.context().close();
};

const PHONE = { width: 390, height: 844 };

const typeReadings = async (page: Page, readings: readonly string[]) => {
  await page.waitForSelector('html[data-measure=ready]');
  for (const reading of readings) {
    await page.fill('#pad', reading);
    await page.keyboard.press('Enter');
  }
  for (const name of await page.locator('button[role=checkbox]').allInnerTexts()) {
    await page.getByRole('checkbox', { name, exact: true }).click();
  }
  await page.getByLabel('Initials').fill('MK');
};

const story = async () => {
  const { page } = await newVisit(browser);
  await page.goto(`${server.url}/m/CR-04/measure`);
  await typeReadings(page, ['21.3 cfm', '21.1', '9.95 L/s']);
  await take('measure', page);
  await page.getByRole('button', { name: 'Record the test' }).click();
  await page.waitForURL('**/file?*');
  await take('file', page);
  await page.goto(`${server.url}/m/CR-04/change`);
  await page.waitForSelector('html[data-change=ready]');
  await page.getByRole('button', { name: /^Fleece bag due/ }).click();
  await page.getByRole('button', { name: /^Test/ }).click();
  await page.getByLabel('How it was contained').fill('mask on, bag tied in the machine, damp wipe');
  await take('change', page);
  await page.getByRole('button', { name: 'Record the change' }).click();
  await page.waitForURL('**/changes/*');
  await page.getByRole('link', { name: 'Measure again' }).click();
  await typeReadings(page, ['14.3 L/s', '14.2', '14.4', '14.3']);
  await page.getByRole('button', { name: 'Record the test' }).click();
  await page.waitForURL('**/changes/*');
  await page.context().close();
};

const airflowBench = async () => {
  const { page } = await newVisit(browser);
  await page.goto(`${server.url}/m/CR-01/trend`);
  await page.waitForSelector('html[data-trend=ready]');
  await take('trend', page);
  await page.context().close();
};

const airPaths = async () => {
  const { page } = await newVisit(browser);
  await page.goto(`${server.url}/m/CR-04`);
  await page.waitForSelector('html[data-stairs=ready]');
  await page.goto(`${server.url}/m/CR-04/path`);
  await take('air-path', page);
  await page.goto(`${server.url}/m/CR-05/filters`);
  await take('filter-card', page);
  await page.goto(`${server.url}/m/CR-07/edit`);
  await page.waitForSelector('html[data-edit=ready]');
  await page.getByRole('button', { name: 'HEPA', exact: true }).click();
  for (let i = 0; i < 2; i += 1) await page.getByRole('button', { name: 'HEPA: towards the tool' }).click();
  await take('machine-editor', page);
  await page.context().close();
};

/** The open case of the demo: the next test, and a repair that is due; the report of a case. */
const finding = async () => {
  const { page } = await newVisit(browser);
  await page.goto(`${server.url}/m/CR-04/find`);
  await page.waitForSelector('html[data-find=ready]');
  await take('find', page);
  await page.goto(`${server.url}/m/CR-04/cases/1`);
  await take('case-report', page);
  await page.context().close();
};

/** A guided change, at a seat that is looked at while a second vacuum draws the tank's air. */
const guided = async () => {
  const { page } = await newVisit(browser);
  const ready = () => page.waitForSelector('html[data-job=ready]');
  await page.goto(`${server.url}/m/CR-07/job`);
  await ready();
  await page
    .getByRole('group', { name: /What is done/ })
    .getByRole('button', { name: 'Tank bag' })
    .click();
  await page.getByRole('button', { name: /second vacuum/ }).click();
  await page.getByLabel('Initials').fill('MK');
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.waitForSelector('#step');
  for (let text = ''; !/collar/.test(text); text = await page.locator('#step').innerText()) {
    await ready();
    const old = await page.locator('#step').innerText();
    if (/collar/.test(old)) break;
    await page
      .getByRole('button', { name: /^(Yes|Taken|Done)$/ })
      .first()
      .click();
    await page.waitForFunction((was) => document.querySelector('#step')?.textContent !== was, old);
  }
  await ready();
  await take('job', page);
  await page.context().close();
};

await still('round', '/');
await still('bench', '/m/CR-04');
await still('board-phone', '/', PHONE);
await still('plan', '/plan');
await still('machine-plan', '/m/CR-04/plan');
await still('stock', '/stock');
await still('work', '/work?q=filler+over+old+primer&tool=sander&place=cabin&hours=3');
await still('upgrade', '/m/CR-02/upgrade?c=separator:0.05:6:0.9&price=60&added=10');
await still('dust', '/m/CR-12/dust');
await airPaths();
await airflowBench();
await finding();
await story();
await guided();
await browser.close();
await server.stop();
