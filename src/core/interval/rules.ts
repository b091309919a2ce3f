/** A replacement rule of one stage; of several the first one binds. */
export type Rule =
  | { readonly kind: 'calendarDays'; readonly days: number }
  | {
      readonly kind: 'countOfChanges';
      /** The stage whose changes are counted, on the same machine. */
      readonly countedStageId: number;
      readonly countedStageName: string;
      readonly count: number;
    }
  | { readonly kind: 'runHours'; readonly hours: number }
  /** Share of the container that may be full, 0 to 1. */
  | { readonly kind: 'fill'; readonly share: number }
  /** Share of the baseline's flow that may be lost, 0 to 1. */
  | { readonly kind: 'flowLost'; readonly share: number }
  | { readonly kind: 'gaugeZone'; readonly zone: 'amber' | 'red' }
  /** The air in the hose falls below the class limit. */
  | { readonly kind: 'hoseVelocity' }
  | { readonly kind: 'indicator' }
  /** The whole machine examined by a competent person; it stands at the fan. */
  | { readonly kind: 'examination'; readonly months: number }
  /** Seen to be dirty or damaged. */
  | { readonly kind: 'sight'; readonly what: string }
  /** After any occurrence of it. */
  | { readonly kind: 'occurrence'; readonly what: string }
  /** Never by itself: on the day of another stage's change, with it or right after it. */
  | {
      readonly kind: 'together';
      readonly stageId: number;
      readonly stageName: string;
      readonly how: 'onlyWith' | 'rightAfter';
    };

export type RuleKind = Rule['kind'];

/** The figure of a rule that a person may set, in the unit that he reads. */
export interface RuleFigure<R extends Rule = Rule> {
  readonly unit: 'days' | 'changes' | 'hours' | '%';
  /** The least figure that is taken. Smaller ones are slips of the pen: the part would be due for ever. */
  readonly least: number;
  readonly of: (rule: R) => number;
  readonly with: (rule: R, figure: number) => R;
}

/** Facts of a kind of rule; a new kind does not compile without them. */
interface RuleFacts<R extends Rule> {
  /** The cause that ends an interval: a date, wear, a count of other changes, a look by a person, or another stage. */
  readonly endsBy: 'calendar' | 'wear' | 'count' | 'sight' | 'partner';
  /** Evidence that a forecast reads for it: run hours, fill checks, tests of the path, or none. */
  readonly evidence: 'hours' | 'fill' | 'tests' | 'none';
  /** The figure that a person may set; null for none. */
  readonly figure: RuleFigure<R> | null;
  /** The id of the other stage that a rule names; null for a rule that names none. */
  readonly namedStage: ((rule: R) => number) | null;
}

type RuleOf<K extends RuleKind> = Extract<Rule, { readonly kind: K }>;

const share = <R extends Rule & { readonly share: number }>(least: number): RuleFigure<R> => ({
  unit: '%',
  least,
  of: (rule) => Math.round(1000 * rule.share) / 10,
  with: (rule, percent) => ({ ...rule, share: percent / 100 }),
});

/** Every kind of rule. Source: common practice, no published source (the schools of the trade). */
const RULE_FACTS = {
  calendarDays: {
    endsBy: 'calendar',
    evidence: 'none',
    figure: {
      unit: 'days',
      least: 1,
      of: (rule) => rule.days,
      with: (rule, days) => ({ ...rule, days: Math.round(days) }),
    },
    namedStage: null,
  },
  countOfChanges: {
    endsBy: 'count',
    evidence: 'none',
    figure: {
      unit: 'changes',
      least: 1,
      of: (rule) => rule.count,
      with: (rule, count) => ({ ...rule, count: Math.round(count) }),
    },
    namedStage: (rule) => rule.countedStageId,
  },
  runHours: {
    endsBy: 'wear',
    evidence: 'hours',
    figure: { unit: 'hours', least: 0.5, of: (rule) => rule.hours, with: (rule, hours) => ({ ...rule, hours }) },
    namedStage: null,
  },
  fill: { endsBy: 'wear', evidence: 'fill', figure: share<RuleOf<'fill'>>(5), namedStage: null },
  flowLost: { endsBy: 'wear', evidence: 'tests', figure: share<RuleOf<'flowLost'>>(1), namedStage: null },
  gaugeZone: { endsBy: 'wear', evidence: 'tests', figure: null, namedStage: null },
  hoseVelocity: { endsBy: 'wear', evidence: 'tests', figure: null, namedStage: null },
  indicator: { endsBy: 'wear', evidence: 'tests', figure: null, namedStage: null },
  examination: { endsBy: 'calendar', evidence: 'none', figure: null, namedStage: null },
  sight: { endsBy: 'sight', evidence: 'none', figure: null, namedStage: null },
  occurrence: { endsBy: 'sight', evidence: 'none', figure: null, namedStage: null },
  together: { endsBy: 'partner', evidence: 'none', figure: null, namedStage: (rule) => rule.stageId },
} as const satisfies { readonly [K in RuleKind]: RuleFacts<RuleOf<K>> };

type KindsWith<Facts> = {
  [K in RuleKind]: (typeof RULE_FACTS)[K] extends Facts ? K : never;
}[RuleKind];

/** Rules that end by wear. */
export type WearRule = RuleOf<KindsWith<{ readonly endsBy: 'wear' }>>;
/** Rules whose progress a test of the path shows. */
export type TestedRule = RuleOf<KindsWith<{ readonly evidence: 'tests' }>>;

/** The facts of a rule's kind. The table above pairs each kind with its own facts. */
const factsOf = (rule: Rule): RuleFacts<Rule> => RULE_FACTS[rule.kind] as RuleFacts<Rule>;

export const isWear = (rule: Rule): rule is WearRule => factsOf(rule).endsBy === 'wear';
export const isTested = (rule: Rule): rule is TestedRule => factsOf(rule).evidence === 'tests';

/** The figure of a rule, its unit, the least one that is taken, and the rule with another figure; null for a rule without one. Definition: the table of rule kinds. Total. */
export const figureOf = (
  rule: Rule,
): {
  readonly unit: RuleFigure['unit'];
  readonly value: number;
  readonly least: number;
  readonly with: (n: number) => Rule;
} | null => {
  const { figure } = factsOf(rule);
  return (
    figure && { unit: figure.unit, value: figure.of(rule), least: figure.least, with: (n) => figure.with(rule, n) }
  );
};

/** The other stage that a rule names, by its id; null for a rule that names none. Definition: the id that the rule holds. Total. */
export const namedStage = (rule: Rule): number | null => factsOf(rule).namedStage?.(rule) ?? null;

export interface RuleRecord {
  readonly id: number;
  readonly stageId: number;
  readonly rule: Rule;
  /** Which school of the trade it follows, in words. */
  readonly school: string;
}

/** Stages that each go only after another, in a ring: none of them could ever begin. The ring, or null. */
export const circularAfter = (rules: readonly RuleRecord[]): readonly number[] | null => {
  const after = new Map<number, readonly number[]>();
  for (const { stageId, rule } of rules)
    if (rule.kind === 'together' && rule.how === 'rightAfter')
      after.set(stageId, [...(after.get(stageId) ?? []), rule.stageId]);
  const walk = (stage: number, way: readonly number[]): readonly number[] | null => {
    if (way.includes(stage)) return way.slice(way.indexOf(stage));
    for (const next of after.get(stage) ?? []) {
      const ring = walk(next, [...way, stage]);
      if (ring) return ring;
    }
    return null;
  };
  for (const stage of after.keys()) {
    const ring = walk(stage, []);
    if (ring) return ring;
  }
  return null;
};
