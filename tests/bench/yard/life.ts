import type { Random } from '../../../demo/random';
import { hoseArea, LEAST_SPEED, loadOfRule, type Made, type TrueRule } from './machine';
import { AHEAD, between, type Calendar, chanceOf, LAST, PAST, whole, type WorkDay, worksOnDay } from './work';

// A machine lived day by day, with the people who keep it: what they do, and what of it they write down.

export type Why = 'fill' | 'gauge' | 'test' | 'date' | 'count' | 'precaution' | 'damage';
export type Which = 'bag' | 'filter';

export interface Written {
  readonly changes: { readonly which: Which; readonly day: number; readonly writtenDay: number; readonly why: Why }[];
  readonly looks: { readonly day: number; readonly share: number }[];
  readonly flows: { readonly day: number; readonly readings: readonly number[]; readonly baseline: boolean }[];
  readonly zones: { readonly day: number; readonly zone: 'green' | 'amber' | 'red' }[];
  readonly pascals: { readonly day: number; readonly readings: readonly number[] }[];
}

/** Days from today at which each part reaches the first of its rules, as it truly comes; below 0 it is behind. */
export interface Truth {
  readonly bag: number;
  readonly filter: number;
}

interface Keeper {
  readonly looksEvery: number;
  readonly writesLook: number;
  readonly writesFound: number;
  readonly lag: number;
  readonly precaution: number;
  readonly whileOpen: number;
  readonly testsEvery: number;
  readonly testsAtBag: number;
  readonly gaugeEvery: number;
  readonly waitsForFilter: number;
  readonly forgets: number;
  readonly misdates: number;
  readonly meterBias: number;
}

const keeperOf = (r: Random): Keeper => ({
  looksEvery: whole(r, 1, 8),
  writesLook: [0, 0, 0.15, 0.5][whole(r, 0, 3)] ?? 0,
  writesFound: [0, 0.2, 0.8][whole(r, 0, 2)] ?? 0,
  lag: between(r, 0, 4),
  precaution: between(r, 0, 0.35),
  whileOpen: between(r, 0.2, 0.9),
  testsEvery: chanceOf(r, 0.85) ? whole(r, 12, 70) : Infinity,
  testsAtBag: chanceOf(r, 0.35) ? between(r, 0.1, 0.5) : 0,
  gaugeEvery: whole(r, 5, 40),
  waitsForFilter: between(r, 1, 18),
  forgets: chanceOf(r, 0.5) ? between(r, 0.02, 0.12) : 0,
  misdates: between(r, 0, 0.12),
  meterBias: 1 + 0.012 * r.normal(),
});

const rounded = (share: number, step: number): number => Math.max(step, Math.round(share / step) * step);

interface Part {
  since: number;
  load: number;
  hours: number;
  holds: number;
  waiting: number;
  /** Day its first rule was reached; NaN while none was. */
  reached: number;
}

const fresh = (since: number, holds: number): Part => ({
  since,
  load: 0,
  hours: 0,
  holds,
  waiting: -1,
  reached: Number.NaN,
});

/** Lives one machine through all its days. */
export class Life {
  readonly written: Written = { changes: [], looks: [], flows: [], zones: [], pascals: [] };
  readonly began: number;
  truth: Truth | null = null;
  private readonly keeper: Keeper;
  private bag: Part;
  private filter: Part;
  private bagsSinceFilter = 0;
  /** Days of work since somebody looked into the bag. */
  private sinceLook = 0;
  private readonly limits: readonly number[];
  private readonly baseline: number;
  private readonly known = { bag: Number.NaN, filter: Number.NaN };

  constructor(
    private readonly r: Random,
    private readonly made: Made,
    private readonly work: readonly WorkDay[],
    private readonly calendar: Calendar,
  ) {
    this.keeper = keeperOf(r);
    this.began = whole(r, 0, 620);
    this.bag = fresh(this.began, this.luck(0.12));
    this.filter = fresh(this.began, this.luck(0.16));
    this.baseline = made.flow(made.cleanFilter, 0);
    this.limits = made.filterRules.flatMap((rule) => loadOfRule(made, rule, this.baseline) ?? []);
  }

  live(): this {
    if (Number.isFinite(this.keeper.testsEvery)) this.testFlow(this.began, true);
    for (let day = this.began; day < PAST + AHEAD; day += 1) {
      if (day === PAST) this.atToday();
      this.wear(day);
      const ahead = day >= PAST;
      if (ahead && !Number.isNaN(this.known.bag) && !Number.isNaN(this.known.filter)) break;
      if ((this.work[day]?.hours ?? 0) > 0 || worksOnDay(this.calendar, day)) this.keep(day, ahead);
    }
    const told = (day: number): number => (Number.isNaN(day) ? AHEAD : day - LAST);
    this.truth = { bag: told(this.known.bag), filter: told(this.known.filter) };
    return this;
  }

  private luck(spread: number): number {
    return Math.exp(spread * this.r.normal());
  }

