import { z } from 'zod';
import { RULE_SETS } from '@/core/dust/dust';
import { Day } from './day';
import { ClientId, Initials } from './requests';

/** The names of the clocks this machine knows; a name of another spelling is refused, not guessed. */
const isTimeZone = (name: string): boolean => {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
};

const LossShare = z.number().min(0.02).max(0.9);

const Cost = z.number().min(0).max(1e6);

const Minutes = z.number().min(0).max(1440);

/** Settings of a site; prices that are left out do not change. */
export const SiteBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  name: z.string().trim().min(1).max(80),
  timeZone: z
    .string()
    .max(60)
    .refine(isTimeZone, { params: { code: 'site.time-zone' } }),
  /** Metres above the sea; the lowest and the highest places people work at. */
  altitudeM: z.number().min(-430).max(5100),
  ruleSet: z.enum(RULE_SETS),
  thresholds: z
    .strictObject({ warnLoss: LossShare, actLoss: LossShare })
    .refine(({ warnLoss, actLoss }) => warnLoss < actLoss, { params: { code: 'site.limits' }, path: ['actLoss'] }),
  weekdays: z.array(z.int().min(0).max(6)).min(1).max(7),
  closed: z.array(Day).max(200),
  minutesADay: z.int().min(0).max(1440),
  prices: z
    .strictObject({
      currency: z.string().trim().max(8),
      lateFactor: z.number().min(0.1).max(100),
      openingCost: z.strictObject({ plain: Cost, controlled: Cost, contained: Cost }),
      openingMinutes: z.strictObject({ plain: Minutes, controlled: Minutes, contained: Minutes }),
    })
    .optional(),
});
export type SiteBody = z.infer<typeof SiteBody>;
