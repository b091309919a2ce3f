import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newVisit, openBrowser, type Visit, violations } from '../support/browser';
import { paintedIn } from '../support/pdf-boxes';
import { type RunningServer, startServer } from '../support/server';

// A change from the question to its proof, and the ring that was cut for it.

let server: RunningServer;
let browser: Browser;
let visit: Visit;
beforeAll(async () => {
  server = await startServer({ seeded: true });
  browser = await openBrowser();
  visit = await newVisit(browser);
});
afterAll(async () => {
  await browser.close();
  await server.stop();
});

const RING =
  'filter=17.5+in&rim=19.25+in&gasket=16+in&gasketWidth=0.75+in&sheet=18+mm&screw=4+mm&boardWidth=600+mm&boardHeight=400+mm';
const hydrated = () =>
  visit.page.waitForFunction(() => document.querySelectorAll('astro-island[ssr]:not([client=visible])').length === 0);

/** Readings on the pad of a shop vacuum, with every condition ticked. */
const measure = async (typed: readonly string[]) => {
  const { page } = visit;
  await page.goto(`${server.url}/m/CR-02/measure`);
  await page.waitForSelector('html[data-measure=ready]');
  for (const reading of typed) {
    await page.fill('#pad', reading);
    await page.keyboard.press('Enter');
  }
  for (const name of await page.locator('button[role=checkbox]').allInnerTexts())
    await page.getByRole('checkbox', { name, exact: true }).click();
  await page.getByLabel('Initials').fill('MK');
  await page.getByRole('button', { name: 'Record the test' }).click();
  await page.waitForURL('**/file?*');
};

describe('the upgrade desk', () => {
  it('puts a shop vacuum through three stages, each with what it costs, and what each could be read wrong by', async () => {
    const { page } = visit;
    await page.goto(`${server.url}/m/CR-02/upgrade`);
    const add = async (name: string, fields: Readonly<Record<string, string>>) => {
      const change = page.locator('details', { hasText: name }).first();
      await change.locator('summary').click();
      for (const [key, value] of Object.entries(fields)) await change.locator(`input[name=${key}]`).fill(value);
      await change.getByRole('button', { name: 'Work it out' }).click();
    };
    await add('A fine-dust layer in front', { areaM2: '0.4 m2' });
    await page.locator('[data-gain]').waitFor();
    await add('A HEPA cartridge behind', { areaM2: '10 ft2' });
    await add('A cyclone in front', { inletBoreM: '50 mm', lossK: '6', share: '90' });
    expect(await page.locator('[data-gain]').innerText()).toMatch(/^Less air: /);
    const main = await page.getByRole('main').innerText();
    for (const said of ['It carries no class, and this gives it none', 'Some fit a separator first of all', 'fpm)'])
      expect(main).toContain(said);
    expect(await violations(page)).toEqual([]);
    // A figure that is not believed loses nothing that was typed before.
    await add('Another hose', { boreM: '36 mm', lengthM: '9 km' });
    expect(await page.getByRole('alert').innerText()).toMatch(/not readable|not believed|unit/);
    expect(await page.getByRole('link', { name: 'Leave it out' }).count()).toBe(3);
  });

  it('plans a wider hose once, wants the test before, books it, proves it, and undoes it', async () => {
    const { page } = visit;
    await page.goto(`${server.url}/m/CR-02/upgrade?c=hose:0.05:3&price=40`);
    await hydrated();
    await page.getByLabel('What for').fill('more air at the saw');
    await page.getByLabel('Initials').fill('mk');
    await page.getByRole('button', { name: 'Keep this plan' }).dblclick();
    await page.waitForURL('**/upgrades');
    await page.getByText('1 upgrade', { exact: true }).waitFor();
    await measure(['39.0 L/s', '39.2', '38.9', '39.1']);
    await page.goto(`${server.url}/m/CR-02/upgrades`);
    await page.getByText('Make it, or drop it').click();
    await hydrated();
    await page.getByLabel('Everything in the list is done, and nothing else.').check();
    await page.getByRole('button', { name: 'It is made' }).dblclick();
    await page.getByText('Now measure it the same way as before.').waitFor();
    await measure(['39.0 L/s', '39.3', '38.8', '39.1']);
    await page.goto(`${server.url}/m/CR-02/upgrades`);
    await page.getByText('It did less than predicted.').waitFor();
    expect(await violations(page)).toEqual([]);
    await page.getByText('Undo it', { exact: true }).click();
    await hydrated();
    await page.getByLabel('Every part is back where it was, in its seat.').check();
    await page.getByRole('button', { name: 'It is undone' }).click();
    await page.getByText('Undone.').first().waitFor();
    await page.goto(`${server.url}/upgrades`);
    const record = await page.getByRole('main').innerText();
    expect(record).toContain('CR-02');
    expect(record).toContain('CR-01');
  });

  it('draws the ring, gives it as files, and prints it at full size: the control square is 100 mm', async () => {
    const { page } = visit;
    await page.goto(`${server.url}/ring?${RING}`);
    expect(await page.getByRole('heading', { level: 1 }).innerText()).toBe(
      'One ring inside the rim: 22.2 mm of gap each side.',
    );
    expect(await violations(page)).toEqual([]);
    for (const [kind, type] of [
      ['svg', 'image/svg+xml'],
      ['dxf', 'image/vnd.dxf'],
    ] as const) {
      const file = await fetch(`${server.url}/api/ring.${kind}?${RING}`);
      expect([file.status, file.headers.get('content-type')]).toEqual([200, type]);
    }
    expect((await fetch(`${server.url}/api/ring.svg?filter=1`)).status).toBe(422);
    await page.goto(`${server.url}/ring/print?${RING}`);
    const { boxes, pages } = paintedIn(await page.pdf({ format: 'A4', preferCSSPageSize: false }));
    const mm = (points: number) => (points * 25.4) / 72;
    const square = boxes.filter((b) => Math.abs(mm(b.width) - 100) < 0.5 && Math.abs(mm(b.height) - 100) < 0.5);
    expect(square.length).toBeGreaterThan(0);
    for (const b of square) expect(Math.abs(mm(b.width) - mm(b.height))).toBeLessThan(0.1);
    // Three by three pages of drawing, and the one with the square.
    expect(pages).toBe(10);
    await page.goto(
      `${server.url}/ring?filter=19.25+in&rim=19.25+in&gasket=16+in&gasketWidth=0.75+in&sheet=18+mm&screw=4+mm`,
    );
    expect(await page.getByRole('alert').innerText()).toMatch(/as wide as the rim/);
  });
});
