import type { Site } from '@/server/repositories/site';

export const SITE: Site = {
  name: 'Curlew Reach Boatyard',
  timeZone: 'Europe/London',
  altitudeM: 4,
  ruleSet: 'eu_uk',
  thresholds: { warnLoss: 0.15, actLoss: 0.25 },
  openHere: true,
};
