import { seeded, type Random } from '../../../demo/random';

// Made-up yards with a truth of their own. Nothing here is shared with the forecaster: dust is carried in grams, wear is
// a resistance against a fan's own curve, people look, wait and forget.

export interface MadeChange {
  readonly day: number;
  readonly why: 'full' | 'early' | 'opened' | 'count' | 'low';
  /** Share of the limit as found, coarsely; null when nobody wrote it down. */
  readonly found: number | null;
}

export interface MadeLook {
  readonly day: number;
  readonly share: number;
  readonly fresh: boolean;
}

export interface MadeStage {
  readonly kind: 'bag' | 'filter' | 'counted';
  /** Middle days to the limit of the trade's template, and of its load in hours. */
  readonly templateDays: number;
  readonly templateHours: number;
  readonly changes: readonly MadeChange[];
  readonly looks: readonly MadeLook[];
  /** Every how many bags; for a counted stage. */
  readonly count: number;
  /** Days from today to the limit: what is to be forecast. */
  readonly truth: number;
}

export interface MadeMachine {
  readonly hours: readonly number[];
  readonly logsHours: boolean;
  /** Day of the newest recorded change of dust or path; null without one. */
  readonly regimeDay: number | null;
  readonly stages: readonly MadeStage[];
  readonly closed: (day: number) => boolean;
}

export interface MadeYard {
  readonly today: number;
  readonly machines: readonly MadeMachine[];
}

const PAST = 900;
const AHEAD = 1200;

