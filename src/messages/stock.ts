import { fixed } from '@/core/units';
import { entry } from './words';
import type { Reorder } from '@/core/stock/demand';
import type { NoMerge } from '@/core/stock/merge';
import type { Part } from '@/core/stock/part';
import { isBelowNone } from '@/core/stock/ledger';

/** What moved a part, beside who did. */
export const sayMovementOf = (
  of: { readonly kind: 'none' } | { readonly kind: 'change' | 'job' | 'case'; readonly id: number },
): string => (of.kind === 'none' || of.kind === 'change' ? '' : `${of.kind} ${of.id}`);

/** Why two entries are not made one, of the one that would go and the one that would stay. */
export const NO_MERGE_WORDS: Readonly<Record<NoMerge, (gone: string, kept: string) => string>> = {
  same: () => 'That is one and the same entry.',
  alreadyMerged: (gone) => `${gone === '' ? 'It' : gone} was made one with another part already.`,
  keptIsRetired: (_, kept) => `${kept} is retired.`,
  onOrder: (gone) => `Some of ${gone} are still on order: book them in first.`,
  held: (gone) => `An open job or case has ${gone} in hand: end it first.`,
  otherMedium: (gone, kept) => `${gone} and ${kept} are of different media.`,
  otherArea: (gone, kept) => `${gone} and ${kept} differ in area.`,
  otherRating: (gone, kept) => `${gone} and ${kept} differ in rating.`,
  otherSeat: (gone, kept) => `${gone} and ${kept} are fitted in different kinds of stage.`,
};

/** Why two entries are not made one, in a sentence. */
export const sayNoMerge = (why: string, gone: string, kept: string): string =>
  (entry(NO_MERGE_WORDS, why) ?? NO_MERGE_WORDS.alreadyMerged)(gone, kept);

const MONTH_DAYS = 30;
const plural = (n: number, one: string): string => `${n} ${n === 1 ? one : `${one}s`}`;

/** What to order. */
export const sayOrder = ({ packs }: Reorder): string => `Order ${plural(packs, 'pack')}`;

/** Why it is ordered now. */
export const sayWhyOrder = ({ point, perDay }: Reorder, leadDays: number): string =>
  `reorder at ${Math.ceil(point.point)}, uses ${fixed(perDay * MONTH_DAYS, 1)} a month, lead time ${plural(leadDays, 'day')}`;

/** Where a part lies and comes from. */
export const sayPartLine = (part: Part, price: string): string =>
  [
    part.code,
    `packs of ${part.packSize}`,
    ...(part.bin === '' ? [] : [`bin ${part.bin}`]),
    ...(part.supplier === '' ? [] : [`from ${part.supplier}`]),
    ...(price === '' ? [] : [`${price} a piece`]),
  ].join(', ');

/** How many of a part there are, as the heading of its page. */
export const sayPartNow = ({ name, onHand, retired }: Part & { readonly onHand: number }): string =>
  retired
    ? `${name}: retired.`
    : isBelowNone(onHand)
      ? `${name}: count it, the ledger says ${onHand}.`
      : onHand === 0
        ? `${name}: none on the shelf.`
        : `${name}: ${onHand} on the shelf.`;
