import type { GroupSet, MachineGroups } from './groups';
import type { Capacity } from './capacity';

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

interface Best {
  readonly cost: Float64Array;
  readonly pick: Int32Array;
}

/** For every set of tasks the cheapest way to split it into openings, each on the cheapest day it fits by itself. */
const splits = (days: readonly (number | null)[], { sets, left, tasks }: MachineGroups): Best => {
  const size = 2 ** tasks.length;
  const cost = new Float64Array(size);
  const pick = new Int32Array(size);
  for (let all = 1; all < size; all += 1) {
    const low = all & -all;
    // The lowest task left over alone is the way out when it fits nowhere.
    let best = (left[31 - Math.clz32(low)] ?? Infinity) + (cost[all ^ low] ?? 0);
    let chosen = 0;
    for (let part = all; part > 0; part = (part - 1) & all) {
      if (!(part & low)) continue;
      const set = sets[part];
      const day = days[part] ?? null;
      if (!set || day === null) continue;
      const here = costOn(set, day) + (cost[all ^ part] ?? 0);
      if (here < best) {
        best = here;
        chosen = part;
      }
    }
    cost[all] = best;
    pick[all] = chosen;
  }
  return { cost, pick };
};

const chosenSets = ({ pick }: Best, all: number): readonly number[] => {
  const chosen: number[] = [];
  for (let rest = all; rest > 0;) {
    const part = pick[rest] ?? 0;
    if (part > 0) chosen.push(part);
    rest ^= part > 0 ? part : rest & -rest;
  }
  return chosen;
};

/**
 * Lays one machine into the room that is left: every grouping of its tasks, each opening on its cheapest day. Two
 * openings that fit singly but not together are laid one after the other, the longer first. `lookPast` passes over a day
 * now and then, so that another machine may have it.
 */
export const insertMachine = (groups: MachineGroups, room: Capacity, lookPast?: () => boolean): PlacedMachine => {
  const { tasks, sets } = groups;
  const all = 2 ** tasks.length - 1;
  const days = sets.map((set) => (set ? room.cheapest(set, lookPast) : null));
  const chosen = [...chosenSets(splits(days, groups), all)].sort(
    (a, b) => (sets[b]?.minutes ?? 0) - (sets[a]?.minutes ?? 0),
  );
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

/**
 * No plan of this machine costs less in that room: the best grouping, each opening on the cheapest day it fits by itself,
 * whether they fit together or not. Source: relaxation; dynamic programming over sets of tasks. Valid: up to ten tasks.
 */
export const leastCost = (groups: MachineGroups, room: Capacity): number =>
  splits(
    groups.sets.map((set) => (set ? room.cheapest(set) : null)),
    groups,
  ).cost.at(-1) ?? 0;

/** Takes a machine's openings out of the room again. */
export const removeMachine = ({ openings }: PlacedMachine, room: Capacity): void => {
  for (const { set, day } of openings) room.take(set, day, -1);
};
