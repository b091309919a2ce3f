import type { Generated } from 'kysely';

/** One complaint about a machine, and how it was taken up. */
export interface FaultCaseTable {
  id: Generated<number>;
  machine_id: number;
  opened_at: string;
  by_initials: string;
  complaint: string;
  words: string;
  hazard: string;
  last_collected: string;
  school: string;
}

/** One line of a case's log. */
export interface CaseEventTable {
  id: Generated<number>;
  case_id: number;
  at: string;
  by_initials: string;
  event_json: string;
}

/** One guided change, with the steps assembled at its start. */
export interface JobTable {
  id: Generated<number>;
  machine_id: number;
  started_at: string;
  by_initials: string;
  hazard: string;
  last_collected: string;
  procedure_json: string;
  reason: Generated<string>;
  people: Generated<number>;
  stages_json: Generated<string>;
}

/** One line of a job's log. */
export interface JobEventTable {
  id: Generated<number>;
  job_id: number;
  at: string;
  by_initials: string;
  event_json: string;
}

/** One test of a fine filter's seat after its change. */
export interface IntegrityCheckTable {
  id: Generated<number>;
  machine_id: number;
  stage_id: number;
  at: string;
  by_initials: string;
  test: string;
  passed: number;
  note: string;
}

/** A picture taken at a step of a job. */
export interface PhotoTable {
  id: Generated<number>;
  job_id: number;
  at: string;
  by_initials: string;
  media_type: string;
  bytes: Uint8Array;
}
