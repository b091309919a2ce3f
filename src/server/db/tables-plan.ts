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

export interface StageStartTable {
  id: Generated<number>;
  stage_id: number;
  day: string;
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

/** The day the last plan named for one change of a stage, counted by the changes before it; no record, a new plan replaces it. */
export interface PlanPromiseTable {
  stage_id: number;
  cycle: number;
  day: string;
  /** The day it was named on. */
  set_on: string;
  /** The facts on that day: the middle day of its forecast, the first day of its part, the number of records of its machine. */
  middle: string;
  part_day: string | null;
  records: number;
  /** 1 where it was fixed by hand. */
  locked: number;
  /** The day before the last move, the day of that move, and its reason. */
  moved_from: string | null;
  moved_on: string | null;
  because: string | null;
}
