import { toDecimals } from '@/core/units';
import { PlainAnswer } from '@/contracts/action-answer';
import type { SiteBody } from '@/contracts/site';
import { ok, type Result } from '@/core/failure/failure';
import type { Db } from '../../db/connect';
import type { Site } from '@/core/site/site';
import {
  insertSettingChanges,
  loadSettingChanges,
  loadSite,
  saveSite,
  type SettingChange,
} from '../../repositories/site';
import { type Context, runOnce } from './user-action';

/** The settings of a site that can be changed, by the name the history of settings has for each. */
export const SETTINGS = {
  name: (s: Site) => s.name,
  timeZone: (s: Site) => s.timeZone,
  altitude: (s: Site) => `${toDecimals(s.altitudeM, 1)} m`,
  ruleSet: (s: Site) => s.ruleSet,
  warnLoss: (s: Site) => `${toDecimals(100 * s.thresholds.warnLoss, 1)} %`,
  actLoss: (s: Site) => `${toDecimals(100 * s.thresholds.actLoss, 1)} %`,
  weekdays: (s: Site) => s.working.weekdays.join(''),
  closed: (s: Site) => s.working.closed.join(', '),
  minutesADay: (s: Site) => `${s.minutesADay} min`,
  currency: (s: Site) => s.prices.currency,
  lateFactor: (s: Site) => String(s.prices.lateFactor),
  openingCost: ({ prices: { openingCost: c } }: Site) =>
    `plain ${c.plain}, controlled ${c.controlled}, contained ${c.contained}`,
  openingMinutes: ({ prices: { openingMinutes: m } }: Site) =>
    `plain ${m.plain} min, controlled ${m.controlled} min, contained ${m.contained} min`,
  openHere: (s: Site) => (s.openHere ? 'yes' : 'no'),
} as const satisfies Record<string, (s: Site) => string>;
export type Setting = keyof typeof SETTINGS;

interface Changed {
  readonly after: Site;
  readonly by: string;
  readonly at: string;
}

/** Saves the site and writes down what of it was changed, from what, to what. */
export const changeSite = async (tx: Db, { after, by, at }: Changed): Promise<void> => {
  const before = await loadSite(tx);
  await saveSite(tx, after);
  const changes = (Object.keys(SETTINGS) as Setting[]).flatMap((setting) => {
    const [was, is] = [SETTINGS[setting](before), SETTINGS[setting](after)];
    return was === is && before.setUp ? [] : [{ at, by, setting, before: before.setUp ? was : '', after: is }];
  });
  await insertSettingChanges(tx, changes);
};

/** Stores the settings of the site: at the first start and at later changes. */
export const keepSite = async ({ db, now }: Context, body: SiteBody): Promise<Result<{ readonly id: number }>> =>
  runOnce(db, { kind: 'site', body, at: now(), answers: PlainAnswer }, async (tx) => {
    const { by, name, timeZone, altitudeM, ruleSet, thresholds, minutesADay } = body;
    const working = {
      weekdays: [...new Set(body.weekdays)].sort((a, b) => a - b),
      closed: [...new Set(body.closed)].sort(),
    };
    const site = await loadSite(tx);
    await changeSite(tx, {
      after: {
        ...site,
        name,
        timeZone,
        altitudeM,
        ruleSet,
        thresholds,
        minutesADay,
        working,
        prices: body.prices ?? site.prices,
      },
      by,
      at: now(),
    });
    return ok({ id: 1 });
  });

const SHOWN_CHANGES = 60;

/** The newest changes of the settings, newest first. */
export const settingHistory = ({ db }: Pick<Context, 'db'>): Promise<readonly SettingChange[]> =>
  loadSettingChanges(db, SHOWN_CHANGES);
