import { HOUR_MS } from '@/core/calendar/time';
import { LEAST_SAID, MOST_SAID } from '@/core/diagnose/likely';
import { showPercent, toDigits, toDecimals, fixed } from '@/core/units';

// Numbers as a person reads them. Only here do messages compare numbers, and only to choose digits, units and plurals:
// a comparison that means something belongs in the core.

/** A number of days, without its sign. */
export const days = (n: number): string => (Math.abs(n) === 1 ? `${Math.abs(n)} day` : `${Math.abs(n)} days`);

/** A distance in days, in words: days up to two weeks, then weeks, then months. */
export const howFar = (n: number): string => {
  const size = Math.abs(n);
  if (size < 15) return days(size);
  if (size < 90) return `${Math.round(size / 7)} weeks`;
  return `${Math.round(size / 30.4)} months`;
};

/** A day of the past in words; '' for a day that is still to come. */
export const ago = (days: number): string =>
  days === 0 ? 'today' : days === 1 ? 'yesterday' : days < 0 ? '' : `${days} days ago`;

const DAY_HOURS = 24;

/** How long ago something was, roughly. */
export const sayAge = (at: string, now: string): string => {
  const hours = Math.floor((Date.parse(now) - Date.parse(at)) / HOUR_MS);
  if (hours < 1) return 'less than an hour old';
  if (hours < DAY_HOURS) return `${hours} ${hours === 1 ? 'hour' : 'hours'} old`;
  const days = Math.floor(hours / DAY_HOURS);
  return `${days} ${days === 1 ? 'day' : 'days'} old`;
};

/** Days as a range a person would say: "in 3 to 5 weeks", "now". */
export const sayRange = (low: number, high: number): string => {
  const [a, b] = [Math.max(0, Math.round(low)), Math.round(high)];
  if (b <= 1) return 'now';
  if (b < 21) return a === b ? `in ${b} days` : `in ${a} to ${b} days`;
  const weeks = (d: number) => Math.round(d / 7);
  if (b < 120) return weeks(a) === weeks(b) ? `in ${weeks(b)} weeks` : `in ${weeks(a)} to ${weeks(b)} weeks`;
  const months = (d: number) => Math.round(d / 30.4);
  return months(a) === months(b) ? `in ${months(b)} months` : `in ${months(a)} to ${months(b)} months`;
};

/** The same, short enough for the strip. */
export const shortRange = (low: number, high: number): string => {
  if (high < 0) return 'past';
  const [unit, word] = high < 21 ? [1, 'd'] : high < 120 ? [7, 'wk'] : [30.4, 'mo'];
  const [a, b] = [Math.max(0, Math.round(low / unit)), Math.round(high / unit)];
  return a === b ? `${b} ${word}` : `${a}-${b} ${word}`;
};

