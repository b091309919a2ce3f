import type { Generated } from 'kysely';

/** Run hours of a machine on a day; the newest entry of a day counts. */
export interface UsageEntryTable {
  id: Generated<number>;
  machine_id: number;
  day: string;
  hours: number;
  dust: string;
  at: string;
  by_initials: string;
}

/** How full a stage was seen to be. */
export interface FillLookTable {
  id: Generated<number>;
  stage_id: number;
  day: string;
  share: number;
  at: string;
  by_initials: string;
}

export interface PartOrderTable {
  id: Generated<number>;
  part_id: number;
  quantity: number;
  arrives_on: string;
  at: string;
  by_initials: string;
}

export interface OrderArrivalTable {
  id: Generated<number>;
  order_id: number;
  at: string;
  by_initials: string;
}

/** A fixed day of a stage; the newest entry counts, null removes it. */
export interface PlanLockTable {
  id: Generated<number>;
  stage_id: number;
  day: string | null;
  at: string;
  by_initials: string;
}

export interface OutboxMessageTable {
  id: Generated<number>;
  message_key: string;
  at: string;
  subject: string;
  body: string;
}

/** Days on which a machine is away; the newest entry counts. */
export interface MachineAwayTable {
  id: Generated<number>;
  machine_id: number;
  from_day: string;
  to_day: string;
  why: string;
  at: string;
  by_initials: string;
}
