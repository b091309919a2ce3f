import { newVisit, openBrowser } from './support/browser';
const base='http://127.0.0.1:4321';
const browser = await openBrowser();
const { page } = await newVisit(browser, { width: 1280, height: 800 });
const post = (path: string, body: object) => page.evaluate(async ([p, b]) => { const r = await fetch(p as string, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(b) }); return [r.status, (await r.text()).slice(0, 400)]; }, [path, body] as const);
await page.goto(base + '/');
let n = Date.now();
const dust = (text: string, over = {}) => ({ text, confirmed: [], denied: [], answers: {}, own: null, lowerBecause: '', ...over });
const who = () => ({ clientId: `hand-${n++}`, by: 'MK' });
console.log(await post('/api/machines/CR-16/dust', { ...who(), dust: dust('asbestos rope'), since: null }));
for (const [name, path, w] of [['r-index','/m/CR-16',1280],['r-measure','/m/CR-16/measure',1280],['r-upgrade','/m/CR-16/upgrade',390],['r-work','/work?q=oak&tool=tableSaw&place=indoors',1280],['unknown','/m/CR-02/dust',1280],['startH','/m/CR-05/job?want=decontamination',1280],['up','/m/CR-05/upgrade',1280]] as const) {
  await page.setViewportSize({ width: w, height: w < 500 ? 844 : 800 });
  await page.goto(base + path, { waitUntil: 'networkidle' }); await page.waitForTimeout(300);
  await page.screenshot({ path: `/tmp/shots/${name}.png` });
}
await browser.close(); process.exit(0);
