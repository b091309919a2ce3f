// npm run month: a made-up yard of thirty machines with years of records is obeyed for a month, morning by morning, and
// each day's orders are printed in the words of the pages. A machine is away, a person is ill, a machine works ten
// times as much, and bags run out before their delivery comes. Read it as the person who obeys it.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { addDays, weekdayOf } from '@/core/calendar/calendar-date';
import type { Result } from '@/core/failure/failure';
import { sayOutlook } from '@/messages/outlook';
import { sayMove } from '@/messages/plan-moves';
import { openMigrated } from '@/server/db/connect';
import { keepPerson } from '@/server/services/house/people';
import { recordChange } from '@/server/services/jobs/record-change';
import { logCrew } from '@/server/services/plan/crew';
import { planYard } from '@/server/services/plan/plan-yard';
import { loadRound, type WalkLine } from '@/server/services/plan/round';
import { orderArrived, orderPart } from '@/server/services/stock/order-part';
import { insertMovement } from '@/server/repositories/stock';
import { logAway, logUsage } from '@/server/services/yard/log-wear';
import { seeded } from '../demo/random';
import { livedYard } from '../tests/bench/yard/yard';
import { TODAY, writeDown } from '../tests/bench/yard/write-down';
import { changeBody } from '../tests/support/bodies';
import { newId } from '../tests/support/database';

const SEED = 77;
const MACHINES = 30;
const DAYS = 30;
const MINUTES = [0, 60, 60, 60, 60, 60, 0];
/** Days of the month on which something happens. */
const AWAY = { on: 5, days: 6, tag: 'M-004' };
const ILL = { on: 8, days: 3 };
/** So many bags are on the shelf; the next ones are ordered for that day, and come two days late. */
const BAGS = { onShelf: 14, ordered: 20, promisedOn: 16, comeOn: 18 };
const BUSY = { from: 10, to: 16, tag: 'M-007', hours: 20 };

const folder = mkdtempSync(join(tmpdir(), 'moorwind-month-'));
const file = join(folder, 'yard.sqlite');
await (await openMigrated(file)).destroy();
const yard = livedYard(SEED, MACHINES);
writeDown(file, yard);
const db = await openMigrated(file);
let today = TODAY;
const context = { db, now: () => `${today}T07:30:00.000Z`, person: null };
const say = (line: string): void => console.log(line);
const must = <T>(made: Result<T>): T => {
  if (!made.ok) throw new Error(made.failures.map((f) => `${f.code} ${f.path}`).join());
  return made.value;
};
const signed = () => ({ clientId: newId(), by: 'MK' });
const tagOf = (i: number): string => `M-${String(i + 1).padStart(3, '0')}`;

const addPerson = async (initials: string, papers: boolean): Promise<number> => {
  const { id } = must(
    await keepPerson(context, {
      ...signed(),
      initials,
      name: initials,
      role: 'technician',
      mayContain: papers,
      maskFitOn: papers ? addDays(TODAY, -100) : null,
      trainedOn: papers ? addDays(TODAY, -400) : null,
      active: true,
    }),
  );
  must(await logCrew(context, { ...signed(), personId: id, entry: { kind: 'times', minutes: MINUTES } }));
  return id;
};

/** One kind of bag for the whole yard, a few of them on the shelf. Returns the part and the order that is on its way. */
const keepBags = async (): Promise<{ readonly partId: number; readonly orderId: number }> => {
  const bag = { code: 'BAG', name: 'fleece bag', pack_size: 1, bin: 'A1', lead_days: BAGS.promisedOn };
  const { id: partId } = await db.insertInto('part').values(bag).returning('id').executeTakeFirstOrThrow();
  await db.updateTable('stage').set({ part_id: partId }).where('kind', '=', 'bag').execute();
  const at = context.now();
  const of = { kind: 'none' as const };
  await insertMovement(db, { partId, quantity: BAGS.onShelf, reason: 'delivery', at, by: 'MK', of, note: '' });
  const arrivesOn = addDays(today, BAGS.promisedOn);
  const order = must(await orderPart(context, { ...signed(), partId, packs: BAGS.ordered, arrivesOn }));
  return { partId, orderId: order.id };
};

const happenings = async (day: number, { personId, orderId }: { personId: number; orderId: number }): Promise<void> => {
  if (day === AWAY.on) {
    const to = addDays(today, AWAY.days);
    must(await logAway(context, AWAY.tag, { ...signed(), from: today, to, why: 'lent to the slip' }));
    say(`  ${AWAY.tag} is away to ${to}.`);
  }
  if (day === ILL.on) {
    const to = addDays(today, ILL.days - 1);
    must(await logCrew(context, { ...signed(), personId, entry: { kind: 'absent', from: today, to, why: 'ill' } }));
    say(`  AB is ill to ${to}.`);
  }
  if (day === BAGS.comeOn) {
    must(await orderArrived(context, { ...signed(), orderId }));
    say(`  ${BAGS.ordered} bags came, ${BAGS.comeOn - BAGS.promisedOn} days late.`);
  }
};

const obey = async (walk: readonly WalkLine[], bagId: number): Promise<void> => {
  for (const w of walk)
    for (const item of w.items) {
      const said = sayOutlook(item.outlook, w.machine);
      say(
        `  ${w.tag} ${w.by ?? ''}, ${w.minutes} min, ${item.stage}: ${said?.sentence ?? ''} Due by: ${said?.rules ?? ''}.`,
      );
      const performedAt = `${today}T07:00:00.000Z`;
      const partId = bags.has(item.stageId) ? bagId : null;
      must(await recordChange(context, w.tag, changeBody(item.stageId, { by: w.by ?? 'MK', performedAt, partId })));
    }
};

const random = seeded(4);
const work = async (day: number): Promise<void> => {
  for (const [i, { keeps }] of yard.machines.entries()) {
    const tag = tagOf(i);
    const busy = tag === BUSY.tag && day >= BUSY.from && day < BUSY.to;
    const rests = keeps === 'none' || weekdayOf(today) % 6 === 0 || random.uniform() > 0.6;
    if (rests && !busy) continue;
    const hours = busy ? BUSY.hours : Math.round(10 * (1 + 4 * random.uniform())) / 10;
    must(await logUsage(context, tag, { ...signed(), day: today, hours, dust: 'softwood' }));
  }
};

const ab = await addPerson('AB', true);
await addPerson('CD', false);
const { partId, orderId } = await keepBags();
const stages = await db.selectFrom('stage').select('id').where('kind', '=', 'bag').execute();
const bags = new Set(stages.map((b) => b.id));
for (let day = 0; day < DAYS; day += 1) {
  today = addDays(TODAY, day);
  say(`\n${today}`);
  await happenings(day, { personId: ab, orderId });
  const plan = await planYard(context);
  for (const { stageId, day: to, moved } of plan.promises) {
    const stage = plan.made.stages.find((s) => s.stageId === stageId);
    if (stage && moved?.on === today)
      say(`  ${sayMove({ tag: stage.tag, stage: stage.name, from: moved.from, to, because: moved.because })}`);
  }
  const round = await loadRound(context);
  if (round.walkInDays === 0) await obey(round.walk, partId);
  else say(`  No walk today; the next one is in ${round.walkInDays} days.`);
  await work(day);
}
await db.destroy();
rmSync(folder, { recursive: true, force: true });