/** A wait in seconds or minutes. */
export const waitText = (seconds: number): string =>
  seconds < 60 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} ${seconds <= 60 ? 'minute' : 'minutes'}`;

/** Run hours in text: one digit below 10 h, two digits above. The forecast is less exact than more digits suggest. */
export const runHours = (h: number): string => `${toDigits(h, h < 10 ? 1 : 2)} h`;

/** A payback time in years, in words. */
export const years = (y: number): string =>
  !Number.isFinite(y)
    ? 'never'
    : y < 0.08
      ? 'at once'
      : y < 2
        ? `${Math.max(1, Math.round(12 * y))} months`
        : `${toDecimals(y, 1)} years`;

/** A sum of money, behind the site's own currency where it has said one. */
export const money = (value: number, currency = ''): string =>
  `${currency === '' ? '' : `${currency} `}${fixed(value, value < 100 ? 1 : 0)}`;

const MEGABYTE = 1e6;

/** The size of a file. */
export const saySize = (bytes: number): string =>
  bytes < MEGABYTE ? `${Math.ceil(bytes / 1000)} kB` : `${fixed(bytes / MEGABYTE, 1)} MB`;

/** Ohm as a meter shows them. */
export const sayOhm = (ohm: number | null): string =>
  ohm === null
    ? 'open'
    : ohm >= 1e6
      ? `${toDigits(ohm / 1e6, 3)} MΩ`
      : ohm >= 1e3
        ? `${toDigits(ohm / 1e3, 3)} kΩ`
        : `${toDigits(ohm, 3)} Ω`;

/** A share as a technician reads it: three digits, never "0.00". */
export const sayShare = (share: number): string => {
  const percent = share * 100;
  if (percent === 0) return '0 %';
  return percent < 1e-4 ? 'under 0.0001 %' : `${toDigits(percent, percent >= 99 ? 5 : 3)} %`;
};

/** A probability as a person says it: never 0 or 100 %. */
export const sayProbability = (p: number): string =>
  p > MOST_SAID ? 'over 99 %' : p < LEAST_SAID ? 'under 1 %' : `${Math.round(100 * p)} %`;

/** A ratio as a change in per cent, with its sign. */
export const signedPercent = (ratio: number): string => {
  const p = 100 * (ratio - 1);
  return `${p >= 0 ? '+' : '−'}${toDecimals(Math.abs(p), Math.abs(p) < 10 ? 1 : 0)} %`;
};

/** A loss against the baseline, as a share; below zero it is a gain. */
export const againstBaseline = (loss: number): string =>
  Math.abs(loss) < 0.005 ? 'level with the baseline' : `${showPercent(loss)} ${loss > 0 ? 'below' : 'above'} baseline`;

/** The 95 % interval of a loss, in per cent. */
export const lossInterval = (v: { lossFraction: number; expanded: number }): string => {
  const low = (v.lossFraction - v.expanded) * 100;
  const high = (v.lossFraction + v.expanded) * 100;
  if (low >= 0) return `Loss: ${fixed(low, 1)} to ${fixed(high, 1)} % (95 % interval).`;
  if (high <= 0) return `Gain: ${fixed(-high, 1)} to ${fixed(-low, 1)} % (95 % interval).`;
  return `From ${fixed(-low, 1)} % gained to ${fixed(high, 1)} % lost (95 % interval).`;
};

/** A loss is below the baseline, a gain above. */
export const belowOrAbove = (loss: number): 'below' | 'above' => (loss >= 0 ? 'below' : 'above');

/** A change below zero is less. */
export const lessOrMore = (change: number): 'less' | 'more' => (change < 0 ? 'less' : 'more');

/** A share with its sign. */
export const signedShare = (share: number): string => `${share >= 0 ? '+' : '-'}${showPercent(share)}`;

/** The p value of a test, never 0. */
export const pValue = (p: number): string => (p < 0.001 ? 'below 0.001' : `= ${fixed(p, 3)}`);

/** Minutes of a test; seconds for a short one. */
export const aboutMinutes = (minutes: number): string =>
  minutes < 1
    ? `${Math.round(minutes * 60)} seconds`
    : `about ${Math.round(minutes)} ${Math.round(minutes) === 1 ? 'minute' : 'minutes'}`;

/** A factor: one decimal while it is small. */
export const times = (factor: number): string => (factor < 10 ? fixed(factor, 1) : String(Math.round(factor)));

/** From this bore on a line is a duct. Choice: hoses of the trade end at 76 mm, ducts begin at 80 mm. */
const DUCT_M = 0.08;

/** A line by its bore, in m. */
export const lineOfBore = (boreM: number): 'duct' | 'hose' => (boreM >= DUCT_M ? 'duct' : 'hose');

/** The rest of a list that was cut; '' when nothing was. */
export const andMore = (n: number): string => (n > 0 ? ` and ${n} more` : '');

/** The value when it is above zero, as a list of one; else an empty list. */
export const whereAbove0 = (n: number, say: (n: number) => string): readonly string[] => (n > 0 ? [say(n)] : []);
