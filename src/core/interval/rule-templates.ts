import type { StageKind } from '../path/stage-kinds';
import type { Rule } from './rules';

/** One school's rule for a kind of stage. */
export interface RuleTemplate {
  readonly rule: Rule;
  readonly school: string;
}

/**
 * When a rule is proposed for a new stage: always, with a gauge, where the law asks for an examination, on a machine
 * with a dust class; `choice`: only where somebody chooses it.
 */
export type Proposed = 'usual' | 'withGauge' | 'exhaustVentilation' | 'classed' | 'choice';

/** A template with its own mark: the order of the list decides nothing. */
export interface SchoolTemplate extends RuleTemplate {
  readonly proposed: Proposed;
}

const of = (proposed: Proposed, rule: Rule, school: string): SchoolTemplate => ({ rule, school, proposed });
const usual = (rule: Rule, school: string) => of('usual', rule, school);
const choice = (rule: Rule, school: string) => of('choice', rule, school);
const withGauge = (school: string) => of('withGauge', { kind: 'gaugeZone', zone: 'red' }, school);
const days = (n: number): Rule => ({ kind: 'calendarDays', days: n });
const fill = (share: number): Rule => ({ kind: 'fill', share });
const LIGHT: Rule = { kind: 'indicator' };
const QUARTER_LOST: Rule = { kind: 'flowLost', share: 0.25 };

/** The schools of the trade by kind of stage, to choose from. Source: common practice, no published source. */
export const RULE_TEMPLATES: Readonly<Record<StageKind, readonly SchoolTemplate[]>> = {
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
    usual(fill(0.5), 'half full or 14 days, first of the two'),
    usual(days(14), 'half full or 14 days, first of the two'),
    choice(fill(0.75), 'three-quarters full'),
    choice(fill(0.95), 'to the container mark'),
    choice(days(122), 'three a year'),
    choice(LIGHT, 'by indicator'),
  ],
  cyclone: [usual(fill(0.75), 'three-quarters full'), usual(days(14), 'two weeks')],
  dropChamber: [usual(fill(0.75), 'three-quarters full'), usual(days(60), 'cassette used up, two months at most')],
  prefilter: [choice(LIGHT, 'by indicator'), withGauge('by gauge'), usual(days(90), 'a quarter')],
  mainFilter: [
    usual(QUARTER_LOST, 'when a quarter of the flow is lost'),
    withGauge('by gauge'),
    choice({ kind: 'hoseVelocity' }, 'below the class limit'),
    usual(days(365), 'a year'),
  ],
  hepa: [
    usual(days(365), '12 months from first use'),
    withGauge('red again after a fresh pre-filter'),
    choice(days(730), 'two years is too long, even if it looks clean'),
  ],
  canister: [
    withGauge('by gauge'),
    usual(QUARTER_LOST, 'when a quarter of the flow is lost'),
    usual(days(730), 'two years'),
  ],
  cloth: [
    usual({ kind: 'sight', what: 'the deposit stays' }, 'wash when the deposit stays'),
    usual(days(180), 'half a year'),
  ],
  foam: [usual({ kind: 'sight', what: 'dirt' }, 'rinse when dirty'), usual(days(90), 'a quarter')],
  gas: [
    usual({ kind: 'sight', what: 'smell' }, 'by smell'),
    usual(days(180), 'half a year'),
    choice({ kind: 'runHours', hours: 800 }, 'by run hours'),
  ],
  fan: [
    of(
      'exhaustVentilation',
      { kind: 'examination', months: 14 },
      'examination and test at least every 14 months, UK COSHH reg. 9',
    ),
    of('classed', { kind: 'examination', months: 12 }, 'technical inspection once a year, makers of M and H machines'),
  ],
  exhaustFilter: [usual(days(180), 'motor-dust filter, 6 months')],
};

/** The rules to choose from for a stage, without their marks, for a form. */
export const offeredRules = (stage: StageKind): readonly RuleTemplate[] =>
  RULE_TEMPLATES[stage].map(({ rule, school }) => ({ rule, school }));
