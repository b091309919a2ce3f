import { newVisit, openBrowser } from './support/browser';
const [base='http://127.0.0.1:4321', ...list] = process.argv.slice(2);
const browser = await openBrowser();
for (const item of list) {
  const [name='x', path='/', w='1280', full] = item.split('|');
  const { page } = await newVisit(browser, { width: Number(w), height: Number(w) < 500 ? 844 : 800 });
  await page.goto(`${base}${path}`, { waitUntil: 'networkidle' });
  await page.waitForTimeout(300);
  await page.screenshot({ path: `/tmp/shots/${name}.png`, fullPage: full === 'full' });
  await page.context().close();
}
await browser.close();
process.exit(0);