  /** What is behind already is known today; a part that is past its limit stays so. */
  private atToday(): void {
    this.known.bag = this.bag.reached;
    this.known.filter = this.filter.reached;
  }

  private get bagShare(): number {
    return (this.bag.load / (this.made.brimGrams * this.bag.holds)) ** this.made.heap;
  }

  private get filterLoad(): number {
    return this.made.cake(this.filter.load / this.filter.holds);
  }

  private isReached(part: Part, rules: readonly TrueRule[], day: number): boolean {
    return rules.some((rule) => {
      if (rule.kind === 'runHours') return part.hours >= rule.hours;
      if (rule.kind === 'calendarDays') return day - part.since >= rule.days;
      if (rule.kind === 'countOfChanges') return this.bagsSinceFilter >= rule.count;
      if (rule.kind === 'fill') return this.bagShare >= rule.share;
      return false;
    });
  }

  private wear(day: number): void {
    const done = this.work[day];
    if (done && done.hours > 0) {
      this.bag.load += done.grams;
      this.bag.hours += done.hours;
      this.filter.load += done.fines * (0.7 + 0.6 * Math.min(1.2, this.bagShare));
      this.filter.hours += done.hours;
    }
    if (Number.isNaN(this.bag.reached) && this.isReached(this.bag, this.made.bagRules, day)) this.bag.reached = day;
    const clogged = this.limits.some((limit) => this.filterLoad >= limit);
    if (Number.isNaN(this.filter.reached) && (clogged || this.isReached(this.filter, this.made.filterRules, day)))
      this.filter.reached = day;
    if (day < PAST) return;
    if (Number.isNaN(this.known.bag)) this.known.bag = this.bag.reached;
    if (Number.isNaN(this.known.filter)) this.known.filter = this.filter.reached;
  }

  private note(which: Which, day: number, why: Why): void {
    const { r, keeper } = this;
    if (day >= PAST || chanceOf(r, which === 'bag' ? keeper.forgets : keeper.forgets / 2)) return;
    const off = chanceOf(r, keeper.misdates) ? (chanceOf(r, 0.1) ? whole(r, -30, 10) : whole(r, -4, 3)) : 0;
    const last = this.written.changes.findLast((c) => c.which === which)?.writtenDay ?? this.began;
    const writtenDay = Math.min(PAST - 1, Math.max(last + 1, day + off));
    if (writtenDay > last) this.written.changes.push({ which, day, writtenDay, why });
  }

  private changeBag(day: number, why: Why): void {
    const { keeper, r } = this;
    if (day < PAST && chanceOf(r, keeper.writesFound))
      this.written.looks.push({ day, share: rounded(Math.min(1, this.bagShare * this.luck(0.1)), 0.25) });
    this.note('bag', day, why);
    this.bag = fresh(day, this.luck(chanceOf(r, 0.03) ? 0.4 : 0.12));
    this.bagsSinceFilter += 1;
    const asked = Number.isFinite(keeper.testsEvery) && chanceOf(r, keeper.testsAtBag);
    if (day < PAST && asked) this.testFlow(day, false);
  }

  private changeFilter(day: number, why: Why): void {
    this.note('filter', day, why);
    this.filter = fresh(day, this.luck(0.16));
    this.bagsSinceFilter = 0;
    const share = this.bagShare;
    if (share > 0.25 && chanceOf(this.r, this.keeper.whileOpen)) {
      this.changeBag(day, 'precaution');
      this.bagsSinceFilter = 0;
    }
  }

  private testFlow(day: number, baseline: boolean): number {
    const true_ = this.made.flow(this.filterLoad, this.made.bagLoad(this.bagShare)) * this.keeper.meterBias;
    // The mains, the bend in the hose, the way the meter is held: the same for the readings of a day.
    const ofDay = 1 + 0.013 * this.r.normal();
    const readings = [0, 1, 2].map(() => true_ * ofDay * (1 + 0.008 * this.r.normal()));
    if (day < PAST) this.written.flows.push({ day, readings, baseline });
    return (readings[0] ?? 0) / (this.baseline * this.keeper.meterBias);
  }

  private readGauge(day: number): 'green' | 'amber' | 'red' {
    const { gauge } = this.made;
    const pa =
      this.filterLoad *
      this.made.flow(this.filterLoad, this.made.bagLoad(this.bagShare)) *
      (1 + 0.04 * this.r.normal());
    const zone = gauge && pa >= gauge.redPa ? 'red' : gauge && pa >= gauge.amberPa ? 'amber' : 'green';
    if (day < PAST) {
      if (chanceOf(this.r, 0.7)) this.written.zones.push({ day, zone });
      else this.written.pascals.push({ day, readings: [0, 1].map(() => pa * (1 + 0.02 * this.r.normal())) });
    }
    return zone;
  }

  /** What its keeper does on a day. Once a part's fate after today is known, its keeper goes on as always. */
  private keep(day: number, ahead: boolean): void {
    this.keepBag(day, ahead && Number.isNaN(this.known.bag));
    this.keepFilter(day, ahead && Number.isNaN(this.known.filter));
  }

