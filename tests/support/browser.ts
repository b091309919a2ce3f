import AxeBuilder from '@axe-core/playwright';
import { type Browser, chromium, type Page } from 'playwright-core';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export const openBrowser = (more: readonly string[] = []): Promise<Browser> =>
  chromium.launch({ executablePath: '/usr/bin/chromium', args: [...FLAGS, ...more] });

export interface Visit {
  readonly page: Page;
  /** What the page complained of: console errors and uncaught exceptions. */
  readonly complaints: string[];
}

/** What a page complains of from here on. */
export const complaintsOf = (page: Page): string[] => {
  const complaints: string[] = [];
  page.on('pageerror', (error) => complaints.push(error.message));
  page.on('console', (message) => {
    // A refused entry answers 4xx, and Chromium logs every one of those.
    if (message.type() === 'error' && !message.text().includes('Failed to load resource'))
      complaints.push(message.text());
  });
  return complaints;
};

export const newVisit = async (
  browser: Browser,
  size: { width: number; height: number } = { width: 1280, height: 800 },
): Promise<Visit> => {
  const context = await browser.newContext({ viewport: size, locale: 'en-GB', timezoneId: 'Europe/London' });
  const page = await context.newPage();
  return { page, complaints: complaintsOf(page) };
};

/** The rules of axe that hang on colours and sizes, not on names and roles. */
export const LOOKS: readonly string[] = [
  'color-contrast',
  'target-size',
  'link-in-text-block',
  'scrollable-region-focusable',
];

/** Rule and place of every WCAG A and AA violation on the page; of some rules only, where they are named. */
export const violations = async (page: Page, rules: readonly string[] = []): Promise<readonly string[]> => {
  // What passes is not written out: on a long page that takes longer than finding what does not.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'], preload: false });
  const result = await (
    rules.length > 0
      ? axe.withRules([...rules])
      : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
  ).analyze();
  return result.violations.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.target.join(' ')}`));
};
