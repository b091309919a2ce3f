import { costOf, minutesByDay, violationsOf } from './cost';
import { eachOnItsOwnDay } from './own-day';
import type { PlanDays, PlanProblem, PlanTask } from './problem';

/** Why a task sits where it sits. */
export type PlanReason =
  | { readonly kind: 'locked' }
  /** Its own cheapest day. */
  | { readonly kind: 'own' }
  /** Moved from its own day into an opening that is there anyway. */
  | { readonly kind: 'shared'; readonly with: readonly string[]; readonly ownDay: number; readonly saves: number }
  /** Its own day has no room: the minutes or the part are not there. A day the machine is away is never its own. */
  | { readonly kind: 'minutes' | 'part'; readonly ownDay: number }
  | { readonly kind: 'traded'; readonly ownDay: number }
  /** Fixed by its last day. */
  | { readonly kind: 'lastDay'; readonly lastDay: number }
  /** Later than its last day. */
  | { readonly kind: 'late'; readonly lastDay: number }
  /** The day the last plan named, kept though another one is now a little better. */
  | { readonly kind: 'kept'; readonly ownDay: number };

/** A limit whose day is certain: it comes from a date, not from wear. */
const isFixed = ({ reached }: PlanTask): boolean => reached[0] === reached[4];

/** The cost of a plan in money, without the price of moved promises: nobody pays that. */
const moneyOf = (problem: PlanProblem, days: PlanDays): number => {
  const { total, moveCost } = costOf(problem, days);
  return total - moveCost;
};

const reasonOf = (
  problem: PlanProblem,
  { days, own }: { readonly days: PlanDays; readonly own: PlanDays },
  i: number,
): PlanReason | null => {
  const task = problem.tasks[i];
  const [day, ownDay] = [days[i] ?? null, own[i] ?? null];
  if (!task || day === null) return null;
  if (task.lockedDay !== null) return { kind: 'locked' };
  if (task.lastDay !== null && day > task.lastDay) return { kind: 'late', lastDay: task.lastDay };
  if (task.lastDay !== null && isFixed(task)) return { kind: 'lastDay', lastDay: task.lastDay };
  if (ownDay === null || ownDay === day) return { kind: 'own' };
  const broken = new Set(
    violationsOf(
      problem,
      days.map((d, k) => (k === i ? ownDay : d)),
    ).map((v) => v.kind),
  );
  // A part that is not there, and minutes that are not there, come before what it saves.
  const kind = (['part', 'minutes'] as const).find((k) => broken.has(k));
  if (kind) return { kind, ownDay };
  const mates = problem.tasks.flatMap((t, k) =>
    k !== i && t.machine === task.machine && days[k] === day ? [t.id] : [],
  );
  if (mates.length > 0) {
    const alone = days.map((d, k) => (k === i ? ownDay : d));
    const saves = moneyOf(problem, alone) - moneyOf(problem, days);
    if (saves > 0) return { kind: 'shared', with: mates, ownDay, saves };
  }
  return { kind: task.promised?.day === day ? 'kept' : 'traded', ownDay };
};

/** Why each task sits where it sits, by its position; null where it has no day. */
export const explainPlan = (problem: PlanProblem, days: PlanDays): readonly (PlanReason | null)[] => {
  const own = eachOnItsOwnDay(problem);
  return problem.tasks.map((_, i) => reasonOf(problem, { days, own }, i));
};

/** Which limit keeps a task out of the plan, and the cheapest way out. */
export type WayOut =
  | { readonly kind: 'noDay'; readonly task: string }
  | { readonly kind: 'moreMinutes'; readonly task: string; readonly day: number; readonly minutes: number }
  /** The people who may do contained work have too few minutes on the best day. */
  | { readonly kind: 'papers'; readonly task: string; readonly day: number; readonly minutes: number }
  | {
      readonly kind: 'part';
      readonly task: string;
      readonly part: string;
      readonly by: number;
      readonly pieces: number;
    }
  | { readonly kind: 'partner'; readonly task: string; readonly partner: string };