  private keepBag(day: number, untilReached: boolean): void {
    const { r, keeper, bag } = this;
    const [rule] = this.made.bagRules;
    const onDate = this.made.bagRules.find((x) => x.kind === 'calendarDays');
    if (bag.waiting >= 0) {
      bag.waiting -= 1;
      if (bag.waiting < 0) this.changeBag(day, rule?.kind === 'fill' ? 'fill' : 'date');
      return;
    }
    if (!Number.isNaN(bag.reached) && onDate?.kind === 'calendarDays' && day - bag.since >= onDate.days) {
      if (chanceOf(r, 0.3)) this.changeBag(day, 'date');
      return;
    }
    const worked = (this.work[day]?.hours ?? 0) > 0;
    if (worked) this.sinceLook += 1;
    if (worked && this.sinceLook >= keeper.looksEvery) {
      this.sinceLook = 0;
      const seen = this.bagShare * this.luck(0.09);
      if (day < PAST && chanceOf(r, keeper.writesLook))
        this.written.looks.push({ day, share: rounded(Math.min(1, seen), chanceOf(r, 0.5) ? 0.25 : 0.125) });
      const full =
        rule?.kind === 'fill' ? seen >= rule.share * 0.97 : rule?.kind === 'runHours' && bag.hours >= rule.hours;
      if (full && !untilReached) bag.waiting = Math.floor(keeper.lag * r.uniform());
      else if (full && !Number.isNaN(bag.reached)) bag.waiting = Math.floor(keeper.lag * r.uniform());
      if (full) return;
      const nearly = rule?.kind === 'fill' ? this.bagShare / rule.share : bag.hours / 30;
      const rest = !worksOnDay(this.calendar, day + 1);
      if (!untilReached && nearly > 0.6 && chanceOf(r, keeper.precaution * (rest ? 0.25 : 0.05)))
        this.changeBag(day, 'precaution');
    }
  }

  private keepFilter(day: number, untilReached: boolean): void {
    const { r, keeper, filter } = this;
    if (filter.waiting >= 0) {
      filter.waiting -= 1;
      if (filter.waiting < 0) this.changeFilter(day, this.reasonForFilter());
      return;
    }
    const has = (kind: TrueRule['kind']) => this.made.filterRules.some((x) => x.kind === kind);
    const since = day - filter.since;
    const late = Math.floor(keeper.waitsForFilter * r.uniform());
    let seen = false;
    if (since > 3 && since % keeper.testsEvery === 0) {
      const flow = this.testFlow(day, false);
      const lost = this.made.filterRules.find((x) => x.kind === 'flowLost');
      // A full bag is emptied first and the test is said to be its fault.
      const blamed = this.bagShare > 0.6 && chanceOf(r, 0.7);
      if (lost?.kind === 'flowLost') seen ||= flow <= 1 - lost.share && !blamed;
      if (has('hoseVelocity')) seen ||= (flow * this.baseline) / hoseArea(this.made.boreM) <= LEAST_SPEED && !blamed;
    }
    if (has('gaugeZone') && since % keeper.gaugeEvery === 0 && since > 0) {
      const zone = this.readGauge(day);
      const wanted = this.made.filterRules.find((x) => x.kind === 'gaugeZone');
      seen ||= zone === 'red' || (zone === 'amber' && wanted?.kind === 'gaugeZone' && wanted.zone === 'amber');
    }
    const counted = this.isReached(filter, this.made.filterRules, day);
    // Who never measures changes it when the tools begin to dust.
    const felt = this.limits.length > 0 && this.filterLoad > 1.35 * Math.min(...this.limits) && chanceOf(r, 0.05);
    if ((seen || counted || felt) && (!untilReached || !Number.isNaN(filter.reached))) filter.waiting = late;
    else if (!untilReached && since > 40 && chanceOf(r, 0.0006)) this.changeFilter(day, 'damage');
    else if (!untilReached && this.worth(0.55) && chanceOf(r, keeper.precaution * 0.01))
      this.changeFilter(day, 'precaution');
  }

  /** Whether the filter has come this far to the nearest of its limits. */
  private worth(share: number): boolean {
    const { filterRules, cleanFilter } = this.made;
    const byLoad = this.limits.some((limit) => this.filterLoad - cleanFilter > share * (limit - cleanFilter));
    return (
      byLoad ||
      filterRules.some(
        (x) =>
          (x.kind === 'runHours' && this.filter.hours > share * x.hours) ||
          (x.kind === 'countOfChanges' && this.bagsSinceFilter > share * x.count),
      )
    );
  }

  private reasonForFilter(): Why {
    const kinds = this.made.filterRules.map((x) => x.kind);
    if (kinds.includes('countOfChanges')) return 'count';
    if (kinds.includes('runHours')) return 'date';
    return kinds.includes('gaugeZone') ? 'gauge' : 'test';
  }
}
