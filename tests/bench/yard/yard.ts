import { seeded } from '../../../demo/random';
import { Life } from './life';
import { type Made, makeMachine } from './machine';
import { between, type Calendar, chanceOf, PAST, type WorkDay, whole, workOf, yardCalendar } from './work';

// Made-up yards with a truth of their own, for the forecast. Nothing of the application is used to make them: grams are
// carried, a fan is balanced against a hose and a cake, people look, wait, forget and write down wrongly.

/** Run hours as somebody wrote them down. */
export interface WrittenHours {
  readonly day: number;
  readonly hours: number;
  readonly dust: string;
}

export type Keeps = 'daily' | 'weekly' | 'meter' | 'none';

export interface LivedMachine {
  readonly made: Made;
  readonly life: Life;
  readonly keeps: Keeps;
  readonly hours: readonly WrittenHours[];
}

export interface LivedYard {
  readonly calendar: Calendar;
  readonly machines: readonly LivedMachine[];
}

const tenth = (x: number): number => Math.round(10 * x) / 10;

/** The hours as they are written: each day, a week's sum, or what a meter has gone on since it was last read. */
const writeHours = (
  r: ReturnType<typeof seeded>,
  keeps: Keeps,
  { work, began }: { readonly work: readonly WorkDay[]; readonly began: number },
): readonly WrittenHours[] => {
  if (keeps === 'none') return [];
  const starts = Math.max(began, chanceOf(r, 0.25) ? whole(r, 200, 700) : 0);
  const gap: readonly [number, number] = chanceOf(r, 0.2) ? [whole(r, 300, 900), whole(r, 20, 60)] : [0, 0];
  const skips = between(r, 0, 0.1);
  const written: WrittenHours[] = [];
  let [sum, dust, next] = [0, '', starts];
  for (let day = starts; day < PAST; day += 1) {
    const here = work[day];
    if (here && here.hours > 0) {
      sum += here.hours;
      dust = here.dust;
    }
    const lapsed = day >= gap[0] && day < gap[0] + gap[1];
    if (keeps === 'daily') {
      if (here && here.hours > 0 && !lapsed && !chanceOf(r, skips))
        written.push({ day, hours: Math.max(0.1, tenth(here.hours)), dust: here.dust });
      continue;
    }
    if (keeps === 'weekly' && day % 7 === 5) {
      if (sum > 0 && !lapsed && !chanceOf(r, skips / 2)) written.push({ day, hours: tenth(sum), dust });
      sum = 0;
    }
    if (keeps === 'meter' && day >= next) {
      if (sum > 0) written.push({ day, hours: tenth(sum), dust });
      sum = 0;
      next = day + whole(r, 9, 45);
    }
  }
  // One entry of a day is at most a day.
  return written.map((w) => ({ ...w, hours: Math.min(w.hours, MOST_WRITTEN) })).filter((w) => w.hours > 0);
};

const MOST_WRITTEN = 500;

const liveMachine = (r: ReturnType<typeof seeded>, calendar: Calendar): LivedMachine => {
  const work = workOf(r, calendar);
  const meanOf = (f: (d: WorkDay) => number) => work.slice(0, PAST).reduce((sum, d) => sum + f(d), 0) / PAST;
  const made = makeMachine(
    r,
    Math.max(
      0.05,
      meanOf((d) => d.fines),
    ),
    Math.max(
      5,
      meanOf((d) => d.grams),
    ),
  );
  const life = new Life(r, made, work, calendar).live();
  const dice = r.uniform();
  const keeps: Keeps = dice < 0.4 ? 'daily' : dice < 0.58 ? 'weekly' : dice < 0.75 ? 'meter' : 'none';
  return { made, life, keeps, hours: writeHours(r, keeps, { work, began: life.began }) };
};

/** A yard of so many machines, the same for a seed. */
export const livedYard = (seed: number, machines = 25): LivedYard => {
  const r = seeded(seed * 104_729 + 71);
  const calendar = yardCalendar(r);
  return { calendar, machines: Array.from({ length: machines }, () => liveMachine(r, calendar)) };
};
