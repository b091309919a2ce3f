import type { Generated } from 'kysely';

/** An entry of the site's own register, or its edit of a shipped one; the newest of a key counts. */
export interface DustEntryTable {
  id: Generated<number>;
  key: string;
  dust_json: string;
  at: string;
  by_initials: string;
}

/** A tool of the yard's own; the newest row of a key holds. */
export interface ToolEntryTable {
  id: Generated<number>;
  key: string;
  tool_json: string;
  at: string;
  by_initials: string;
}

/** A continuity reading; null ohm where the meter read open. */
export interface BondingReadingTable {
  id: Generated<number>;
  machine_id: number;
  measured_on: string;
  ohm: number | null;
  between_text: string;
  at: string;
  by_initials: string;
}

/** A statement of the dust a machine has collected. */
export interface DustCollectedTable {
  id: Generated<number>;
  machine_id: number;
  since_on: string | null;
  said: string;
  confirmed_json: string;
  denied_json: string;
  answers_json: string;
  own_level: string | null;
  lower_because: string;
  at: string;
  by_initials: string;
}

export interface DecontaminationTable {
  id: Generated<number>;
  machine_id: number;
  on_day: string;
  how: string;
  paper: string;
  job_id: number | null;
  at: string;
  by_initials: string;
}

/** A penetration test of the whole machine by a competent person. */
export interface PenetrationTestTable {
  id: Generated<number>;
  machine_id: number;
  tested_on: string;
  tester: string;
  method: string;
  certificate: string;
  share: number;
  limit_share: number;
  next_due_on: string | null;
  at: string;
  by_initials: string;
}

export interface ExaminationTable {
  id: Generated<number>;
  machine_id: number;
  examined_on: string;
  examiner: string;
  found: string;
  at: string;
  by_initials: string;
}

/** The seat of a stage was opened without a change on record: a trial, a look, a part put back. */
export interface SeatOpeningTable {
  id: Generated<number>;
  stage_id: number;
  why: string;
  at: string;
  by_initials: string;
}
