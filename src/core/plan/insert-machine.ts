import type { GroupSet, MachineGroups } from './groups';
import type { Capacity, Choosing } from './capacity';

/** One opening of a machine on a day. */
export interface Laid {
  readonly bits: number;
  readonly set: GroupSet;
  readonly day: number;
}

export interface PlacedMachine {
  readonly openings: readonly Laid[];
  readonly cost: number;
  /** Tasks, by bits, that found no day. */
  readonly left: number;
}

const costOn = (set: GroupSet, day: number): number => set.cost[day] ?? Infinity;

export interface Split {
  readonly cost: number;
  /** The sets it is split into, by their bits; tasks left over are in none. */
  readonly sets: readonly number[];
}

/** The cheapest way to split all tasks of a machine into openings, by what each set costs; Infinity for a set that may not be. Source: dynamic programming over sets. Valid: up to ten tasks. */
export const splitsBy = ({ left, tasks }: MachineGroups, costOfSet: (bits: number) => number): Split => {
  const size = 2 ** tasks.length;
  const cost = new Float64Array(size);
  const pick = new Int32Array(size);
  const ofSet = Float64Array.from({ length: size }, (_, bits) => (bits === 0 ? Infinity : costOfSet(bits)));
  for (let all = 1; all < size; all += 1) {
    const low = all & -all;
    // The lowest task left over alone is the way out when it fits nowhere.
    let best = (left[31 - Math.clz32(low)] ?? Infinity) + (cost[all ^ low] ?? 0);
    let chosen = 0;
    for (let part = all; part > 0; part = (part - 1) & all) {
      if (!(part & low)) continue;
      const here = (ofSet[part] ?? Infinity) + (cost[all ^ part] ?? 0);
      if (here < best) {
        best = here;
        chosen = part;
      }
    }
    cost[all] = best;
    pick[all] = chosen;
  }
  const sets: number[] = [];
  for (let rest = size - 1; rest > 0;) {
    const part = pick[rest] ?? 0;
    if (part > 0) sets.push(part);
    rest ^= part > 0 ? part : rest & -rest;
  }
  return { cost: cost[size - 1] ?? 0, sets };
};

/**
 * Lays one machine into the room that is left: every grouping of its tasks, each opening on its cheapest day. Two
 * openings that fit singly but not together are placed in turn, the longer first. `choosing` passes over days now and
 * then, or prices them, so that another machine may have them.
 */
export const insertMachine = (groups: MachineGroups, room: Capacity, choosing?: Choosing): PlacedMachine => {
  const { tasks, sets } = groups;
  const all = 2 ** tasks.length - 1;
  const days = sets.map((set) => (set ? room.cheapest(set, choosing) : null));
  const { sets: split } = splitsBy(groups, (bits) => {
    const [set, day] = [sets[bits], days[bits] ?? null];
    return set && day !== null ? costOn(set, day) + (choosing?.prices?.[day] ?? 0) * set.minutes : Infinity;
  });
  const chosen = [...split].sort((a, b) => (sets[b]?.minutes ?? 0) - (sets[a]?.minutes ?? 0));
  const openings: Laid[] = [];
  let placed = 0;
  for (const bits of chosen) {
    const set = sets[bits];
    const wanted = days[bits] ?? null;
    const day = set && wanted !== null && room.fits(set, wanted) ? wanted : set ? room.cheapest(set) : null;
    if (!set || day === null) continue;
    room.take(set, day);
    openings.push({ bits, set, day });
    placed |= bits;
  }
  const left = all & ~placed;
  const missing = groups.left.reduce((sum, cost, i) => sum + (left & (1 << i) ? cost : 0), 0);
  return { openings, left, cost: openings.reduce((sum, o) => sum + costOn(o.set, o.day), 0) + missing };
};

/** Takes a machine's openings out of the room again. */
export const removeMachine = ({ openings }: PlacedMachine, room: Capacity): void => {
  for (const { set, day } of openings) room.take(set, day, -1);
};
