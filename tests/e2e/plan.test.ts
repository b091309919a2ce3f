import type { Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { newVisit } from '../support/browser';
import { runningYard } from '../support/running-yard';

const yard = runningYard();
const ready = (page: Page) => page.waitForSelector('html[data-plan=ready]', { timeout: 120_000 });
const opened = async (path: string) => {
  const { page } = await newVisit(yard.browser);
  await page.goto(`${yard.server.url}${path}`);
  return page;
};
const headline = (page: Page) => page.getByRole('heading', { level: 1 }).innerText();

describe('the plan of the yard', () => {
  it('tells how few openings do, what cannot be done for want of a part, and why an opening sits where it sits', async () => {
    const page = await opened('/plan');
    await ready(page);
    const [, openings, own] =
      /^(\d+) openings in 8 weeks instead of (\d+); \d+ cannot be done yet\.$/.exec(await headline(page)) ?? [];
    expect(Number(openings)).toBeLessThan(Number(own));
    expect(await page.locator('main').innerText()).toContain('Carbon cell of CR-09: 1 more Carbon cell is needed now.');
    await page
      .getByRole('button', { name: /^CR-09.*HEPA/ })
      .first()
      .click();
    expect(await page.getByRole('region', { name: /^CR-09/ }).innerText()).toMatch(
      /in one opening instead of on its own on .*: saves \d/,
    );
  });

  it('an opening is moved by the keyboard, stays fixed there after a reload, and is planned around until it is set free', async () => {
    const page = await opened('/plan');
    await ready(page);
    await page.getByLabel('Initials').fill('MK');
    const chip = page.getByRole('button', { name: /^CR-20, / }).first();
    const before = await chip.getAttribute('aria-label');
    await chip.focus();
    await page.keyboard.press('ArrowRight');
    await expect
      .poll(() =>
        page
          .getByRole('button', { name: /^CR-20, / })
          .first()
          .getAttribute('aria-label'),
      )
      .not.toBe(before);
    await ready(page);
    const moved = await page
      .getByRole('button', { name: /^CR-20, / })
      .first()
      .getAttribute('aria-label');
    await page.reload();
    await ready(page);
    expect(
      await page
        .getByRole('button', { name: /^CR-20, / })
        .first()
        .getAttribute('aria-label'),
    ).toBe(moved);
    await page
      .getByRole('button', { name: /^CR-20, / })
      .first()
      .click();
    expect(await page.locator('main').innerText()).toContain('Fixed on this day by hand.');
    await page.getByRole('button', { name: 'Unfix' }).click();
    await expect
      .poll(() =>
        page
          .getByRole('button', { name: /^CR-20, / })
          .first()
          .getAttribute('aria-label'),
      )
      .toBe(before);
  });

  it('a longer horizon is planned off the page and can be stopped with a plan in hand', async () => {
    const page = await opened('/plan');
    await ready(page);
    await page.getByRole('button', { name: '52 weeks' }).click();
    const stop = page.getByRole('button', { name: 'Stop here' });
    if (await stop.isVisible().catch(() => false)) await stop.click({ timeout: 2000 }).catch(() => undefined);
    await ready(page);
    await expect.poll(() => headline(page)).toContain('in 52 weeks instead of');
  });

  it('an order lets the part in: the stock desk says what to order, the plan counts on its day', async () => {
    const page = await opened('/stock');
    const gas = page.getByRole('row', { name: 'Carbon cell' }).first();
    expect(await gas.innerText()).toMatch(/Order \d+ packs?/);
    await page.waitForSelector('html[data-register=ready]');
    await page.getByRole('searchbox', { name: 'Search' }).fill('carbon');
    await page.getByText(/^\d+ of \d+$/).waitFor();
    await gas.getByRole('link').click();
    await page.waitForURL('**/stock/parts/*');
    await page.waitForFunction(() => document.querySelectorAll('astro-island[ssr]').length === 0);
    await page.getByLabel('Ordered by').fill('MK');
    await page.getByRole('button', { name: 'Ordered', exact: true }).dblclick();
    const orders = () => page.getByText(/\d on order, due/);
    await orders().first().waitFor();
    await page.goto(`${yard.server.url}/stock`);
    expect((await gas.innerText()).match(/on order, due/g)).toHaveLength(1);
    await page.goto(`${yard.server.url}/plan`);
    await ready(page);
    expect(await page.locator('main').innerText()).not.toContain('1 more Carbon cell');
  });

  it("a look is one tap on the machine's plan, and its rules can be changed there", async () => {
    const page = await opened('/m/CR-07/plan');
    await page.waitForSelector('html[data-wear=ready]');
    const log = page.getByRole('region', { name: 'Log its work' });
    await log.getByLabel('Initials').fill('MK');
    await page.getByRole('button', { name: 'a quarter' }).first().click();
    await page
      .getByText(/1 look or test since/)
      .first()
      .waitFor();
    await page.locator('summary', { hasText: 'Tank bag:' }).click();
    await page.getByLabel('Add a rule to the tank bag').selectOption({ index: 1 });
    await page.locator('details[open]').getByLabel('Initials').fill('MK');
    await page.locator('details[open]').getByRole('button', { name: 'Save these rules' }).click();
    await page.locator('summary', { hasText: /Tank bag:.*at 50 % full/ }).waitFor();
  });
});
