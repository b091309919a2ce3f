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

/** Rules that end by wear, not by the calendar. */
export type WearRule = Extract<
  Rule,
  { kind: 'runHours' | 'fill' | 'flowLost' | 'gaugeZone' | 'hoseVelocity' | 'indicator' }
>;

export const isWear = (rule: Rule): rule is WearRule =>
  ['runHours', 'fill', 'flowLost', 'gaugeZone', 'hoseVelocity', 'indicator'].includes(rule.kind);

export interface RuleRecord {
  readonly id: number;
  readonly stageId: number;
  readonly rule: Rule;
  /** Which school of the trade it follows, in words. */
  readonly school: string;
}

/** Stages that each go only after another, in a ring: none of them could ever be begun. The ring, or null. */
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
