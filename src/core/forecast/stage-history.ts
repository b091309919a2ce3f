import { dayNumber } from '../calendar/calendar-date';
import type { WearFacts } from '../interval/due';
import type { Rule } from '../interval/rules';
import type { Stage } from '../machine/machine';
import { countsFor } from './gauge-readings';
import type { Interval, IntervalEnd, Mark, PastInterval, StageHistory } from './history';
import { fills, TEMPLATE_SPREAD, USUAL_HOURS, usualDays, WORKED } from './kind-days';
import { END_OF, type MachineFacts } from './machine-facts';
import { withoutOthers } from './other-loads';
import { type Seen, seenOf } from './seen';
import type { LoadClock } from './used';

/** Days people take to see a limit and act on it: where it is looked into, where it is measured, where it never is. */
const ACT_DAYS = { looked: 5, measured: 10, share: 0.5, never: 120 } as const;
/** Chance that a limit is ignored for long: a full bag is hardly, a filter that few measure often. Modelling choices. */
const IGNORED = { fills: 0.003, wears: 0.3 } as const;
/** Chance that a change is not written down. Moorwind default. */
const UNWRITTEN = 0.06;
/** A date may be a few days off. */
const DATE_OFF_DAYS = 2;
/** Use that is hidden where only days are counted, as a spread for a life of one day; it falls with the root of the life. */
const HIDDEN = { of: 1.4, most: 0.35 } as const;
/** Spread of a filled-in stretch. */
const FILLED_OFF = 0.3;
/** A look that has fallen by more than this share of the container, to less than this share of itself, is of another bag. */
const FALLEN = 0.3;
const FALLEN_TO = 0.6;

const limitOf = (rule: Rule): number => (rule.kind === 'fill' ? rule.share : 1);

/** A look is coarse: people say quarters, with about a tenth of error. Moorwind defaults. */
const LOOK_STEP = 0.07;
const LOOK_SHARE = 0.1;

const looksOf = (stage: Stage, limit: number): readonly Seen[] =>
  stage.looks.map((l) => ({
    kind: 'share',
    day: dayNumber(l.day),
    share: l.share / limit,
    deviation: Math.hypot(LOOK_STEP, LOOK_SHARE * l.share) / limit,
    wholePath: false,
  }));

/** All observations of a stage's progress to a rule's limit, over all its intervals. */
const allSeen = (facts: MachineFacts, stage: Stage, rule: Rule): readonly Seen[] =>
  rule.kind === 'fill'
    ? looksOf(stage, limitOf(rule))
    : withoutOthers(seenOf(facts.seen, facts.record.machine, { stage, rule, counts: countsFor(facts, stage) }), {
        machine: facts.record.machine,
        stage,
        startsOf: facts.startsOf,
        clock: facts.clock,
        usualDays,
      });

interface Cut {
  readonly from: number;
  readonly to: number;
  /** null while it runs. */
  readonly end: IntervalEnd | null;
  /** Its start is unrecorded; it lies within this many days. */
  readonly within: number;
}

type FillLook = WearFacts['looks'][number];

/** Two looks, one after the other, between which the fill fell: the stage was changed, and no change is on record. */
export interface FallenLooks {
  readonly before: FillLook;
  readonly after: FillLook;
}

const fallenAmong = (looks: readonly FillLook[]): readonly FallenLooks[] =>
  looks.flatMap((after, i) => {
    const before = looks[i - 1];
    return before && after.share < before.share - FALLEN && after.share < FALLEN_TO * before.share
      ? [{ before, after }]
      : [];
  });

/** The newest fall of the fill since the last change on record; null where the looks only rise. Definition: the fill falls only by a change. Total. */
export const fallenSince = (facts: MachineFacts, stage: Stage): FallenLooks | null => {
  const since = facts.startsOf(stage.id).at(-1) ?? facts.today;
  return fallenAmong(stage.looks.filter((l) => dayNumber(l.day) > since)).at(-1) ?? null;
};

/** The intervals of a stage by its changes on record, and by looks that have fallen between them. */
const cutsOf = (facts: MachineFacts, stage: Stage): readonly Cut[] => {
  const { record, today } = facts;
  const starts = facts.startsOf(stage.id).filter((d) => d <= today);
  const first = starts[0] ?? today;
  const reasonAt = new Map(
    record.changes.filter((c) => c.stageId === stage.id).map((c) => [dayNumber(c.performedOn), c.reason]),
  );
  const cuts: Cut[] = [];
  let [from, within] = [first, 0];
  for (const to of [...starts.slice(1), null]) {
    const [after, until] = [from, to ?? today + 1];
    const inside = stage.looks.filter((l) => dayNumber(l.day) > after && dayNumber(l.day) < until);
    for (const fall of fallenAmong(inside)) {
      const [high, low] = [dayNumber(fall.before.day), dayNumber(fall.after.day)];
      const middle = Math.round((high + low) / 2);
      if (middle <= from) continue;
      cuts.push({ from, to: middle, end: 'limit', within: Math.max(within, (low - high) / 2) });
      [from, within] = [middle, (low - high) / 2];
    }
    const reason = to === null ? undefined : reasonAt.get(to);
    cuts.push({ from, to: to ?? today, end: to === null ? null : reason ? END_OF[reason] : 'other', within });
    if (to !== null) [from, within] = [to, 0];
  }
  return cuts;
};

