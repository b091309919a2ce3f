import type { WorkingDays } from '../calendar/working-days';
import type { RuleSet } from '../dust/dust';
import type { DustHazard } from '../dust/level';
import type { LossThresholds } from '../measure/judge-baseline';

/** Prices that the plan uses, in the site's own currency. */
export interface Prices {
  /** Currency sign before an amount; '' when not set. */
  readonly currency: string;
  /** Price of a day past the limit, in times of a wasted day of life. */
  readonly lateFactor: number;
  /** Cost of opening a machine, labour included, by dust level. */
  readonly openingCost: Readonly<Record<DustHazard, number>>;
  /** Minutes it takes to open and close a machine, without the work inside, by how it is opened. */
  readonly openingMinutes: Readonly<Record<DustHazard, number>>;
}

/** The place of the machines, and the settings for all of them. */
export interface Site {
  readonly name: string;
  readonly timeZone: string;
  readonly altitudeM: number;
  readonly ruleSet: RuleSet;
  readonly thresholds: LossThresholds;
  /** The server's own machine needs no passphrase. */
  readonly openHere: boolean;
  readonly working: WorkingDays;
  /** Minutes of a working day there are for changes. */
  readonly minutesADay: number;
  readonly prices: Prices;
  /** True after a person has set up the site. */
  readonly setUp: boolean;
}

/** Settings of a new, empty installation. The limits are Moorwind defaults. */
export const NEW_SITE: Site = {
  name: 'My workshop',
  timeZone: 'Europe/London',
  altitudeM: 0,
  ruleSet: 'eu_uk',
  thresholds: { warnLoss: 0.15, actLoss: 0.25 },
  openHere: true,
  working: { weekdays: [1, 2, 3, 4, 5], closed: [] },
  minutesADay: 120,
  prices: {
    currency: '',
    lateFactor: 12,
    openingCost: { plain: 8, controlled: 18, contained: 45 },
    openingMinutes: { plain: 6, controlled: 12, contained: 25 },
  },
  setUp: false,
};
