import { addDays } from '@/core/calendar/calendar-date';
import { insertOrder } from '@/server/repositories/plans';
import { insertLook, insertUsage } from '@/server/repositories/wear';
import type { MachineSpec } from './scenario';
import { momentOf, type Seeding } from './seeding';
import { seeded } from './random';

interface Inserted {
  readonly id: number;
  readonly stageIds: ReadonlyMap<string, number>;
}

const weekend = (day: string): boolean => [0, 6].includes(new Date(`${day}T12:00:00Z`).getUTCDay());

/** Run hours as the yard wrote them down, with projects that come and go, and the looks at the bags. */
export const insertWear = async (s: Seeding, spec: MachineSpec, { id, stageIds }: Inserted): Promise<void> => {
  // A separate random stream: earlier seeds do not change.
  const { uniform } = seeded(id * 97 + 5);
  const { used } = spec;
  if (used) {
    let busy = 1;
    for (let daysAgo = used.days; daysAgo >= 0; daysAgo -= 1) {
      const day = addDays(s.today, -daysAgo);
      if (uniform() < 0.04) busy = busy > 1 ? 0.8 : 1.5;
      const earlier = used.newDust !== undefined && daysAgo > used.newDust.daysAgo ? used.newDust : null;
      if (weekend(day) || uniform() < 0.1) continue;
      const hours =
        Math.round(10 * Math.min(9, used.hoursADay * busy * (0.6 + 0.8 * uniform()) * (earlier?.times ?? 1))) / 10;
      await insertUsage(s.db, {
        machineId: id,
        day,
        hours,
        dust: earlier?.before ?? spec.lastCollected,
        at: momentOf(s, daysAgo),
        by: 'AB',
      });
    }
  }
  for (const stage of spec.stages) {
    for (const [daysAgo, share] of stage.looks ?? []) {
      await insertLook(s.db, {
        stageId: stageIds.get(stage.name) ?? 0,
        day: addDays(s.today, -daysAgo),
        share,
        at: momentOf(s, daysAgo),
        by: 'MK',
      });
    }
  }
};

/** The open order: the collector's canister, which takes four weeks. */
export const insertOrders = async (s: Seeding): Promise<void> => {
  await insertOrder(s.db, {
    partId: s.partIds.get('F-CAN') ?? 0,
    quantity: 1,
    arrivesOn: addDays(s.today, 19),
    at: momentOf(s, 9),
    by: 'AB',
  });
};
