import { costByDay, MOST_ENUMERATED, UNPLACED } from './groups';
import { planOverTime } from './over-time';
import { mayLie, type PlanProblem } from './problem';

/** Tasks that must share a day, as one lump, by the middle of the first one's reach. */
const lumps = (problem: PlanProblem, machine: number): readonly (readonly number[])[] => {
  const mine = problem.tasks.flatMap((t, i) => (t.machine === machine ? [i] : []));
  const heads = mine.filter((i) => problem.tasks[i]?.onlyWith === null);
  const of = (head: number) => [
    head,
    ...mine.filter((i) => i !== head && problem.tasks[i]?.onlyWith === problem.tasks[head]?.id),
  ];
  return heads
    .map(of)
    .sort((a, b) => (problem.tasks[a[0] ?? 0]?.reached[2] ?? 0) - (problem.tasks[b[0] ?? 0]?.reached[2] ?? 0));
};

/** Tasks of a part of a large machine, unless one opening has more. */
const PART_TASKS = 6;

/** The lumps of a machine by the opening that is best for them while the machine has all days to itself, in time. */
const byOpening = (problem: PlanProblem, machine: number): readonly (readonly (readonly number[])[])[] => {
  const facts = problem.machines[machine];
  const days = problem.minutes.flatMap((there, day) => (there > 0 && !facts?.blockedDays.has(day) ? [day] : []));
  const all = lumps(problem, machine);
  const costs = all.map((lump) => {
    const sum = new Float64Array(problem.minutes.length);
    for (const i of lump) {
      const t = problem.tasks[i];
      if (!t) continue;
      const own = costByDay(t, sum.length);
      sum.forEach((c, day) => (sum[day] = c + (mayLie(t, day) ? (own[day] ?? 0) : UNPLACED)));
    }
    return { cost: sum };
  });
  const planned = planOverTime(costs, days, facts?.openingCost ?? 0);
  if (!planned) return all.map((lump) => [lump]);
  return planned.days.map((day) => all.filter((_, i) => planned.on[i] === day)).filter((tasks) => tasks.length > 0);
};

/** Machines with more tasks than every grouping can be tried for are planned as several, opening after opening. */
export const splitLarge = (problem: PlanProblem): PlanProblem => {
  const machines = [...problem.machines];
  const tasks = [...problem.tasks];
  problem.machines.forEach((machine, m) => {
    if (problem.tasks.filter((t) => t.machine === m).length <= MOST_ENUMERATED) return;
    let [here, filled] = [m, 0];
    const another = () => {
      machines.push({ ...machine, id: `${machine.id} ${machines.length}` });
      [here, filled] = [machines.length - 1, 0];
    };
    for (const opening of byOpening(problem, m)) {
      if (filled > 0 && filled + opening.flat().length > PART_TASKS) another();
      for (const lump of opening) {
        if (filled > 0 && filled + lump.length > MOST_ENUMERATED) another();
        for (const i of lump) {
          const t = tasks[i];
          if (t) tasks[i] = { ...t, machine: here };
        }
        filled += lump.length;
      }
    }
  });
  return { ...problem, machines, tasks };
};
