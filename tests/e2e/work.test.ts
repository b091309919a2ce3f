import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newVisit, openBrowser, type Visit, violations } from '../support/browser';
import { type RunningServer, startServer } from '../support/server';

// A joiner's question, from the words typed to the machine that goes.

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

const answer = () => visit.page.locator('[data-answer]').innerText();

describe('which machine for this work', () => {
  it('answers a question in one line, and asks of the dust what it must know', async () => {
    const { page } = visit;
    await page.goto(server.url);
    await page.waitForSelector('html[data-shell=ready]');
    await page.keyboard.press('k');
    await page.waitForURL('**/work');
    await page.getByLabel('What becomes dust').fill('old primer');
    await page.locator('select[name=tool]').selectOption('sander');
    await page.locator('select[name=place]').selectOption('cabin');
    await page.getByRole('button', { name: 'Which machine?' }).click();
    await page.locator('[data-answer]').waitFor();
    expect(await answer()).toMatch(/^Take CR-05 Oystercatcher the Elder, on /);
    expect(await page.getByRole('main').innerText()).toContain('No compressed air');
    expect(await violations(page)).toEqual([]);
    // Another dust, of which something must be asked: until then it is the worst it could be.
    await page.getByLabel('What becomes dust').fill('old plaster');
    await page.getByRole('button', { name: 'Which machine?' }).click();
    await page.getByText('Taken as the worst it could be until this is answered').waitFor();
    const before = await page.getByRole('link', { name: 'No', exact: true }).count();
    await page.getByRole('link', { name: 'No', exact: true }).first().click();
    await expect.poll(() => page.getByRole('link', { name: 'No', exact: true }).count()).toBe(before - 1);
  });

  it('draws the hoses, judges the plates, and says what it could not read', async () => {
    const { page } = visit;
    await page.goto(`${server.url}/work?q=filler&tool=sander&size=3+m`);
    await page.getByText('The size of the tool lies between 5 mm and 1000 mm.').waitFor();
    await page.getByText('Will the socket hold? Read the plates').click();
    for (const [label, typed] of [
      ['At the socket', '215 V'],
      ['Breaker', '16'],
      ['Machine draws', '5'],
      ['Tool draws', '2.5'],
      ['Lead', '40'],
      ['Its section', '1,5'],
    ] as const)
      await page.getByLabel(label, { exact: true }).fill(typed);
    await page.getByRole('button', { name: 'Which machine?' }).click();
    const circuit = page.getByRole('region', { name: 'Circuit' });
    await circuit.waitFor();
    expect(await circuit.innerText()).toMatch(/Both together, against the breaker: 7.5 A of 16 A\./);
    await page.getByRole('img', { name: /Air at the tool and velocity/ }).scrollIntoViewIfNeeded();
    expect(await page.locator('[role=img] svg path').count()).toBeGreaterThan(4);
    expect(await violations(page)).toEqual([]);
  });

  it('starts: the machine has the dust on record once, and is opened by it', async () => {
    const { page } = visit;
    await page.goto(`${server.url}/work?q=lead+paint&tool=sander&m=CR-05`);
    await page.waitForFunction(() => document.querySelectorAll('astro-island[ssr][client=load]').length === 0);
    await page.getByRole('region', { name: 'Start' }).getByLabel('Initials').fill('mk');
    await page.getByRole('button', { name: 'CR-05 goes to this work' }).dblclick();
    await page.waitForURL('**/m/CR-05/dust');
    expect((await page.getByRole('main').innerText()).match(/lead paint/g)?.length).toBeGreaterThan(0);
  });

  it('a tool of the yard is entered once, named in the question, and gone from it when it is no longer used', async () => {
    const { page } = visit;
    await page.goto(`${server.url}/tools`);
    await page.getByText('A new tool', { exact: true }).click();
    await page.waitForFunction(() => document.querySelectorAll('astro-island[ssr]').length === 0);
    await page.getByLabel('Name', { exact: true }).fill('Mortar raker, yellow');
    await page.getByLabel('Kind of tool').selectOption('mortarRaker');
    await page.getByLabel('Wheel', { exact: true }).fill('5 in');
    await page.getByRole('button', { name: 'Add the tool' }).dblclick();
    await page.getByText('3 tools of your own.').waitFor();
    await page.goto(`${server.url}/work?q=concrete`);
    await page.locator('select[name=tool]').selectOption({ label: 'Mortar raker, yellow' });
    await page.getByRole('button', { name: 'Which machine?' }).click();
    // 125 cfm is 59 L/s.
    await page.getByText(/59\.0 L\/s at each tool: 25 cfm an inch of wheel/).waitFor();
  });

  it('a continuity reading that reads open is told before anything else moves', async () => {
    const { page } = visit;
    await page.goto(`${server.url}/m/CR-05/bonding`);
    await page.waitForFunction(() => document.querySelectorAll('astro-island[ssr][client=load]').length === 0);
    await page.getByLabel('The meter read open: no way to earth').check();
    await page.getByRole('button', { name: 'Record the reading' }).dblclick();
    await page.getByText(/^CR-05 read open today/).waitFor();
    expect(await page.getByText('open', { exact: true }).count()).toBe(1);
    await page.goto(`${server.url}/work?q=lead+paint&tool=sander&m=CR-05`);
    await page.getByText(/^First: its continuity read open/).waitFor();
  });

  it('aluminium goes to no machine, and nobody is told what to put in', async () => {
    const { page } = visit;
    await page.goto(`${server.url}/work?q=aluminium&tool=grinder`);
    expect(await answer()).toMatch(/not with any machine here/);
    expect(await page.getByRole('heading', { name: /What goes into/ }).count()).toBe(0);
    expect(await page.getByRole('region', { name: 'Start' }).count()).toBe(0);
    expect(visit.complaints).toEqual([]);
  });
});
