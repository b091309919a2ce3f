import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openMigrated } from '@/server/db/connect';
import { keepPerson, makeCode } from '@/server/services/house/people';
import { newVisit, openBrowser, violations } from '../support/browser';
import { type RunningServer, startServer } from '../support/server';

// Two people with two roles on one yard, each in a browser of their own, on a server that everybody signs in to.

const PHRASE = 'three wet gulls';
let server: RunningServer;
let browser: Browser;
const codes = new Map<string, string>();

beforeAll(async () => {
  server = await startServer({ seeded: true, env: { MOORWIND_PROXY: 'yes' } });
  const db = await openMigrated(server.dataFile);
  const context = { db, now: () => new Date().toISOString() };
  for (const [initials, name, role] of [
    ['MK', 'Mara Kest', 'lead'],
    ['TO', 'Tove Oyen', 'technician'],
  ] as const) {
    await keepPerson(context, {
      clientId: `people-${initials}-1`,
      by: 'MK',
      initials,
      name,
      role,
      mayContain: false,
      maskFitOn: null,
      trainedOn: null,
      active: true,
    });
    const made = await makeCode(context, { clientId: `people-${initials}-2`, by: 'MK', initials });
    if (made.ok) codes.set(initials, made.value.secret);
  }
  await db.destroy();
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await server.stop();
});

const comeIn = async (initials: string, to = '/'): Promise<Page> => {
  const { page } = await newVisit(browser);
  await page.goto(`${server.url}${to}`);
  await page.waitForURL(/\/sign-in/);
  await page.waitForLoadState('networkidle');
  // The very first one is asked for the code at once.
  const withCode = page.getByRole('button', { name: 'I have a code' });
  if (await withCode.isVisible()) await withCode.click();
  await page.getByLabel('Initials').fill(initials.toLowerCase());
  await page.getByLabel(/^Code from/).fill(codes.get(initials) ?? '');
  await page.getByLabel(/New passphrase/).fill(PHRASE);
  await page.getByRole('button', { name: 'Choose it and sign in' }).click();
  await page.waitForURL((url) => !url.pathname.startsWith('/sign-in'));
  return page;
};

const logHours = async (page: Page): Promise<void> => {
  await page.goto(`${server.url}/m/CR-04/plan`);
  await page.waitForLoadState('networkidle');
};

describe('two people on one yard', () => {
  it('sign in with their codes; each does what the role lets them, and a role lowered while a page is open loses nothing typed', async () => {
    const lead = await comeIn('MK', '/people');
    expect(new URL(lead.url()).pathname).toBe('/people');
    expect(await violations(lead)).toEqual([]);
    const technician = await comeIn('TO');
    const cookies = await technician.context().cookies();
    expect(cookies.find((c) => c.name === 'mw_session')).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
    expect(await technician.evaluate(() => document.cookie)).not.toContain('mw_session');
    // The technician reads the people's page nowhere.
    expect((await technician.goto(`${server.url}/people`))?.status()).toBe(403);
    await logHours(technician);
    const post = (by: string) =>
      technician.evaluate(
        async ({ by: initials }) =>
          (
            await fetch('/api/machines/CR-04/usage', {
              method: 'POST',
              headers: { 'content-type': 'application/json' },
              body: JSON.stringify({
                clientId: crypto.randomUUID(),
                by: initials,
                day: new Date().toISOString().slice(0, 10),
                hours: 1.5,
                dust: 'oak',
              }),
            })
          ).status,
        { by },
      );
    expect(await post('TO')).toBe(201);
    expect(await post('MK')).toBe(403);

    // The lead lowers the role while the technician has the hours half typed: they stay, and the sentence says why.
    await logHours(technician);
    await technician.getByLabel('Hours run').fill('3.5');
    await lead.reload();
    await lead.getByRole('link', { name: 'TO', exact: true }).click();
    await lead.waitForURL('**/people/TO');
    await lead.waitForLoadState('networkidle');
    await lead.getByRole('radio', { name: /^look/ }).check();
    await lead.getByRole('button', { name: 'Save' }).click();
    await expect.poll(() => post('TO')).toBe(403);
    await technician.getByRole('button', { name: 'Log the hours' }).click();
    await technician.getByText('This needs the role technician; your role is look.').waitFor();
    expect(await technician.getByLabel('Hours run').inputValue()).toBe('3.5');

    // Who took records out of the house stands in the log.
    expect((await lead.request.get(`${server.url}/stock/orders.csv`)).status()).toBe(200);
    await lead.goto(`${server.url}/audit`);
    await lead.getByRole('listitem').filter({ hasText: 'MK exported: /stock/orders.csv' }).waitFor();
  });

  it('a session signed out everywhere opens nothing any more, on whatever device it lies', async () => {
    const page = await (async () => {
      const { page: p } = await newVisit(browser);
      await p.goto(`${server.url}/sign-in`);
      await p.waitForLoadState('networkidle');
      await p.getByLabel('Initials').fill('MK');
      await p.getByLabel('Passphrase').fill(PHRASE);
      await p.getByRole('button', { name: 'Sign in' }).click();
      await p.waitForURL((url) => !url.pathname.startsWith('/sign-in'));
      return p;
    })();
    const stolen = (await page.context().cookies()).find((c) => c.name === 'mw_session')?.value ?? '';
    const ask = () =>
      fetch(`${server.url}/audit`, { headers: { cookie: `mw_session=${stolen}` }, redirect: 'manual' }).then(
        (r) => r.status,
      );
    expect(await ask()).toBe(200);
    await page.waitForLoadState('networkidle');
    await page.getByLabel('Signed in as MK').click();
    await page.getByRole('button', { name: 'Sign out everywhere' }).click();
    await page.waitForURL(/sign-in/);
    expect(await ask()).toBe(302);
    expect(await violations(page)).toEqual([]);
  });
});
