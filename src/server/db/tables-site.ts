import type { Generated } from 'kysely';

export interface SiteTable {
  id: Generated<number>;
  name: string;
  time_zone: string;
  altitude_m: number;
  rule_set: 'eu_uk' | 'us';
  warn_loss: number;
  act_loss: number;
  /** The server's own machine needs no passphrase. */
  open_here: Generated<number>;
  /** Days of the week it works, 0 is Sunday: "12345". */
  works_on: Generated<string>;
  /** Days it is closed besides. */
  closed_json: Generated<string>;
  minutes_a_day: Generated<number>;
  currency: Generated<string>;
  late_factor: Generated<number>;
  opening_json: Generated<string>;
  opening_minutes_json: Generated<string>;
}

/** A former tag of a machine: a printed label still finds it. */
export interface FormerTagTable {
  id: Generated<number>;
  machine_id: number;
  tag: string;
  at: string;
  by_initials: string;
}

/** A setting that was changed: from what, to what. */
export interface SettingChangeTable {
  id: Generated<number>;
  at: string;
  by_initials: string;
  setting: string;
  before: string;
  after: string;
}

/** A machine that was retired, or is back. The newest entry counts. */
export interface MachineRetirementTable {
  id: Generated<number>;
  machine_id: number;
  on_day: string;
  how: string;
  at: string;
  by_initials: string;
  note: string;
}

/** The name of a record that no other installation gives to another one. A trigger makes it. */
export interface IdentityTable {
  seq: Generated<number>;
  kind: string;
  row_id: number;
  uid: string;
}

/** An imported spreadsheet: its rows have the names between the two counts. */
export interface SheetImportTable {
  id: Generated<number>;
  kind: string;
  name: string;
  rows: number;
  first_seq: number;
  last_seq: number;
  at: string;
  by_initials: string;
}

export interface SheetUndoTable {
  id: Generated<number>;
  import_id: number;
  at: string;
  by_initials: string;
}

/** Holds a line only inside the transaction that takes an import back. */
export interface UndoingTable {
  import_id: number;
}
