import type { WorkingDays } from '../calendar/working-days';
import type { RuleSet } from '../dust/dust';
import type { LossThresholds } from '../measure/judge-baseline';

/** Where the machines are, and what is decided for all of them. */
export interface Site {
  readonly name: string;
  readonly timeZone: string;
  readonly altitudeM: number;
  readonly ruleSet: RuleSet;
  readonly thresholds: LossThresholds;
  /** Whoever sits at the server's own machine needs no passphrase. */
  readonly openHere: boolean;
  readonly working: WorkingDays;
  /** Minutes of a working day there are for changes. */
  readonly minutesADay: number;
  /** Somebody has said what site this is. */
  readonly setUp: boolean;
}

/** What a new, empty installation starts with. The limits are Moorwind defaults. */
export const NEW_SITE: Site = {
  name: 'My workshop',
  timeZone: 'Europe/London',
  altitudeM: 0,
  ruleSet: 'eu_uk',
  thresholds: { warnLoss: 0.15, actLoss: 0.25 },
  openHere: true,
  working: { weekdays: [1, 2, 3, 4, 5], closed: [] },
  minutesADay: 120,
  setUp: false,
};
