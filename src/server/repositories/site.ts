import type { LossThresholds } from '@/core/measure/judge-baseline';
import type { Db } from '../db/connect';

export interface Site {
  readonly name: string;
  readonly timeZone: string;
  readonly altitudeM: number;
  readonly ruleSet: 'eu_uk' | 'us';
  readonly thresholds: LossThresholds;
  /** Whoever sits at the server's own machine needs no passphrase. */
  readonly openHere: boolean;
}

/** What a new, empty installation starts with. */
export const NEW_SITE: Site = {
  name: 'My workshop',
  timeZone: 'Europe/London',
  altitudeM: 0,
  ruleSet: 'eu_uk',
  thresholds: { warnLoss: 0.15, actLoss: 0.25 },
  openHere: true,
};

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
  };
};

export const saveSite = async (db: Db, site: Site): Promise<void> => {
  const values = {
    name: site.name,
    time_zone: site.timeZone,
    altitude_m: site.altitudeM,
    rule_set: site.ruleSet,
    warn_loss: site.thresholds.warnLoss,
    act_loss: site.thresholds.actLoss,
    open_here: site.openHere ? 1 : 0,
  };
  await db
    .insertInto('site')
    .values({ id: 1, ...values })
    .onConflict((c) => c.column('id').doUpdateSet(values))
    .execute();
};
