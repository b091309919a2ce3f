import type { Generated } from 'kysely';

/** One row: how many writes the records have seen. Triggers count it. */
export interface YardRevisionTable {
  id: number;
  n: number;
}

/** Made from the records of one machine, and taken away by the triggers as soon as one of them changes. */
export interface MadeTable {
  rev: Generated<number>;
  machine_id: number;
  /** The build that made it: another build makes it again. */
  made_by: string;
  /** The day it holds for; '' for any day. */
  made_for: string;
  content_json: string;
}

/** The sum of all movements of a part; a trigger keeps it. */
export interface StockOnHandTable {
  part_id: number;
  quantity: number;
}
