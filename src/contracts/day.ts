import { z } from 'zod';

/** Days that a record of a workshop can have; outside them it is a slip of the pen. */
const FIRST_DAY = '1990-01-01';
const LAST_DAY = '2099-12-31';

export const Day = z.iso.date().refine((day) => day >= FIRST_DAY && day <= LAST_DAY, {
  params: { code: 'date.invalid' },
});
