import { EXHAUST_SLOT, ROOM_SLOT } from '@/core/measure/detail';
import { type DetailEntry, parseDetail } from '@/core/measure/detail-entry';
import { type Method, METHODS } from '@/core/measure/methods';
import { type TraversePoint, traversePoints } from '@/core/measure/traverse';
import { type Pads, readingsOf } from './pads';

/** Inputs for the choice of the next slot. */
interface SlotState extends Pads {
  readonly method: Method;
  readonly details: Readonly<Record<Method, DetailEntry>>;
  readonly slotChoice: number | null;
}

const live = (state: SlotState) => readingsOf(state).filter((r) => r.struckBecause === null);

const planOf = (state: SlotState) => {
  const detail = parseDetail(state.details[state.method]);
  return detail.ok && detail.value.kind === 'traverse' ? detail.value.plan : null;
};

/** The opening (or the count) with the fewest readings, the first of them. */
const fewest = (state: SlotState, slots: readonly number[]): number => {
  const count = (slot: number) => live(state).filter((r) => r.slot === slot).length;
  return slots.reduce((best, s) => (count(s) < count(best) ? s : best), slots[0] ?? 0);
};

/** Which point, opening or count the next reading is. A struck point is asked for again. */
export const nextSlot = (state: SlotState): number => {
  if (state.slotChoice !== null) return state.slotChoice;
  const taken = new Set(live(state).map((r) => r.slot));
  const entry = state.details[state.method];
  if (entry.kind === 'round' || entry.kind === 'rectangular') {
    let slot = 0;
    while (taken.has(slot)) slot += 1;
    return slot;
  }
  if (entry.kind === 'curve')
    return fewest(
      state,
      entry.orifices.map((_, i) => i),
    );
  if (METHODS[state.method].form === 'particles') return fewest(state, [ROOM_SLOT, EXHAUST_SLOT]);
  return readingsOf(state).reduce((most, r) => Math.max(most, r.slot + 1), 0);
};

export interface TraverseStand {
  readonly traverse: number;
  readonly point: number;
  readonly points: number;
  readonly at: TraversePoint;
}

/** Where the probe goes next on a traverse; null for other methods, or before the duct is known. */
export const traverseStand = (state: SlotState): TraverseStand | null => {
  const plan = planOf(state);
  if (!plan) return null;
  const all = traversePoints(plan);
  const slot = nextSlot(state);
  const at = all[slot % all.length];
  return at
    ? { traverse: Math.floor(slot / all.length) + 1, point: (slot % all.length) + 1, points: all.length, at }
    : null;
};