const partShort = (problem: PlanProblem, days: PlanDays, i: number): WayOut | null => {
  const task = problem.tasks[i];
  const part = task?.part ? problem.parts[task.part.index] : undefined;
  if (!task?.part || !part) return null;
  const all = part.onHand + part.deliveries.reduce((sum, d) => sum + d.quantity, 0);
  const used = problem.tasks.reduce(
    (sum, t, k) =>
      sum + (t.part?.index === task.part?.index && (days[k] ?? null) !== null ? (t.part?.quantity ?? 0) : 0),
    0,
  );
  const pieces = used + task.part.quantity - all;
  return pieces > 0
    ? { kind: 'part', task: task.id, part: part.id, by: Math.max(0, Math.floor(task.reached[2])), pieces }
    : null;
};

/** For each task without a day, the limit that breaks and the smallest thing that would let it in. */
export const waysOut = (problem: PlanProblem, days: PlanDays): readonly WayOut[] => {
  const used = minutesByDay(problem, days);
  const contained = minutesByDay(problem, days, (m) => m.contained);
  return problem.tasks.flatMap((task, i): readonly WayOut[] => {
    if ((days[i] ?? null) !== null) return [];
    const machine = problem.machines[task.machine];
    const open = problem.minutes.flatMap((_, day) =>
      machine?.blockedDays.has(day) ||
      (task.lockedDay !== null && task.lockedDay !== day) ||
      (task.within && (day < task.within[0] || day > task.within[1]))
        ? []
        : [day],
    );
    if (open.length === 0 || !machine) return [{ kind: 'noDay', task: task.id }];
    const withoutPart = partShort(problem, days, i);
    if (withoutPart) return [withoutPart];
    const opened = new Set(
      problem.tasks.flatMap((t, k) => (t.machine === task.machine && (days[k] ?? null) !== null ? [days[k]] : [])),
    );
    const more = (day: number): number => task.minutes + (opened.has(day) ? 0 : machine.openingMinutes);
    const short = (day: number): number => (used.get(day) ?? 0) + more(day) - (problem.minutes[day] ?? 0);
    const unpapered = (day: number): number =>
      machine.contained && problem.containedMinutes
        ? (contained.get(day) ?? 0) + more(day) - (problem.containedMinutes[day] ?? 0)
        : 0;
    const lacking = (day: number): number => Math.max(0, short(day), unpapered(day));
    const best = open
      .map((day) => ({ day, minutes: lacking(day) }))
      .sort(
        (a, b) => a.minutes - b.minutes || Math.abs(a.day - task.reached[2]) - Math.abs(b.day - task.reached[2]),
      )[0];
    if (best && best.minutes > 0)
      return [{ kind: unpapered(best.day) >= best.minutes ? 'papers' : 'moreMinutes', task: task.id, ...best }];
    return [
      task.onlyWith === null
        ? { kind: 'noDay', task: task.id }
        : { kind: 'partner', task: task.id, partner: task.onlyWith },
    ];
  });
};

/** A part that several tasks wait for. */
export interface ShortPart {
  readonly part: string;
  /** Tasks without a day for want of it, the soonest first. */
  readonly tasks: readonly string[];
  /** Pieces that would allow all of them. */
  readonly pieces: number;
  /** The day the first of them is wanted. */
  readonly by: number;
}

/** Short parts, the earliest first. Pieces; days of the horizon. Definition: the ways out. Valid: ways of that problem. */
export const shortParts = (problem: PlanProblem, ways: readonly WayOut[]): readonly ShortPart[] => {
  const needs = new Map(problem.tasks.map((t) => [t.id, t.part?.quantity ?? 0]));
  const short = ways.filter((w) => w.kind === 'part').sort((a, b) => a.by - b.by);
  return [...new Set(short.map((w) => w.part))].flatMap((part) => {
    const of = short.filter((w) => w.part === part);
    const [first] = of;
    if (!first) return [];
    const others = of.slice(1).reduce((sum, w) => sum + (needs.get(w.task) ?? 0), 0);
    return [{ part, tasks: of.map((w) => w.task), pieces: first.pieces + others, by: first.by }];
  });
};
