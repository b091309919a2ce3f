import type { Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { newVisit } from '../support/browser';
import { runningYard } from '../support/running-yard';

const yard = runningYard();

const ready = (page: Page) => page.waitForSelector('html[data-job=ready]', { timeout: 60_000 });
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
  for (let i = 0; i < 140; i += 1) {
    const text = await stepOf(page);
    if (until.test(text)) return seen;
    seen.push(text);
    if (/from the exhaust/.test(text)) {
      await page.getByRole('button', { name: 'Clean', exact: true }).click();
      await page.locator('[data-integrity]:has-text("Clean")').waitFor({ state: 'detached' });
      await ready(page);
    }
    const button = page.getByRole('button', { name: /^(Yes|Taken|Done)$/ }).first();
    await button.click();
    await page
      .waitForFunction((old) => document.querySelector('#step')?.textContent !== old, text, { timeout: 10_000 })
      .catch(() => undefined);
    await ready(page);
  }
  throw new Error(`no end after ${seen.join(' | ')}`);
};
const head = (page: Page) => page.locator('main header').innerText();
const indexOf = (seen: readonly string[], what: RegExp) => seen.findIndex((s) => what.test(s));

describe('guided changes, walked on the page', () => {
  it('the demo offers eight procedures on its own machines, each to be printed as a card', async () => {
    const { page } = await newVisit(yard.browser);
    const cards = {
      'CR-02': /^Bag|Paper bag/,
      'CR-05': /Safety bag/,
      'CR-07': /Pre-filter wrap/,
      'CR-18': /Drop chamber/,
      'CR-20': /^Cyclone/,
      'CR-01': /^Lower bag/,
      'CR-16': /Commissioning/,
      'CR-14': /^HEPA/,
    };
    const seen = new Set<string>();
    for (const [tag, what] of Object.entries(cards)) {
      await page.goto(`${yard.server.url}/m/${tag}/job`);
      await ready(page);
      await page
        .getByRole('group', { name: /What is done/ })
        .getByRole('button', { name: what })
        .first()
        .click();
      await page.getByRole('link', { name: 'Print as a card' }).click();
      await page.waitForURL('**/card?*');
      seen.add((await page.locator('article h2').innerText()).replace(/^.*: /, ''));
      expect(await page.locator('article ol li').count()).toBeGreaterThan(5);
    }
    expect(seen.size).toBe(8);
  });

  it('the contained change of an H main filter: dressed, plugged, the old clean side seen, screened by a count, undressed in order; the class waits for the paper', async () => {
    const page = await begin('CR-05', 'Main filter');
    const first = await walk(page, /^Put the old main filter into its bag/);
    expect(await page.locator('main').getByText('open, do not run').count()).toBe(1);
    // The server is killed and the browser closed in mid-step: the job is where it was.
    await yard.server.killAndRestart();
    await page.reload();
    await ready(page);
    expect(await stepOf(page)).toMatch(/^Put the old main filter into its bag/);
    const seen = [...first, ...(await walk(page, /^Screen/))];
    const order = [
      /area/i,
      /^Put the respirator on/,
      /^Put on coverall/,
      /pull the plug/,
      /plug the inlet at once/,
      /^Open at/,
      /^Lift the old main filter/,
      /into its bag/,
      /arrow/,
      /^Close at/,
      /put the hose back on/,
      /from the exhaust/,
    ].map((r) => indexOf(seen, r));
    expect(
      order.every((i) => i >= 0),
      seen.map((s) => s.split('\n')[0]).join(' | '),
    ).toBe(true);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(await page.locator('main').getByText('open, do not run').count()).toBe(0);
    // The class is not said, and the step is not done before it is screened.
    expect(await head(page)).toContain('class suspended');
    expect(await page.getByRole('button', { name: 'Done', exact: true }).isDisabled()).toBe(true);
    for (const answer of ['Smoke stays still']) {
      await page.getByRole('button', { name: answer, exact: true }).click();
      await page.locator(`[data-integrity]:has-text("${answer}")`).waitFor({ state: 'detached' });
      await ready(page);
    }
    const here = page.url();
    const counted = async (room: string, exhaust: string) => {
      await page.getByRole('link', { name: 'Count', exact: true }).click();
      await page.waitForSelector('html[data-measure=ready]');
      for (const count of [room, exhaust]) {
        await page.fill('#pad', count);
        await page.keyboard.press('Enter');
      }
      for (const name of await page.locator('button[role=checkbox]').allInnerTexts())
        await page.getByRole('checkbox', { name, exact: true }).click();
      await page.getByLabel('Initials').fill('MK');
      await page.getByRole('button', { name: 'Record the test' }).click();
      await page.waitForURL('**/file?*');
      await page.goto(here);
      await ready(page);
      await page.getByLabel('Initials').fill('MK');
      await page.getByRole('button', { name: 'Judge the count' }).click();
    };
    await page.getByRole('button', { name: 'Judge the count' }).click();
    await page.getByText('No particle count from 0.3').waitFor();
    // A minute in clean air cannot tell; 600 of 900 is a filter that leaks; a long clean count screens it.
    await counted('300', '0');
    await page.getByText('may pass; a count of this length').waitFor();
    await counted('900', '600');
    await page.getByText('failed when last tried').waitFor();
    expect(await page.getByRole('button', { name: 'Done', exact: true }).isDisabled()).toBe(true);
    await counted('2547', '0');
    await page.getByText('until a penetration test is passed').waitFor();
    await page.getByText('to be screened').waitFor({ state: 'detached' });
    await ready(page);
    const undressing = await walk(page);
    const off = [/^Switch off/i, /coverall/i, /hands/i, /respirator/i, /face/i].map((r) => indexOf(undressing, r));
    expect(off, undressing.join(' | ')).toEqual([...off].sort((a, b) => a - b));
    expect(off[0]).toBeGreaterThanOrEqual(0);
    await page.getByLabel('Waste, if weighed').fill('1.4 kg');
    await page.getByRole('button', { name: /^Finish/ }).click();
    await page.waitForURL('**/jobs/*');
    const report = await page.locator('main').innerText();
    for (const told of [
      'Bolted main filter: finished.',
      '1400 g',
      'waste by your local rules',
      'Smoke stays still',
      'Main filter: due in',
    ])
      expect(report.toLowerCase()).toContain(told.toLowerCase());
    expect(await head(page)).toContain('class suspended');
    await page.goto(`${yard.server.url}/m/CR-05/file`);
    expect(await page.locator('main').innerText()).toContain('Main filter changed');
    // No order of finding takes a filter out of it, and one kind of clean is not offered either.
    await page.goto(`${yard.server.url}/m/CR-05/change`);
    await page.waitForSelector('html[data-change=ready]');
    await page
      .getByRole('group', { name: 'What was changed or emptied?' })
      .getByRole('button', { name: /^Main filter/ })
      .click();
    expect(await page.getByRole('button', { name: /same part, cleaned/ }).count()).toBe(0);
  }, 180_000);

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
    const off = indexOf([...seen, ...rest], /^Switch off the dirty machine/);
    expect(off).toBeGreaterThan(0);
    expect(off).toBeLessThan(indexOf([...seen, ...rest], /^Latch/));
    await page.getByRole('button', { name: /^Finish/ }).click();
    await page.waitForURL('**/jobs/*');
    expect(await page.locator('main').innerText()).toContain('Took it over.');
  });

  it.each([
    ['Asbestplatten', 'CR-18'],
    ['chrysotile', 'CR-20'],
    ['AIB from the ceiling', 'CR-14'],
  ])('%s stops it with the reason, and what was typed is still there', async (typed, tag) => {
    const { page } = await newVisit(yard.browser);
    await page.goto(`${yard.server.url}/m/${tag}/job`);
    await ready(page);
    await page.getByLabel('Last collected').fill(typed);
    await page.getByText('Nothing here is opened, run or tested.').waitFor();
    await page
      .getByRole('group', { name: /What is done/ })
      .getByRole('button')
      .first()
      .click();
    await page.getByLabel('Initials').fill('MK');
    await page.getByRole('button', { name: 'Record the refusal' }).click();
    await page.getByText('Moorwind gives no guidance on it').waitFor();
    expect(await page.getByLabel('Last collected').inputValue()).toBe(typed);
    expect(await page.locator('#step').count()).toBe(0);
    // From then on the page shows no job for it.
    await page.reload();
    await page.locator('[data-refused]').waitFor();
  });

  it('a plain bag on one sheet: every question by itself, a double click is one record', async () => {
    const { page } = await newVisit(yard.browser);
    await page.goto(`${yard.server.url}/m/CR-02/job`);
    await ready(page);
    await page.getByRole('button', { name: 'Paper bag', exact: true }).click();
    await page.getByLabel('Initials').fill('MK');
    await page.getByRole('button', { name: /Short form/ }).click();
    const yes = page.getByRole('button', { name: 'Yes', exact: true });
    expect(await page.getByRole('button', { name: '4 to answer' }).isDisabled()).toBe(true);
    for (let i = 0; i < 4; i += 1) await yes.nth(i).click();
    await page.getByRole('button', { name: 'Record the whole change' }).dblclick();
    await page.waitForURL('**/jobs/*');
    expect(await page.locator('main').innerText()).toContain('Bag: finished.');
    await page.goto(`${yard.server.url}/m/CR-02/file`);
    expect((await page.locator('main').innerText()).match(/Job: bag, finished/g)).toHaveLength(1);
  });

  it('a photo is kept with its step; a file that is no picture is refused, and the step is still there', async () => {
    const page = await begin('CR-01', 'Lower bag');
    const step = await stepOf(page);
    await page.setInputFiles('input[type=file]', {
      name: 'note.jpg',
      mimeType: 'image/jpeg',
      buffer: Buffer.from('no picture at all'),
    });
    await page.getByText('That file is not a JPEG, PNG or WebP picture.').waitFor();
    await page.setInputFiles('input[type=file]', 'docs/screenshots/bench.png');
    await page.getByAltText(/^Taken at this step/).waitFor();
    expect(await stepOf(page)).toBe(step);
  });

  it('by keys: y answers, b goes back; a stacked filter that proves nothing is turned back and nothing is used', async () => {
    const page = await begin('CR-09', 'Pre-filter');
    await walk(page, /^Is the seal sound/);
    await page.keyboard.press('y');
    await page.getByText('Is the underside clean?', { exact: true }).first().waitFor();
    await ready(page);
    await page.keyboard.press('b');
    await page.locator('#step', { hasText: 'Is the seal sound' }).waitFor();
    await ready(page);
    await walk(page, /light stayed out/);
    await page.getByRole('button', { name: /put the old one back/ }).click();
    await page.locator('#step', { hasText: 'Switch off' }).waitFor();
    await ready(page);
    const back = await walk(page);
    expect(indexOf(back, /^Put the old pre-filter back in/)).toBeLessThan(
      indexOf(back, /back on the shelf, marked as opened/),
    );
    await page.getByRole('button', { name: /^Finish/ }).click();
    await page.waitForURL('**/jobs/*');
    expect(await page.locator('main').innerText()).toContain('finished, turned back');
  });
});
