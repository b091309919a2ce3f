import { newVisit, openBrowser } from './support/browser';
import { startServer } from './support/server';
const seeded = process.argv[2] !== 'empty';
const paths = process.argv.slice(3);
const server = await startServer({ seeded });
const browser = await openBrowser();
let i = 0;
for (const spec of paths) {
  const [path, size] = spec.split('@');
  const { page, complaints } = await newVisit(browser, size === 'p' ? { width: 390, height: 844 } : { width: 1280, height: 800 });
  await page.goto(`${server.url}${path}`);
  await page.waitForTimeout(1500);
  await page.screenshot({ path: `/tmp/look${i}.png` });
  console.log(i, spec, JSON.stringify(complaints));
  i += 1;
  await page.context().close();
}
await browser.close();
await server.stop();
process.exit(0);
