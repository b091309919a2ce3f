import { newVisit, openBrowser } from './support/browser';
const base='http://127.0.0.1:4321';
const browser = await openBrowser();
const { page } = await newVisit(browser, { width: 1280, height: 800 });
const call = (method: string, path: string, body?: object) => page.evaluate(async ([m, p, b]) => { const r = await fetch(p as string, { method: m as string, headers: { 'content-type': 'application/json' }, ...(b ? { body: JSON.stringify(b) } : {}) }); return { status: r.status, text: await r.text() }; }, [method, path, body ?? null] as const);
await page.goto(base + '/');
let n = Date.now();
const who = () => ({ clientId: `hand-${n++}`, by: 'MK' });
const dust = (text: string) => ({ text, confirmed: [], denied: [], answers: {}, own: null, lowerBecause: '' });
const s = {status:0,text:""};
console.log(s.status, s.text.slice(0,200));
const r = await call('GET', '/api/machines/CR-05/jobs');
const rec = JSON.parse(r.text).record;
let shots = 0;
for (let i = 1; i < rec.procedure.steps.length; i++) {
  const st = rec.procedure.steps[i];
  if (['tapeGloves','cleanWalls','screenCleanSide','integrityTest'].includes(st.key) && shots < 6) {
    for (const w of [1280, 390]) { await page.setViewportSize({ width: w, height: w < 500 ? 844 : 800 }); await page.goto(base + '/m/CR-05/job', { waitUntil: 'networkidle' }); await page.waitForTimeout(300); await page.screenshot({ path: `/tmp/shots/job-${st.key}-${w}.png` }); }
    shots++;
  }
  const ev = st.check ? { kind: 'answered', step: i, right: true, note: '' } : ['screenCleanSide','integrityTest'].includes(st.key) ? { kind: 'leftOut', step: i, because: 'no light here' } : { kind: 'did', step: i };
  const d = await call('POST', `/api/machines/CR-05/jobs/actions`, { ...who(), jobId: rec.id, event: ev, partCode: '' });
  if (d.status > 299) { console.log(i, st.key, d.status, d.text.slice(0, 200)); break; }
}
const f = await call('POST', `/api/machines/CR-05/jobs/actions`, { ...who(), jobId: rec.id, event: { kind: 'finished', wasteKg: 2.1 }, partCode: '' });
console.log('finished', f.status, f.text.slice(0,200));
await page.setViewportSize({ width: 1280, height: 800 });
await page.goto(base + '/m/CR-05/dust', { waitUntil: 'networkidle' }); await page.screenshot({ path: '/tmp/shots/after-dust.png' });
await page.goto(base + `/m/CR-05/jobs/${rec.id}`, { waitUntil: 'networkidle' }); await page.screenshot({ path: '/tmp/shots/after-job.png' });
await browser.close(); process.exit(0);
