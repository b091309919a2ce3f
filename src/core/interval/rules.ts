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

/** Facts of a kind of rule; a new kind does not compile without them. */
interface RuleFacts {
  /** The cause that ends an interval: a date, wear, a count of other changes, a look by a person, or another stage. */
  readonly endsBy: 'calendar' | 'wear' | 'count' | 'sight' | 'partner';
  /** Evidence that a forecast reads for it: run hours, fill checks, tests of the path, or none. */
  readonly evidence: 'hours' | 'fill' | 'tests' | 'none';
  /** The figure that a person may set; null for none. */
  readonly figure: 'days' | 'changes' | 'hours' | '%' | null;
}

/** Every kind of rule. Source: common practice, no published source (the schools of the trade). */
export const RULE_FACTS = {
  calendarDays: { endsBy: 'calendar', evidence: 'none', figure: 'days' },
  countOfChanges: { endsBy: 'count', evidence: 'none', figure: 'changes' },
  runHours: { endsBy: 'wear', evidence: 'hours', figure: 'hours' },
  fill: { endsBy: 'wear', evidence: 'fill', figure: '%' },
  flowLost: { endsBy: 'wear', evidence: 'tests', figure: '%' },
  gaugeZone: { endsBy: 'wear', evidence: 'tests', figure: null },
  hoseVelocity: { endsBy: 'wear', evidence: 'tests', figure: null },
  indicator: { endsBy: 'wear', evidence: 'tests', figure: null },
  examination: { endsBy: 'calendar', evidence: 'none', figure: null },
  sight: { endsBy: 'sight', evidence: 'none', figure: null },
  occurrence: { endsBy: 'sight', evidence: 'none', figure: null },
  together: { endsBy: 'partner', evidence: 'none', figure: null },
} as const satisfies Readonly<Record<RuleKind, RuleFacts>>;

type KindsWith<Facts> = {
  [K in RuleKind]: (typeof RULE_FACTS)[K] extends Facts ? K : never;
}[RuleKind];

/** Rules that end by wear. */
export type WearRule = Extract<Rule, { readonly kind: KindsWith<{ readonly endsBy: 'wear' }> }>;
/** Rules whose progress a test of the path shows. */
export type TestedRule = Extract<Rule, { readonly kind: KindsWith<{ readonly evidence: 'tests' }> }>;
/** Rules with a figure that a person may set. */
export type FiguredRule = Exclude<Rule, { readonly kind: KindsWith<{ readonly figure: null }> }>;

export const isWear = (rule: Rule): rule is WearRule => RULE_FACTS[rule.kind].endsBy === 'wear';
export const isTested = (rule: Rule): rule is TestedRule => RULE_FACTS[rule.kind].evidence === 'tests';
export const hasFigure = (rule: Rule): rule is FiguredRule => RULE_FACTS[rule.kind].figure !== null;

/** The other stage that a rule names, by its id; null for a rule that names none. Definition: the id that the rule holds. Total. */
export const namedStage = (rule: Rule): number | null => {
  switch (rule.kind) {
    case 'countOfChanges':
      return rule.countedStageId;
    case 'together':
      return rule.stageId;
    case 'calendarDays':
    case 'runHours':
    case 'fill':
    case 'flowLost':
    case 'gaugeZone':
    case 'hoseVelocity':
    case 'indicator':
    case 'examination':
    case 'sight':
    case 'occurrence':
      return null;
  }
};

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
