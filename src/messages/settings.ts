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
  openHere: 'Open at this machine',
} as const;

export const WEEKDAY_WORDS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] as const;

const RULE_SETS: Readonly<Record<string, string>> = { eu_uk: 'EU and UK', us: 'US' };

/** A value of a setting as it is said: days by name, rules by theirs. */
export const saySetting = (setting: string, value: string): string =>
  value === ''
    ? 'nothing'
    : setting === 'weekdays'
      ? Array.from(value, (d) => WEEKDAY_WORDS[Number(d)] ?? d).join(', ')
      : setting === 'ruleSet'
        ? (RULE_SETS[value] ?? value)
        : value;
