import type { Between } from './gain';
import type { UpgradeChange } from './change';

/** What happened to a planned upgrade. */
export type UpgradeEvent =
  /** It was made: the edit of the path, null where no air path changed, and the test from before. */
  | { readonly kind: 'booked'; readonly editId: number | null; readonly beforeTestId: number; readonly note: string }
  | { readonly kind: 'undone'; readonly editId: number | null; readonly note: string }
  | { readonly kind: 'dropped'; readonly note: string };

export interface UpgradeRecord {
  readonly id: number;
  readonly machineId: number;
  readonly at: string;
  readonly by: string;
  readonly note: string;
  readonly changes: readonly UpgradeChange[];
  readonly price: number | null;
  /** The prediction when it was planned: the flow at the tool before, m3/s, and after over before. */
  readonly predicted: { readonly flowM3s: number; readonly ratio: Between };
  /** The newest picture of it; null where there is none. */
  readonly photoId: number | null;
  readonly events: readonly { readonly at: string; readonly by: string; readonly event: UpgradeEvent }[];
}

export type UpgradePhase = 'planned' | 'booked' | 'undone' | 'dropped';

export const phaseOf = ({ events }: UpgradeRecord): UpgradePhase => events.at(-1)?.event.kind ?? 'planned';

/** The booked state and its date; null where it is not booked, or no longer. */
export const bookedOf = ({ events }: UpgradeRecord) => {
  const found = events.find((e) => e.event.kind === 'booked');
  return found?.event.kind === 'booked' ? { at: found.at, ...found.event } : null;
};
