import { assessDust, stated } from '@/core/dust/assess';
import { BUILT_IN_DUSTS } from '@/core/dust/register';
import type { Phrase, Required } from './phrases';

const RANK: Record<Required, number> = { plain: 0, controlled: 1, contained: 2, refused: 3 };

export interface JudgedPhrase {
  readonly got: Required;
  /** Opened with less than a hygienist requires. */
  readonly lax: boolean;
  /** Opened with more than a careful colleague would accept. */
  readonly strict: boolean;
}

/**
 * What the register makes of a phrase, against what is required. A likeness to a refused dust holds work up until it is
 * answered, so it counts as a refusal that is still to be confirmed.
 */
export const judgePhrase = ({ text, least, most }: Phrase): JudgedPhrase => {
  const standing = assessDust(BUILT_IN_DUSTS, stated(text));
  const got: Required = standing.refusal ? 'refused' : standing.level;
  const held = standing.toConfirm.some((m) => BUILT_IN_DUSTS.find((d) => d.key === m.key)?.refused !== null);
  return {
    got,
    lax: RANK[got] < RANK[least] && !(held && least === 'refused'),
    strict: RANK[got] > RANK[most],
  };
};
