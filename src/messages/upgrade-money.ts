import type { UnitSystem } from '@/core/units';
import type { ContainerFit } from '@/core/upgrade/container';
import type { Payback, Range } from '@/core/upgrade/payback';
import { money } from './plan';
import { size } from './upgrade';

// Cost and savings of an upgrade, and how long a container lasts, in words.

const years = (y: number): string =>
  !Number.isFinite(y)
    ? 'never'
    : y < 0.08
      ? 'at once'
      : y < 2
        ? `${Math.max(1, Math.round(12 * y))} months`
        : `${Number(y.toFixed(1))} years`;

const chanceOf = (share: number): string =>
  share < 0.02
    ? 'very unlikely not to within 10 years'
    : share > 0.98
      ? 'very unlikely to within 10 years'
      : `${Math.max(1, Math.round(10 * share))} in 10 that it does not within 10 years`;

/** When it pays, with its chance. */
export const sayPayback = (p: Payback, price: number): string => {
  if (p.savedPerYear.high <= 1e-9)
    return p.savedPerYear.low < -1e-9
      ? 'It never pays in money: it costs more a year than it saves.'
      : 'It never pays in money: it saves nothing.';
  if (price <= 0) return `It saves from the first day; no price was typed.`;
  if (!Number.isFinite(p.years.middle)) return `It most likely never pays in money; ${chanceOf(p.never)}.`;
  const to = Number.isFinite(p.years.high)
    ? `${years(p.years.low)} to ${years(p.years.high)}`
    : `${years(p.years.low)} or more, or never`;
  return `Pays in ${to}, most likely ${years(p.years.middle)}; ${chanceOf(p.never)}.`;
};

export const sayRange = ({ low, middle, high }: Range, currency: string): string =>
  `${money(middle, currency)} (${money(low, '')} to ${money(high, '')})`;

export const sayHangsOn = (h: NonNullable<Payback['hangsOn']>): string =>
  h.of === 'life'
    ? `It hangs most on how long the ${h.name} lasts today.`
    : `It hangs most on how much longer the ${h.name} really lasts afterwards.`;

/** Whether a bottom container goes under, and how long it lasts. */
export const sayContainer = ({ roomM, daysToFull }: ContainerFit, units: UnitSystem): string => {
  const room =
    roomM === null
      ? 'Measure the room under the machine, and the container.'
      : roomM >= 0
        ? `It goes under, with ${size(roomM, units)} to spare.`
        : `It does not go under: ${size(-roomM, units)} too tall.`;
  const full =
    daysToFull === null
      ? 'How long it lasts is not known: type the volume of the one there now; the ledger wants two changes of it.'
      : `Full in about ${Math.max(1, Math.round(daysToFull))} days, at the dust of this machine.`;
  return `${room} ${full}`;
};

const openings = (n: number): string =>
  `${Number(n.toPrecision(2))} ${Number(n.toPrecision(2)) === 1 ? 'opening' : 'openings'}`;

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
  const minutes = (n: number): string => `${Number((n * minutesEach).toPrecision(2))} minutes`;
  return `It is opened for about ${openings(before)} a year, ${minutes(before)}; afterwards for ${openings(after)}, ${minutes(after)}, and for what it adds.`;
};
