import { ClosedJson, ByOpeningJson } from '@/contracts/json-columns';
import { readStored } from '@/contracts/stored';
import { NEW_SITE, type Site } from '@/core/site/site';
import type { Db } from '../db/connect';

export const loadSite = async (db: Db): Promise<Site> => {
  const row = await db.selectFrom('site').selectAll().executeTakeFirst();
  if (!row) return NEW_SITE;
  return {
    name: row.name,
    timeZone: row.time_zone,
    altitudeM: row.altitude_m,
    ruleSet: row.rule_set,
    thresholds: { warnLoss: row.warn_loss, actLoss: row.act_loss },
    openHere: row.open_here === 1,
    working: { weekdays: Array.from(row.works_on, Number), closed: readStored(ClosedJson, row.closed_json) },
    minutesADay: row.minutes_a_day,
    prices: {
      currency: row.currency,
      lateFactor: row.late_factor,
      openingCost: readStored(ByOpeningJson, row.opening_json),
      openingMinutes: readStored(ByOpeningJson, row.opening_minutes_json),
    },
    setUp: true,
  };
};

export const saveSite = async (db: Db, site: Omit<Site, 'setUp'>): Promise<void> => {
  const values = {
    name: site.name,
    time_zone: site.timeZone,
    altitude_m: site.altitudeM,
    rule_set: site.ruleSet,
    warn_loss: site.thresholds.warnLoss,
    act_loss: site.thresholds.actLoss,
    open_here: site.openHere ? 1 : 0,
    works_on: site.working.weekdays.join(''),
    closed_json: JSON.stringify(site.working.closed),
    minutes_a_day: site.minutesADay,
    currency: site.prices.currency,
    late_factor: site.prices.lateFactor,
    opening_json: JSON.stringify(site.prices.openingCost),
    opening_minutes_json: JSON.stringify(site.prices.openingMinutes),
  };
  await db
    .insertInto('site')
    .values({ id: 1, ...values })
    .onConflict((c) => c.column('id').doUpdateSet(values))
    .execute();
};

export interface SettingChange {
  readonly at: string;
  readonly by: string;
  readonly setting: string;
  readonly before: string;
  readonly after: string;
}

export const insertSettingChanges = async (db: Db, changes: readonly SettingChange[]): Promise<void> => {
  if (changes.length === 0) return;
  await db
    .insertInto('setting_change')
    .values(changes.map(({ by, ...c }) => ({ ...c, by_initials: by })))
    .execute();
};

/** Changed settings, newest first. */
export const loadSettingChanges = async (db: Db, most: number): Promise<readonly SettingChange[]> => {
  const rows = await db.selectFrom('setting_change').selectAll().orderBy('id', 'desc').limit(most).execute();
  return rows.map(({ at, by_initials, setting, before, after }) => ({ at, by: by_initials, setting, before, after }));
};
