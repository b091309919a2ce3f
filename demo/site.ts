import { NEW_SITE, type Site } from '@/core/site/site';

export const SITE: Omit<Site, 'setUp'> = {
  name: 'Curlew Reach Boatyard',
  timeZone: 'Europe/London',
  altitudeM: 4,
  ruleSet: 'eu_uk',
  thresholds: { warnLoss: 0.15, actLoss: 0.25 },
  openHere: true,
  working: { weekdays: [1, 2, 3, 4, 5], closed: [] },
  prices: NEW_SITE.prices,
  minutesADay: 120,
};
