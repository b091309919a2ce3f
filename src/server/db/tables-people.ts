import type { Generated } from 'kysely';

export interface PersonTable {
  id: Generated<number>;
  initials: string;
  name: string;
  role: string;
  may_contain: number;
  mask_fit_on: string | null;
  trained_on: string | null;
  active: number;
  /** Salt, parameters and hash; null until one is chosen. */
  passphrase: string | null;
  /** Hash of the code for choosing a passphrase. */
  code_hash: string | null;
  code_until: string | null;
  added_at: string;
}

export interface SessionTable {
  id: Generated<number>;
  token_hash: string;
  person_id: number;
  began_at: string;
  seen_at: string;
  ends_at: string;
  ended_at: string | null;
  address: string;
}

/** Access keys of programs: a calendar, a label, a meter's bridge. */
export interface AccessKeyTable {
  id: Generated<number>;
  key_hash: string;
  purpose: string;
  name: string;
  made_by: string;
  made_at: string;
  revoked_at: string | null;
}

/** An entry about a person's time, as in contracts/crew. */
export interface CrewEntryTable {
  id: Generated<number>;
  person_id: number;
  at: string;
  by_initials: string;
  entry_json: string;
}

export interface AuditLineTable {
  id: Generated<number>;
  at: string;
  who: string;
  kind: string;
  detail: string;
  address: string;
}
