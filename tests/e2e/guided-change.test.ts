import type { Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { newVisit } from '../support/browser';
import { runningYard } from '../support/running-yard';

const yard = runningYard();

const ready = (page: Page) => page.waitForSelector('html[data-job=ready]', { timeout: 15_000 });
const stepOf = (page: Page) => page.locator('#step').innerText();

const begin = async (tag: string, stage: string, way?: RegExp) => {
  const { page } = await newVisit(yard.browser);
  await page.goto(`${yard.server.url}/m/${tag}/job`);
  await ready(page);
  await page.getByRole('button', { name: stage, exact: true }).click();
  if (way) await page.getByRole('button', { name: way }).click();
  await page.getByLabel('Initials').fill('MK');
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.waitForSelector('#step');
  await ready(page);
  return page;
};

/** Answers every step until the text of one is met, or to the end; says what was seen on the way. */
const walk = async (page: Page, until = /All steps are done/): Promise<readonly string[]> => {
  const seen: string[] = [];
  for (let i = 0; i < 60; i += 1) {
    const text = await stepOf(page);
    if (until.test(text)) return seen;
    seen.push(text);
    const yes = page.getByRole('button', { name: 'Yes', exact: true });
    await ((await yes.count()) > 0 ? yes : page.getByRole('button', { name: 'Done', exact: true })).click();
    await page.waitForFunction((old) => document.querySelector('#step')?.textContent !== old, text, { timeout: 10_000 }).catch(() => undefined);
    await ready(page);
  }
  throw new Error(`no end after ${seen.join(' | ')}`);
};
const indexOf = (seen: readonly string[], what: RegExp) => seen.findIndex((s) => what.test(s));

describe('guided changes, walked on the page', () => {
  it('the contained change of an H main filter, from the hazard question to the integrity test, marked while it is open and into the file', async () => {
    const page = await begin('CR-05', 'Main filter');
    const first = await walk(page, /^Old main filter into its bag/);
    expect(await page.getByText('open, do not run').count()).toBe(1);
    // The browser is closed in mid-step: the job is where it was.
    await page.reload();
    await ready(page);
    expect(await stepOf(page)).toMatch(/^Old main filter into its bag/);
    const seen = [...first, ...(await walk(page))];
    const order = [/collected since/, /respirator/, /area off/, /coverall/, /plug\.$/, /Plug the inlet/, /^Open at/, /into its bag/, /damp cloth/, /Decontaminate/, /arrow/, /^Close at/, /plug out of the inlet/, /Label the waste/, /Integrity test/].map((r) => indexOf(seen, r));
    expect(order.every((i) => i >= 0)).toBe(true);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(await page.getByText('open, do not run').count()).toBe(0);
    await page.getByRole('button', { name: /^Finish/ }).click();
    await page.waitForURL('**/file');
    expect(await page.locator('main').innerText()).toContain('Main filter changed');
  });

  it('a tank bag with a second vacuum: off, then latch; another pair of hands is told who has it', async () => {
    const page = await begin('CR-07', 'Tank bag', /second vacuum/);
    const seen = await walk(page, /Set the head back on/);
    expect(indexOf(seen, /Start the clean machine/)).toBeGreaterThan(indexOf(seen, /Service|service hose/));
    await page.getByLabel('Initials').fill('TO');
    await page.getByRole('button', { name: 'Done', exact: true }).click();
    await page.getByText('Somebody else has this job in hand.').waitFor();
    await ready(page);
    await page.getByRole('button', { name: /take it over/ }).click();
    await page.getByText('in hand: TO').waitFor();
    await ready(page);
    const rest = await walk(page);
    expect(indexOf(rest, /^Switch off/)).toBeLessThan(indexOf(rest, /Latch/));
  });

  it('asbestos stops it with the reason, and what was typed is still there', async () => {
    const { page } = await newVisit(yard.browser);
    await page.goto(`${yard.server.url}/m/CR-02/job`);
    await ready(page);
    await page.getByLabel('Last collected').fill('asbestos cord');
    await page.getByRole('button', { name: 'Paper bag', exact: true }).click();
    await page.getByLabel('Initials').fill('MK');
    await page.getByRole('button', { name: 'Begin' }).click();
    await page.getByText('Moorwind guides no test and no opening on it').waitFor();
    expect(await page.getByLabel('Last collected').inputValue()).toBe('asbestos cord');
  });
});