const gamma = (r: Random, shape: number): number => {
  // Marsaglia and Tsang, for shapes of one and more; smaller shapes by the power of a uniform.
  if (shape < 1) return gamma(r, shape + 1) * r.uniform() ** (1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = r.normal();
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(1 - r.uniform()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
  }
};

const closedDays = (r: Random): ((day: number) => boolean) => {
  const holidays = Array.from({ length: 6 }, () => Math.floor(r.uniform() * (PAST + AHEAD)));
  const lengths = holidays.map(() => 5 + Math.floor(r.uniform() * 9));
  return (day) => day % 7 >= 5 || holidays.some((from, i) => day >= from && day < from + (lengths[i] ?? 0));
};

/** Hours of each day: a season that wanders, projects that come and go, days off. */
const usage = (r: Random, closed: (day: number) => boolean): readonly number[] => {
  const level = 0.6 + 3 * r.uniform() ** 1.5;
  let season = 0;
  let project = 0;
  let busy = false;
  return Array.from({ length: PAST + AHEAD }, (_, day) => {
    if (day % 7 === 0) season = 0.9 * season + 0.13 * r.normal();
    if (project <= 0) {
      busy = !busy && r.uniform() < 0.35;
      project = 10 + Math.floor(r.uniform() * 40);
    }
    project -= 1;
    if (closed(day) || r.uniform() < 0.15) return 0;
    return Math.min(9, level * Math.exp(season) * (busy ? 1.9 : 0.85) * (gamma(r, 2.5) / 2.5));
  });
};

interface Regime {
  readonly from: number;
  readonly gramsPerHour: number;
  readonly recorded: boolean;
}

const regimes = (r: Random): readonly Regime[] => {
  const base = 120 * Math.exp(0.45 * r.normal());
  const list: Regime[] = [{ from: 0, gramsPerHour: base, recorded: true }];
  if (r.uniform() < 0.3)
    list.push({
      from: 250 + Math.floor(r.uniform() * 560),
      gramsPerHour: base * Math.exp((r.uniform() < 0.5 ? -1 : 1) * (0.35 + 0.6 * r.uniform())),
      recorded: r.uniform() < 0.75,
    });
  return list;
};

interface Person {
  readonly checkEvery: number;
  readonly lateDays: number;
  readonly early: number;
  readonly writesFound: number;
}

const person = (r: Random): Person => ({
  checkEvery: 1 + Math.floor(r.uniform() * 5),
  lateDays: r.uniform() * 5,
  early: 0.1 * r.uniform() + 0.03,
  writesFound: r.uniform() < 0.6 ? 0.7 : 0.1,
});

const eighth = (x: number): number => Math.round(8 * x) / 8;

interface Dust {
  readonly grams: readonly number[];
}

interface BagTruth {
  readonly changes: readonly MadeChange[];
  readonly looks: readonly MadeLook[];
  readonly truth: number;
  /** Grams that got past it, by day. */
  readonly past: readonly number[];
  /** Share of its limit at the end of each day. */
  readonly fill: readonly number[];
}

/** The bag: filled by volume, packed differently each time, changed when somebody sees it and gets round to it. */
const liveBag = (r: Random, { grams }: Dust, who: Person): BagTruth => {
  const limit = 1400 * Math.exp(0.35 * r.normal());
  const changes: MadeChange[] = [];
  const looks: MadeLook[] = [];
  const past: number[] = [];
  const fill: number[] = [];
  let load = 0;
  let packing = Math.exp(0.15 * r.normal());
  let waiting = -1;
  let truth = Number.NaN;
  let since = 0;
  const lookChance = r.uniform() < 0.7 ? 0.06 : 0.01;
  for (let day = 0; day < PAST + AHEAD; day += 1) {
    load += grams[day] ?? 0;
    const share = load / (limit * packing);
    // The moment within the day.
    const moment =
      day - PAST + 1 - Math.min(1, Math.max(0, (share - 1) * limit * packing) / Math.max(1e-9, grams[day] ?? 0));
    fill.push(share);
    past.push((grams[day] ?? 0) * (0.01 + 0.015 * Math.min(1, share)));
    if (day >= PAST) {
      if (share >= 1 && Number.isNaN(truth)) truth = moment;
      if (!Number.isNaN(truth)) break;
      continue;
    }
    if (share >= 1 && Number.isNaN(truth)) truth = moment;
    const works = (grams[day] ?? 0) > 0;
    const change = (why: MadeChange['why']) => {
      const seen = Math.max(0.125, eighth(Math.min(1.25, share * Math.exp(0.1 * r.normal()))));
      changes.push({ day, why, found: r.uniform() < who.writesFound ? seen : null });
      load = 0;
      packing = Math.exp(0.15 * r.normal());
      waiting = -1;
      truth = Number.NaN;
      since = day;
    };
    if (works && r.uniform() < lookChance && day - since > 1)
      looks.push({
        day,
        share: Math.max(0.125, eighth(Math.min(1.25, share * Math.exp(0.1 * r.normal())))),
        fresh: false,
      });
    if (waiting >= 0) {
      waiting -= 1;
      if (waiting < 0) change('full');
    } else if (works && day % who.checkEvery === 0 && share * Math.exp(0.07 * r.normal()) >= 0.97)
      waiting = Math.floor(r.uniform() * who.lateDays);
    else if (works && share > 0.4 && r.uniform() < who.early / 12) change(r.uniform() < 0.5 ? 'early' : 'opened');
  }
  return { changes, looks, truth: Number.isNaN(truth) ? AHEAD : truth, past, fill };
};

const FAN = { shutOff: 20_000, free: 0.055 };

/** Flow of a fan with its own curve through a path and a filter: bisected, in m3/s. */
const flowThrough = (path: number, filter: number): number => {
  let [low, high] = [0, FAN.free];
  for (let i = 0; i < 34; i += 1) {
    const q = (low + high) / 2;
    const lift = FAN.shutOff * (1 - 0.8 * (q / FAN.free) - 0.2 * (q / FAN.free) ** 2);
    if (lift > path * q * q + filter * q) low = q;
    else high = q;
  }
  return (low + high) / 2;
};

/** The filter: loaded by what gets past the bag, its resistance growing in its own way; tested now and then. */
const liveFilter = (
  r: Random,
  bag: BagTruth,
  hours: readonly number[],
): Omit<MadeStage, 'templateDays' | 'templateHours'> => {
  const path = 9e6 * Math.exp(0.2 * r.normal());
  const clean = 1.2e4;
  const bend = 0.75 + 0.65 * r.uniform();
  const yearly = 260 + 260 * r.uniform();
  const toLimit = (() => {
    const free = flowThrough(path, clean);
    let [low, high] = [clean, 4e6];
    for (let i = 0; i < 40; i += 1) {
      const mid = Math.sqrt(low * high);
      if (flowThrough(path, mid) > 0.75 * free) low = mid;
      else high = mid;
    }
    return high - clean;
  })();
  const meanPast = bag.past.slice(0, PAST).reduce((a, b) => a + b, 0) / PAST;
  const massToLimit = meanPast * yearly;
  const changes: MadeChange[] = [];
  const looks: MadeLook[] = [];
  const everyDays = 18 + Math.floor(r.uniform() * 45);
  const freshHabit = 0.4 + 0.5 * r.uniform();
  const bagShare = 0.02 + 0.05 * r.uniform();
  const lateDays = 4 + 20 * r.uniform();
  let mass = massToLimit * r.uniform() * 0.8;
  let hardness = Math.exp(0.15 * r.normal());
  let waiting = -1;
  let truth = Number.NaN;
  for (let day = 0; day < PAST + AHEAD; day += 1) {
    // Past what the bag knows of, it goes on as it did on the whole.
    const got = bag.past[day] ?? meanPast * ((hours[day] ?? 0) > 0 ? 1.4 : 0);
    mass += got;
    const wear = (mass / (massToLimit * hardness)) ** bend;
    if (wear >= 1 && Number.isNaN(truth)) truth = day - PAST + r.uniform();
    if (day >= PAST) {
      if (!Number.isNaN(truth)) break;
      continue;
    }
    const change = (why: MadeChange['why']) => {
      changes.push({ day, why, found: null });
      mass = 0;
      hardness = Math.exp(0.15 * r.normal());
      waiting = -1;
      truth = Number.NaN;
    };
    const bagDay = bag.changes.some((c) => c.day === day);
    const tested = day % everyDays === 0 || (bagDay && r.uniform() < 0.25 * freshHabit);
    if (tested && (hours[day] ?? 0) >= 0) {
      const fresh = bagDay || r.uniform() < freshHabit;
      const free = flowThrough(path, clean);
      const flow =
        flowThrough(path, clean + toLimit * wear) *
        (fresh ? 1 : 1 - bagShare * Math.min(1.2, bag.fill[day] ?? 0)) *
        (1 + 0.02 * r.normal());
      const share = (1 - flow / free) / 0.25;
      looks.push({ day, share, fresh });
      if (share >= 1 && fresh && waiting < 0) waiting = Math.floor(r.uniform() * lateDays);
    }
    if (waiting >= 0) {
      waiting -= 1;
      if (waiting < 0) change('low');
    } else if (r.uniform() < 0.0006) change('early');
  }
  return { kind: 'filter', changes, looks, count: 0, truth: Number.isNaN(truth) ? AHEAD : truth };
};

/** A stage that is renewed with every so many bags: its day is the day of that bag, as people really change it. */
const liveCounted = (
  r: Random,
  grams: readonly number[],
  who: Person,
  bag: BagTruth,
): Omit<MadeStage, 'templateDays' | 'templateHours'> => {
  const count = 3 + Math.floor(r.uniform() * 3);
  const changes = bag.changes
    .filter((_, i) => (i + 1) % count === 0)
    .map((c): MadeChange => ({ day: c.day, why: 'count', found: null }));
  const done = bag.changes.filter((c) => c.day > (changes.at(-1)?.day ?? -1)).length;
  // The bags that follow, lived on by the same person.
  const ahead = liveOn(r, grams, who, bag);
  return { kind: 'counted', changes, looks: [], count, truth: ahead[count - done - 1] ?? AHEAD };
};

const liveOn = (r: Random, grams: readonly number[], who: Person, bag: BagTruth): readonly number[] => {
  const days: number[] = [];
  const mean =
    bag.changes.length > 1
      ? ((bag.changes.at(-1)?.day ?? 0) - (bag.changes[0]?.day ?? 0)) / (bag.changes.length - 1)
      : 40;
  const perBag = grams.slice(0, PAST).reduce((a, b) => a + b, 0) / Math.max(1, PAST / mean);
  let load = grams.slice(bag.changes.at(-1)?.day ?? 0, PAST).reduce((a, b) => a + b, 0);
  let limit = perBag * Math.exp(0.15 * r.normal());
  for (let day = PAST; day < PAST + AHEAD && days.length < 8; day += 1) {
    load += grams[day] ?? 0;
    if (load >= limit) {
      days.push(day - PAST + Math.floor(r.uniform() * who.lateDays));
      load = 0;
      limit = perBag * Math.exp(0.15 * r.normal());
    }
  }
  return days;
};

const liveMachine = (r: Random, closed: (day: number) => boolean): MadeMachine => {
  const hours = usage(r, closed);
  const list = regimes(r);
  const grams = hours.map(
    (h, day) => h * (list.findLast((x) => x.from <= day)?.gramsPerHour ?? 0) * Math.exp(0.35 * r.normal()),
  );
  const who = person(r);
  const bag = liveBag(r, { grams }, who);
  const filter = liveFilter(r, bag, hours);
  const second = list[1];
  return {
    hours,
    closed,
    logsHours: r.uniform() < 0.65,
    regimeDay: second?.recorded ? second.from : null,
    stages: [
      {
        kind: 'bag',
        templateDays: 30,
        templateHours: 12,
        changes: bag.changes,
        looks: bag.looks,
        count: 0,
        truth: bag.truth,
      },
      { ...filter, templateDays: 365, templateHours: 330 },
      ...(r.uniform() < 0.5 ? [{ ...liveCounted(r, grams, who, bag), templateDays: 120, templateHours: 60 }] : []),
    ],
  };
};

/** A yard of its own: 25 or so machines with two and a half years behind them, at its today. */
export const madeYard = (seed: number): MadeYard => {
  const r = seeded(seed * 7919 + 13);
  const closed = closedDays(r);
  const size = 22 + Math.floor(r.uniform() * 8);
  return { today: PAST, machines: Array.from({ length: size }, () => liveMachine(r, closed)) };
};