/** Flow tests share a baseline, and its error: this much of their variance they have in common. A modelling choice. */
const IN_COMMON = 0.35;

const marksIn = (seen: readonly Seen[], { from, to }: Cut, clock: LoadClock): readonly Mark[] => {
  // An observation on the day of a change belongs to the earlier interval.
  const inside = seen.filter((s) => s.day > from && s.day <= to && clock.at(s.day) > clock.at(from));
  const flows = inside.filter((s) => s.kind === 'share' && s.wholePath).length;
  const shared = Math.sqrt(1 + IN_COMMON * Math.max(0, flows - 1));
  return inside
    .map((s): Mark => {
      const load = clock.at(s.day) - clock.at(from);
      return s.kind === 'share'
        ? {
            kind: 'share',
            load,
            share: s.share,
            deviation: s.deviation * (s.wholePath ? shared : 1),
            atStage: !s.wholePath,
          }
        : { kind: 'zone', load, above: s.above, below: s.below };
    })
    .sort((a, b) => a.load - b.load);
};

/** How often a stage is looked at or measured decides how soon a limit is acted on. */
const actDaysOf = (facts: MachineFacts, stage: Stage, seen: readonly Seen[]): number => {
  if (fills(stage.kind)) return ACT_DAYS.looked;
  const since = facts.startsOf(stage.id)[0] ?? facts.today;
  if (seen.length === 0) return ACT_DAYS.never;
  const gap = (facts.today - since) / seen.length;
  return Math.min(ACT_DAYS.never, ACT_DAYS.measured + ACT_DAYS.share * gap);
};

/** Smallest assumed share of its kind's life for a fill rule. */
const LEAST_FILL = 0.3;

const templateOf = (facts: MachineFacts, stage: Stage, rule: Rule): StageHistory['template'] => {
  // The school's own calendar, where there is one, knows this stage better than its kind does.
  const calendar = stage.rules.find((r) => r.rule.kind === 'calendarDays')?.rule;
  const days =
    calendar?.kind === 'calendarDays'
      ? calendar.days
      : rule.kind === 'runHours'
        ? rule.hours / USUAL_HOURS
        : usualDays(stage.kind) * (rule.kind === 'fill' ? Math.max(LEAST_FILL, rule.share) : 1);
  return {
    load: days * (facts.used.counts === 'hours' ? USUAL_HOURS : WORKED),
    spread: fills(stage.kind) ? TEMPLATE_SPREAD.fills : TEMPLATE_SPREAD.wears,
  };
};

/** The history of a stage under a wear rule. */
export const historyOfStage = (facts: MachineFacts, stage: Stage, rule: Rule): StageHistory => {
  const { clock, used, regime } = facts;
  const seen = allSeen(facts, stage, rule);
  const cuts = cutsOf(facts, stage);
  const unsureOf = ({ from, to, within }: Cut): number => {
    const days = Math.max(1, to - from);
    const hidden = used.counts === 'hours' ? 0 : Math.min(HIDDEN.most, HIDDEN.of / Math.sqrt(days));
    const filled = FILLED_OFF * clock.filledBetween(from, to);
    return Math.hypot(hidden, filled, Math.min(0.5, Math.max(within, DATE_OFF_DAYS) / days));
  };
  const intervalOf = (cut: Cut): Interval => ({
    load: (cut.end === null ? clock.now : clock.at(cut.to)) - clock.at(cut.from),
    days: Math.max(1, cut.to - cut.from),
    marks: marksIn(seen, cut, clock),
    unsure: unsureOf(cut),
  });
  const running = cuts.at(-1);
  if (!running) throw new Error(`stage ${stage.id} has no first day`);
  return {
    template: templateOf(facts, stage, rule),
    counts: used.counts,
    past: cuts.slice(0, -1).flatMap((cut): readonly PastInterval[] => {
      const interval = intervalOf(cut);
      return interval.load > 0 && cut.end !== null
        ? [{ ...interval, end: cut.end, beforeRegime: regime !== null && cut.from < regime }]
        : [];
    }),
    running: intervalOf(running),
    daysSince: clock.daysSince,
    actDays: actDaysOf(facts, stage, seen),
    ignored: fills(stage.kind) ? IGNORED.fills : IGNORED.wears,
    unwritten: UNWRITTEN,
  };
};
