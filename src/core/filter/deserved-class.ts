import { mostPenetrating } from './rated-curve';
import { type BuiltStage, type Train } from './train';
import { DUST_CLASS_PENETRATION, type DustClass, US_HEPA } from './rating';

/** The cause that decides the penetration of a train. */
export type Reason =
  | { readonly kind: 'bypass'; readonly stageName: string; readonly bypass: number }
  | { readonly kind: 'wholeBypass'; readonly bypass: number }
  | { readonly kind: 'element'; readonly stageName: string; readonly penetration: number }
  | { readonly kind: 'unrated' };

export interface Deserved {
  /** The best the train could be tested as; null: not even L, or nothing is rated. */
  readonly dustClass: DustClass | null;
  /** At least 99.97 % at 0.3 um. */
  readonly usHepa: boolean;
  /** The finest rated stage, on which the class rests; null without one. */
  readonly essential: string | null;
  /** Where the class was judged: the size the train holds worst, um. */
  readonly sizeUm: number;
  readonly penetration: number;
  readonly penetrationAt03: number;
  readonly reason: Reason;
}

/** Class limits are inclusive: 1 - 0.999 must not fail a limit of 0.001. */
const SLACK = 1 + 1e-9;

const CLASSES: readonly DustClass[] = ['H', 'M', 'L'];

/** The best class whose limit a penetration keeps, inclusive; null above L. Source: EN/IEC 60335-2-69 Annex AA. */
export const classOfPenetration = (penetration: number): DustClass | null =>
  CLASSES.find((c) => penetration <= DUST_CLASS_PENETRATION[c] * SLACK) ?? null;

/** Most bypass past the seat of an element that still keeps a limit; below 0 when the element alone breaks it. Source: b + (1 - b) P = limit. Shares. Valid: a penetration of 0 to below 1. */
export const mostBypass = ({ limit, penetration }: { readonly limit: number; readonly penetration: number }): number =>
  (limit - penetration) / (1 - penetration);

const finest = (train: Train): BuiltStage | null =>
  train.stages
    .filter((s) => s.curve.rated)
    .reduce<BuiltStage | null>(
      (best, s) => (best === null || s.claim(s.curve.ratedSizeUm) < best.claim(best.curve.ratedSizeUm) ? s : best),
      null,
    );

const reasonOf = (train: Train, essential: BuiltStage | null, sizeUm: number): Reason => {
  if (!essential) return { kind: 'unrated' };
  const { stage } = essential;
  const through = essential.claim(sizeUm);
  if (train.wholeBypass > stage.bypass + through) return { kind: 'wholeBypass', bypass: train.wholeBypass };
  return stage.bypass > (1 - stage.bypass) * through
    ? { kind: 'bypass', stageName: stage.name, bypass: stage.bypass }
    : { kind: 'element', stageName: stage.name, penetration: through };
};

/**
 * The class a train would at best deserve, and why: its rated stages with what passes their seats, judged at the size
 * they hold worst and never better than their ratings. The class itself belongs to the tested appliance, never to a sum of parts.
 * Source: EN/IEC 60335-2-69 Annex AA limits, inclusive; HEPA in US usage DOE-STD-3020, 29 CFR 1926.1153.
 */
export const deservedClass = (train: Train): Deserved => {
  const essential = finest(train);
  const { sizeUm, penetration } = essential
    ? mostPenetrating(train.claimed)
    : { sizeUm: US_HEPA.sizeUm, penetration: train.claimed(US_HEPA.sizeUm) };
  const penetrationAt03 = train.claimed(US_HEPA.sizeUm);
  return {
    dustClass: essential ? classOfPenetration(penetration) : null,
    usHepa: penetrationAt03 <= (1 - US_HEPA.efficiency) * SLACK,
    essential: essential?.stage.name ?? null,
    sizeUm,
    penetration,
    penetrationAt03,
    reason: reasonOf(train, essential, sizeUm),
  };
};
