import { chanceWord, inTenths } from '@/core/numeric/chance-word';
import { type UnitSystem, toDigits } from '@/core/units';
import { type ContainerFit, goesUnder } from '@/core/upgrade/container';
import type { Payback, Range } from '@/core/upgrade/payback';
import { size } from './upgrade';
import { money, years } from './format';

// Cost and savings of an upgrade, and how long a container lasts, in words.

/** The chance that it does not pay within ten years. */
const chanceOf = (never: number): string => {
  switch (chanceWord(never)) {
    case 'hardly':
      return 'almost surely within 10 years';
    case 'surely':
      return 'almost surely not within 10 years';
    case 'figure':
      return `in ${inTenths(never)} cases of 10 not within 10 years`;
  }
};

/** When it pays, with its chance. */
export const sayPayback = (p: Payback): string => {
  switch (p.outcome) {
    case 'costsMore':
      return 'It never pays in money: it costs more a year than it saves.';
    case 'savesNothing':
      return 'It never pays in money: it saves nothing.';
    case 'noPrice':
      return 'It saves from the first day; no price was typed.';
    case 'likelyNever':
      return `It most likely never pays in money; ${chanceOf(p.never)}.`;
    case 'pays': {
      const to = Number.isFinite(p.years.high)
        ? `${years(p.years.low)} to ${years(p.years.high)}`
        : `${years(p.years.low)} or more, or never`;
      return `Pays in ${to}, most likely ${years(p.years.middle)}; ${chanceOf(p.never)}.`;
    }
  }
};

export const sayRange = ({ low, middle, high }: Range, currency: string): string =>
  `${money(middle, currency)} (${money(low, '')} to ${money(high, '')})`;

export const sayHangsOn = (h: NonNullable<Payback['hangsOn']>): string =>
  h.of === 'life'
    ? `It depends most on how long the ${h.name} lasts today.`
    : `It depends most on how much longer the ${h.name} lasts afterwards.`;

/** Whether a bottom container goes under, and how long it lasts. */
export const sayContainer = ({ roomM, daysToFull }: ContainerFit, units: UnitSystem): string => {
  const room =
    roomM === null
      ? 'Measure the room under the machine, and the container.'
      : goesUnder({ roomM })
        ? `It goes under, with ${size(roomM, units)} to spare.`
        : `It does not go under: ${size(-roomM, units)} too tall.`;
  const full =
    daysToFull === null
      ? 'How long it lasts is not known: type the volume of the one there now; the ledger wants two changes of it.'
      : `Full in about ${Math.max(1, Math.round(daysToFull))} days, at the dust of this machine.`;
  return `${room} ${full}`;
};

const openings = (n: number): string => `${toDigits(n, 2)} ${toDigits(n, 2) === 1 ? 'opening' : 'openings'}`;

/** How often it is opened for changes, and for how long. */
export const sayOpenings = ({
  before,
  after,
  minutesEach,
}: {
  readonly before: number;
  readonly after: number;
  readonly minutesEach: number;
}): string => {
  const minutes = (n: number): string => `${toDigits(n * minutesEach, 2)} minutes`;
  return `It is opened for about ${openings(before)} a year, ${minutes(before)}; afterwards for ${openings(after)}, ${minutes(after)}, and for what it adds.`;
};
