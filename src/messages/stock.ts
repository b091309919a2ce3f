import type { Reorder } from '@/core/stock/demand';
import type { NoMerge } from '@/core/stock/merge';
import type { Part } from '@/core/stock/part';

/** What moved a part, beside who did. */
export const sayMovementOf = (
  of: { readonly kind: 'none' } | { readonly kind: 'change' | 'job' | 'case'; readonly id: number },
): string => (of.kind === 'none' || of.kind === 'change' ? '' : `${of.kind} ${of.id}`);

/** Why two entries are not made one, of the one that would go and the one that would stay. */
export const NO_MERGE_WORDS: Readonly<Record<NoMerge, (gone: string, kept: string) => string>> = {
  same: () => 'That is one and the same entry.',
  alreadyMerged: (gone) => `${gone === '' ? 'It' : gone} was made one with another part already.`,
  keptIsRetired: (_, kept) => `${kept} is no longer kept.`,
  onOrder: (gone) => `Some of ${gone} are still on order: book them in first.`,
  held: (gone) => `An open job or case has ${gone} in hand: end it first.`,
  otherMedium: (gone, kept) => `${gone} and ${kept} are of different media.`,
  otherArea: (gone, kept) => `${gone} and ${kept} differ in area.`,
  otherRating: (gone, kept) => `${gone} and ${kept} differ in rating.`,
  otherSeat: (gone, kept) => `${gone} and ${kept} are fitted in different kinds of stage.`,
};

const MONTH_DAYS = 30;
const plural = (n: number, one: string): string => `${n} ${n === 1 ? one : `${one}s`}`;

/** What to order, and why. */
export const sayReorder = ({ packs, point, perDay }: Reorder, leadDays: number): string =>
  `Order ${plural(packs, 'pack')}: reorder at ${Math.ceil(point.point)}, uses ${(perDay * MONTH_DAYS).toFixed(1)} a month, lead time ${plural(leadDays, 'day')}`;

/** How many of a part there are, as the heading of its page. */
export const sayPartNow = ({ name, onHand, retired }: Part & { readonly onHand: number }): string =>
  retired
    ? `${name}: no longer kept.`
    : onHand < 0
      ? `${name}: count it, the ledger says ${onHand}.`
      : onHand === 0
        ? `${name}: none on the shelf.`
        : `${name}: ${onHand} on the shelf.`;
