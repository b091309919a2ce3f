import { TABLE_WORDS } from './bundle';
/** The settings of a site, as its history names them. */
export const SETTING_WORDS = {
  name: 'Name',
  timeZone: 'Time zone',
  altitude: 'Altitude',
  ruleSet: 'Rules',
  warnLoss: 'Loss that warns',
  actLoss: 'Loss that acts',
  weekdays: 'Working days',
  closed: 'Closed on',
  minutesADay: 'Minutes a day',
  currency: 'Currency',
  lateFactor: 'A late day',
  openingCost: 'An opening',
  openingMinutes: 'Time of an opening',
  openHere: 'Open at this machine',
} as const;

export const WEEKDAY_WORDS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] as const;

const RULE_SETS: Readonly<Record<string, string>> = { eu_uk: 'EU and UK', us: 'US' };

/** The printed value of a setting: days and rules by name. */
export const saySetting = (setting: string, value: string): string =>
  value === ''
    ? 'nothing'
    : setting === 'weekdays'
      ? Array.from(value, (d) => WEEKDAY_WORDS[Number(d)] ?? d).join(', ')
      : setting === 'ruleSet'
        ? (RULE_SETS[value] ?? value)
        : value;

/** Why a backup was made. */
export const COPY_WORDS = {
  daily: 'Daily',
  asked: 'Made by hand',
  replaced: 'Records replaced by a restore',
} as const;

/** How many of something. */
export const sayCount = (n: number | undefined, one: string): string => `${n ?? 0} ${one}${n === 1 ? '' : 's'}`;

/** What bringing a copy back takes away: null where the records are damaged and cannot be counted. */
export const sayLost = (lost: Readonly<Record<string, number>> | null): string => {
  if (lost === null)
    return 'The records are damaged and cannot be counted: everything recorded after the backup would be lost. The damaged file is kept beside.';
  const words: Readonly<Record<string, readonly [string, string]>> = TABLE_WORDS;
  const said = Object.entries(lost).flatMap(([table, n]) => {
    const word = words[table];
    return word ? [`${n} ${word[n === 1 ? 0 : 1]}`] : [];
  });
  return said.length === 0 ? 'Nothing on record now would be lost.' : `Would be lost: ${said.join(', ')}.`;
};
