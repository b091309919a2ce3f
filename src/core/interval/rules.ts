/** A replacement rule of one stage. More kinds come as the schools need them; each is one member of this union. */
export type Rule =
  | { readonly kind: 'calendarDays'; readonly days: number }
  | {
      readonly kind: 'countOfChanges';
      /** The stage whose changes are counted, on the same machine. */
      readonly countedStageId: number;
      readonly countedStageName: string;
      readonly count: number;
    };

export interface RuleRecord {
  readonly id: number;
  readonly stageId: number;
  readonly rule: Rule;
  /** Which school of the trade it follows, in words. */
  readonly school: string;
}
