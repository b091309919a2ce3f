import type { Browser, Locator } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newVisit, openBrowser, type Visit } from '../support/browser';
import { type RunningServer, startServer } from '../support/server';

/**
 * Seconds of a hand, by the keystroke-level model: a key of somebody who types a little, pointing and clicking, making up
 * one's mind before each. Source: Card, Moran and Newell, The Keystroke-Level Model, 1980 (K 0.28, P 1.1, B 0.2, M 1.35),
 * from memory. Reading a page that is new: 20 s, from no source.
 */
const SECONDS = { key: 0.28, click: 1.1 + 0.2 + 1.35, page: 20 };

let server: RunningServer;
let browser: Browser;
let visit: Visit;
const done = { keys: 0, clicks: 0, pages: 0 };

beforeAll(async () => {
  server = await startServer({ seeded: false });
  browser = await openBrowser();
  visit = await newVisit(browser);
  visit.page.setDefaultTimeout(10_000);
});
afterAll(async () => {
  await browser.close();
  await server.stop();
});

const alive = () =>
  visit.page.waitForFunction(() => document.querySelectorAll('astro-island[ssr]:not([client="visible"])').length === 0);
const arrive = async () => {
  done.pages += 1;
  await visit.page.waitForLoadState();
  await alive();
};
const click = async (what: Locator) => {
  done.clicks += 1;
  await what.click();
};
const type = async (what: Locator, text: string) => {
  if ((await what.inputValue()) === text) return;
  done.clicks += 1;
  done.keys += text.length;
  await what.fill(text);
};
const choose = async (what: Locator, option: string) => {
  done.clicks += 2;
  await what.selectOption(option);
};
const label = (text: string | RegExp) => visit.page.getByLabel(text, { exact: typeof text === 'string' }).first();
const button = (name: string | RegExp) => visit.page.getByRole('button', { name });
/** By a link that stands on the page. */
const follow = async (name: string | RegExp) => {
  await click(visit.page.getByRole('main').getByRole('link', { name }).first());
  await arrive();
};

const machine = async (m: { tag: string; kind: string; name: string; place: string; dust: string; by?: string }) => {
  await type(label('Tag'), m.tag);
  await choose(visit.page.getByLabel(/^Kind/).first(), m.kind);
  await type(label('Name'), m.name);
  await type(label('Place'), m.place);
  await type(label(/collected/), m.dust);
  await type(label(/^Initials/), 'mk');
  await click(button('Enter this machine'));
  await visit.page.waitForURL(`**/m/${m.tag}/path**`);
  await arrive();
};

const part = async (code: string, name: string, pieces: string) => {
  if (!(await label('Code, as on its box').isVisible())) await click(visit.page.getByText('A new part'));
  await type(label('Code, as on its box'), code);
  await type(label('Name'), name);
  await type(label(/On the shelf now/), pieces);
  await type(label(/^Initials/), 'mk');
  await click(button('Add the part'));
  await visit.page.getByRole('link', { name, exact: true }).waitFor();
  await alive();
};

describe('the first fifteen minutes of a new user', () => {
  it('from nothing to a plan with dates: site, three machines, their parts, a meter, a baseline, a change', async () => {
    const { page } = visit;
    await page.goto(server.url);
    await arrive();
    await type(label('Name of the site'), 'Low Shed');
    await type(label(/^Initials/), 'mk');
    await click(button('Start this yard'));
    await page.getByRole('heading', { name: 'No machine yet' }).waitFor();
    await arrive();
    await follow('The first machine');
    await machine({ tag: 'LS-01', kind: 'shopVacuum', name: 'Corner vac', place: 'Saw bay', dust: 'house dust' });
    for (const m of [
      { tag: 'LS-02', kind: 'mExtractor', name: 'Blue one', place: 'Bench', dust: 'nothing yet' },
      { tag: 'LS-03', kind: 'singleStageCollector', name: 'Collector', place: 'Saw bay', dust: 'nothing yet' },
    ]) {
      await page.goto(`${server.url}/machines/new`);
      done.clicks += 1;
      await arrive();
      await machine(m);
    }
    await page.goto(`${server.url}/`);
    done.clicks += 1;
    await arrive();
    await follow('The parts it takes');
    await part('BAG-1', 'Paper bag', '10');
    await part('BAG-2', 'Fleece bag', '5');
    await page.goto(`${server.url}/m/LS-01/edit`);
    done.clicks += 2;
    await arrive();
    await click(button(/^Bag/));
    await choose(page.getByLabel('Part that belongs here'), { BAG: '1' }.BAG);
    await click(button('Record the change of path'));
    await page.waitForURL('**/m/LS-01/path**');
    await arrive();
    await page.goto(`${server.url}/instruments`);
    done.clicks += 2;
    await arrive();
    await type(label(/Name and serial number/), 'Flow meter, no. 4');
    await choose(label(/^Reads/), 'flow');
    await type(label(/% of the reading/), '3');
    await type(label(/Step of its display/), '0.1 L/s');
    await click(button('Add the meter'));
    await page.getByRole('main').getByText('Flow meter, no. 4').first().waitFor();
    await page.goto(`${server.url}/m/LS-01/measure`);
    done.clicks += 2;
    await arrive();
    for (const reading of ['41.2', '41.0', '41.3']) {
      await type(page.locator('#pad'), reading);
      done.keys += 1;
      await page.keyboard.press('Enter');
    }
    for (const name of await page.locator('button[role=checkbox]').allInnerTexts())
      await click(page.getByRole('checkbox', { name, exact: true }));
    await click(page.getByText('When, state, configuration'));
    await click(page.getByText(/new baseline/i).first());
    await click(button('Record the test'));
    await page.waitForURL('**/file?saved=test-*');
    await arrive();
    await page.goto(`${server.url}/m/LS-01/change`);
    done.clicks += 1;
    await arrive();
    await click(button(/^Bag due/));
    await click(button(/^Full/));
    await click(button('Record the change'));
    await page.waitForURL('**/changes/*');
    await arrive();
    await page.goto(`${server.url}/plan`);
    done.clicks += 1;
    await arrive();
    const plan = await page.getByRole('main').innerText();
    expect(plan).toContain('LS-01');
    await page.goto(`${server.url}/m/LS-01/plan`);
    expect(await page.getByRole('main').innerText()).toMatch(/\d{4}-\d{2}-\d{2}/);
    await page.goto(`${server.url}/stock`);
    // The bag that went in came off the shelf.
    expect(
      await page
        .getByRole('row', { name: /^Paper bag/ })
        .getByRole('cell')
        .nth(1)
        .innerText(),
    ).toBe('9');
    const minutes = (done.keys * SECONDS.key + done.clicks * SECONDS.click + done.pages * SECONDS.page) / 60;
    console.log(`${done.clicks} clicks, ${done.keys} keys, ${done.pages} pages: ${minutes.toFixed(1)} min`);
    expect(minutes).toBeLessThan(15);
    expect(visit.complaints).toEqual([]);
  });
});
