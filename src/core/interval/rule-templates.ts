import type { StageKind } from '../path/stage-kinds';
import type { Rule } from './rules';

/** One school's rule for a kind of stage. */
export interface RuleTemplate {
  readonly rule: Rule;
  readonly school: string;
}

const days = (n: number, school: string): RuleTemplate => ({ rule: { kind: 'calendarDays', days: n }, school });
const fill = (share: number, school: string): RuleTemplate => ({ rule: { kind: 'fill', share }, school });
const gauge = (zone: 'amber' | 'red', school: string): RuleTemplate => ({ rule: { kind: 'gaugeZone', zone }, school });

/** The schools of the trade by kind of stage, to choose from. Source: common practice, no published source. */
export const RULE_TEMPLATES: Readonly<Record<StageKind, readonly RuleTemplate[]>> = {
  nozzle: [],
  shroud: [],
  hood: [],
  hose: [],
  wye: [],
  duct: [],
  inlet: [],
  ring: [],
  muffler: [],
  exhaust: [],
  bag: [
    fill(0.5, 'half full or 14 days, first of the two'),
    days(14, 'half full or 14 days, first of the two'),
    fill(0.75, 'three-quarters full'),
    fill(0.95, 'to the container mark'),
    days(122, 'three a year'),
    { rule: { kind: 'indicator' }, school: 'by indicator' },
  ],
  cyclone: [fill(0.75, 'three-quarters full'), days(14, 'two weeks')],
  dropChamber: [fill(0.75, 'three-quarters full'), days(60, 'cassette used up, two months at most')],
  prefilter: [{ rule: { kind: 'indicator' }, school: 'by indicator' }, gauge('red', 'by gauge'), days(90, 'a quarter')],
  mainFilter: [
    { rule: { kind: 'flowLost', share: 0.25 }, school: 'when a quarter of the flow is lost' },
    gauge('red', 'by gauge'),
    { rule: { kind: 'hoseVelocity' }, school: 'below the class limit' },
    days(365, 'a year'),
  ],
  hepa: [
    days(365, '12 months from first use'),
    gauge('red', 'red again after a fresh pre-filter'),
    days(730, 'two years is too long, even if it looks clean'),
  ],
  canister: [
    gauge('red', 'by gauge'),
    { rule: { kind: 'flowLost', share: 0.25 }, school: 'when a quarter of the flow is lost' },
    days(730, 'two years'),
  ],
  cloth: [
    { rule: { kind: 'sight', what: 'the deposit stays' }, school: 'wash when the deposit stays' },
    days(180, 'half a year'),
  ],
  foam: [{ rule: { kind: 'sight', what: 'dirt' }, school: 'rinse when dirty' }, days(90, 'a quarter')],
  gas: [
    { rule: { kind: 'sight', what: 'smell' }, school: 'by smell' },
    days(180, 'half a year'),
    { rule: { kind: 'runHours', hours: 800 }, school: 'by run hours' },
  ],
  fan: [
    {
      rule: { kind: 'examination', months: 14 },
      school: 'examination and test at least every 14 months, UK COSHH reg. 9',
    },
    {
      rule: { kind: 'examination', months: 12 },
      school: 'technical inspection once a year, makers of M and H machines',
    },
  ],
  exhaustFilter: [days(180, 'motor-dust filter, 6 months')],
};
