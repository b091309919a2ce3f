import type { Generated } from 'kysely';

/** A planned upgrade with its prediction. */
export interface UpgradeTable {
  id: Generated<number>;
  machine_id: number;
  at: string;
  by_initials: string;
  note: string;
  changes_json: string;
  price: number | null;
  predicted_json: string;
}

/** What became of one. */
export interface UpgradeEventTable {
  id: Generated<number>;
  upgrade_id: number;
  at: string;
  by_initials: string;
  event_json: string;
}

export interface UpgradePhotoTable {
  id: Generated<number>;
  upgrade_id: number;
  at: string;
  by_initials: string;
  media_type: string;
  bytes: Uint8Array;
}
