import { addDays, addMonths, type CalendarDate, daysBetween, dayAt } from '../calendar/calendar-date';
import { isWear, type Rule, type RuleRecord } from '../interval/rules';
import type { Machine, Stage } from '../machine/machine';
import { seeded } from '../numeric/seeded';
import type { StageKind } from '../path/stage-kinds';
import type { ChangeReason, ChangeRecord } from '../record/records';
import type { IntervalEnd, PastInterval, Inspection, StageHistory } from './history';
import { drawCount, DRAWS, drawWear, firstOf, type RuleDraws, type StageForecast } from './reach';
import { daysDrawer, type Use } from './use';

/** What a flow test said of a stage: the share of its limit's load, through the air path; only tests that speak of it. */
export interface LossSeen {
  readonly stageId: number;
  readonly day: CalendarDate;
  readonly ofLimit: number;
  readonly deviation: number;
}

export interface ZoneSeen {
  readonly stageId: number;
  readonly day: CalendarDate;
  readonly zone: 'green' | 'amber' | 'red';
}

/** What the record says of one machine, as a forecast needs it. */
export interface MachineRecord {
  readonly machine: Machine;
  /** Standing changes, oldest first. */
  readonly changes: readonly ChangeRecord[];
  readonly losses: readonly LossSeen[];
  readonly zones: readonly ZoneSeen[];
  readonly today: CalendarDate;
  /** Whether the yard works on a day from now. */
  readonly works: (day: number) => boolean;
  readonly seed: number;
}

/** What a forecast rests on. */
export interface ForecastBasis {
  readonly intervals: number;
  readonly inspections: number;
  readonly counts: 'hours' | 'days';
  /** What began before this day was of another dust or another path, and counts little; null where nothing did. */
  readonly regimeSince: CalendarDate | null;
  /** Rules that cannot be forecast, by their number. */
  readonly unknown: readonly number[];
}

export interface StageOutlook {
  readonly stageId: number;
  /** null where no rule can be forecast. */
  readonly forecast: StageForecast | null;
  readonly basis: ForecastBasis;
}

/** Middle days to the limit, before anything is on record. Moorwind defaults, a modelling choice. */
const TEMPLATE_DAYS: Partial<Record<StageKind, number>> = {
  bag: 30,
  cyclone: 18,
  dropChamber: 60,
  prefilter: 120,
  mainFilter: 365,
  canister: 730,
  hepa: 400,
  gas: 180,
  cloth: 240,
  foam: 90,
  exhaustFilter: 180,
};
const OTHER_DAYS = 180;

/** Days a stage of a kind usually lasts, before anything of it is on record. A Moorwind default, a modelling choice. Valid: any kind. Source: see `TEMPLATE_DAYS`. */
export const usualDays = (kind: StageKind): number => TEMPLATE_DAYS[kind] ?? OTHER_DAYS;
/** Run hours of a usual calendar day, where only days are known. */
export const USUAL_HOURS = 1.8;
const TEMPLATE_SPREAD = 0.7;

const END_OF: Record<ChangeReason, IntervalEnd> = {
  gauge: 'limit',
  fill: 'limit',
  test: 'limit',
  date: 'early',
  count: 'early',
  precaution: 'early',
  damage: 'other',
};

const changeDaysOf = ({ machine, changes }: MachineRecord, stageId: number): readonly CalendarDate[] => {
  const first = machine.stages.find((s) => s.id === stageId)?.firstUsedOn;
  return [
    ...new Set([
      ...(first === undefined ? [] : [first]),
      ...changes.filter((c) => c.stageId === stageId).map((c) => c.performedOn),
    ]),
  ].sort();
};

/** Hours are counted where they are on record for the interval that runs and the one before it. */
const countsOf = ({ machine, today }: MachineRecord, starts: readonly CalendarDate[]): 'hours' | 'days' => {
  const first = machine.hours[0]?.day;
  const from = starts.at(-2) ?? starts.at(-1) ?? today;
  return first !== undefined && first <= from ? 'hours' : 'days';
};

const hoursBetween = ({ hours }: Machine, from: CalendarDate, to: CalendarDate): number =>
  hours.reduce((sum, h) => sum + (h.day >= from && h.day < to ? h.hours : 0), 0);

/** When the newest dust, or the newest way of the air, began. */
const regimeStart = ({ machine }: MachineRecord): CalendarDate | null => {
  const dust = machine.hours.at(-1)?.dust;
  const change = machine.hours.findLastIndex((h) => h.dust !== dust);
  const byDust = change >= 0 ? (machine.hours[change + 1]?.day ?? null) : null;
  const byPath = machine.reshapedAt === null ? null : dayAt(machine.reshapedAt, machine.timeZone);
  return byDust === null ? byPath : byPath === null ? byDust : byDust > byPath ? byDust : byPath;
};

const limitOf = (rule: Rule): number => (rule.kind === 'fill' || rule.kind === 'flowLost' ? rule.share : 1);

const looksBetween = (stage: Stage, from: CalendarDate, to: CalendarDate) =>
  stage.looks.filter((l) => l.day >= from && l.day <= to);

const foundAt = (stage: Stage, day: CalendarDate, rule: Rule): number | null => {
  const look = rule.kind === 'fill' ? stage.looks.filter((l) => l.day === day).at(-1) : undefined;
  return look ? look.share / limitOf(rule) : null;
};

/** A look is coarse: a twentieth, and a tenth of what is seen. Moorwind defaults. */
const LOOK_STEP = 0.05;
const LOOK_SHARE = 0.1;

const lookDeviation = (share: number): number => Math.hypot(LOOK_STEP, LOOK_SHARE * share);

/** A flow test says no more of a filter than this, as a share of its limit. */
const LEAST_DEVIATION = 0.1;

interface Counted {
  readonly since: CalendarDate;
  readonly loadTo: (day: CalendarDate) => number;
}

const inspectionsOf = (
  record: MachineRecord,
  stage: Stage,
  { rule, counted }: { readonly rule: Rule; readonly counted: Counted },
): readonly Inspection[] => {
  const { since, loadTo } = counted;
  const limit = limitOf(rule);
  const later = (day: CalendarDate) => day > since && loadTo(day) > 0;
  if (rule.kind === 'fill')
    return looksBetween(stage, since, record.today)
      .filter((l) => later(l.day))
      .map((l) => ({
        kind: 'share',
        load: loadTo(l.day),
        share: l.share / limit,
        deviation: lookDeviation(l.share) / limit,
      }));
  if (rule.kind === 'flowLost')
    return record.losses
      .filter((l) => l.stageId === stage.id && later(l.day))
      .map((l) => ({
        kind: 'share',
        load: loadTo(l.day),
        share: l.ofLimit,
        deviation: Math.max(LEAST_DEVIATION, l.deviation),
      }));
  if (rule.kind === 'gaugeZone') {
    const at = (zone: ZoneSeen['zone']): number => (zone === 'green' ? 0 : zone === 'amber' ? 1 : 2);
    const wanted = at(rule.zone);
    return record.zones
      .filter((z) => z.stageId === stage.id && later(z.day))
      .map((z) => ({ kind: 'side', load: loadTo(z.day), share: 1, above: at(z.zone) >= wanted }));
  }
  return [];
};

const pastOf = (
  record: MachineRecord,
  stage: Stage,
  {
    rule,
    counts,
    starts,
  }: { readonly rule: Rule; readonly counts: 'hours' | 'days'; readonly starts: readonly CalendarDate[] },
): readonly PastInterval[] => {
  const regime = regimeStart(record);
  const logged = record.machine.hours[0]?.day ?? record.today;
  return starts.slice(1).flatMap((day, i): readonly PastInterval[] => {
    const from = starts[i] ?? day;
    const lasted = daysBetween({ from, to: day });
    const change = record.changes.findLast((c) => c.stageId === stage.id && c.performedOn === day);
    const load = counts === 'hours' ? hoursBetween(record.machine, from, day) : lasted;
    // An interval that began before hours were written down would look shorter than it was.
    if (!change || load <= 0 || (counts === 'hours' && from < logged)) return [];
    return [
      {
        load,
        days: Math.max(1, lasted),
        end: END_OF[change.reason],
        found: foundAt(stage, day, rule),
        beforeRegime: regime !== null && from < regime,
      },
    ];
  });
};

/** What a wear rule of a stage has behind it. */
export const historyOfStage = (record: MachineRecord, stage: Stage, rule: Rule): StageHistory => {
  const starts = changeDaysOf(record, stage.id);
  const counts = countsOf(record, starts);
  const since = starts.at(-1) ?? stage.firstUsedOn;
  const loadTo = (day: CalendarDate): number =>
    counts === 'hours' ? hoursBetween(record.machine, since, addDays(day, 1)) : daysBetween({ from: since, to: day });
  // The school's own calendar, where there is one, knows this stage better than its kind does.
  const calendar = stage.rules.find((r) => r.rule.kind === 'calendarDays')?.rule;
  const days =
    calendar?.kind === 'calendarDays'
      ? calendar.days
      : (TEMPLATE_DAYS[stage.kind] ?? OTHER_DAYS) * (rule.kind === 'fill' ? Math.max(LEAST_FILL, rule.share) : 1);
  return {
    template: { load: counts === 'hours' ? days * USUAL_HOURS : days, spread: TEMPLATE_SPREAD },
    counts,
    past: pastOf(record, stage, { rule, counts, starts }),
    load: Math.max(0, loadTo(record.today)),
    inspections: inspectionsOf(record, stage, { rule, counted: { since, loadTo } }),
  };
};

/** A fill rule is never taken for less than this share of what its kind lasts. */
const LEAST_FILL = 0.3;
/** The weeks of use that are learned from, days. */
const USE_DAYS = 126;
/** How far the use to come lies from the use so far, as a logarithm: logged by hours, or not known. Moorwind defaults. */
const UNSURE = { logged: 0.22, unknown: 0.3 } as const;

/** Use of the last weeks; a machine without hours is taken as used evenly, and less surely. */
export const useOf = ({ machine, today, works }: MachineRecord, counts: 'hours' | 'days'): Use => {
  if (counts === 'days')
    return { recent: Array.from({ length: USE_DAYS }, () => 1), works: () => true, unsure: UNSURE.unknown };
  const byDay = new Map(machine.hours.map((h) => [h.day, h.hours]));
  const first = machine.hours[0]?.day ?? today;
  const length = Math.min(USE_DAYS, Math.max(1, daysBetween({ from: first, to: today }) + 1));
  return {
    recent: Array.from({ length }, (_, i) => byDay.get(addDays(today, i - length + 1)) ?? 0),
    works,
    unsure: UNSURE.logged,
  };
};

const fixed = (day: number): Float64Array => new Float64Array(DRAWS).fill(day);

const drawsOf = (record: MachineRecord, stage: Stage, { id, rule }: RuleRecord): RuleDraws | null => {
  const chance = seeded(record.seed + 1009 * id);
  const starts = changeDaysOf(record, stage.id);
  const since = starts.at(-1) ?? stage.firstUsedOn;
  if (rule.kind === 'calendarDays')
    return { rule: id, draws: fixed(daysBetween({ from: record.today, to: addDays(since, rule.days) })) };
  if (rule.kind === 'examination')
    return {
      rule: id,
      draws: fixed(
        daysBetween({
          from: record.today,
          to: addMonths(record.machine.examinations.at(-1)?.on ?? since, rule.months),
        }),
      ),
    };
  if (rule.kind === 'countOfChanges') {
    const counted = changeDaysOf(record, rule.countedStageId);
    const done = counted.filter((d) => d > since).length;
    // A count that is full was reached on a day that is known.
    const reachedOn = counted.filter((d) => d > since)[rule.count - 1];
    if (reachedOn !== undefined) return { rule: id, draws: fixed(daysBetween({ from: record.today, to: reachedOn })) };
    const gaps = counted.slice(1).map((d, i) => daysBetween({ from: counted[i] ?? d, to: d }));
    const last = counted.at(-1) ?? since;
    const kind = record.machine.stages.find((s) => s.id === rule.countedStageId)?.kind;
    const habit = {
      gaps,
      since: Math.max(0, daysBetween({ from: last, to: record.today })),
      templateDays: (kind && TEMPLATE_DAYS[kind]) ?? OTHER_DAYS,
    };
    return { rule: id, draws: drawCount(rule.count - done, habit, { chance }) };
  }
  if (!isWear(rule)) return null;
  const history = historyOfStage(record, stage, rule);
  const use = useOf(record, history.counts);
  if (rule.kind === 'runHours') {
    if (history.counts === 'days') return null;
    const draw = daysDrawer(use);
    return { rule: id, draws: Float64Array.from({ length: DRAWS }, () => draw(rule.hours - history.load, chance)) };
  }
  return { rule: id, draws: drawWear(history, use, { chance }) };
};

/** When the first rule of a stage is reached, with its chances, and what that rests on. */
export const outlookOf = (record: MachineRecord, stage: Stage): StageOutlook => {
  const drawn = stage.rules.map((r) => ({ r, draws: stage.missing ? null : drawsOf(record, stage, r) }));
  const wear = stage.rules.find((r) => isWear(r.rule));
  const history = wear ? historyOfStage(record, stage, wear.rule) : null;
  return {
    stageId: stage.id,
    forecast: firstOf(drawn.flatMap(({ draws }) => draws ?? [])),
    basis: {
      intervals: history?.past.length ?? changeDaysOf(record, stage.id).length - 1,
      inspections: history?.inspections.length ?? 0,
      counts: history?.counts ?? 'days',
      regimeSince: history?.past.some((i) => i.beforeRegime) === true ? regimeStart(record) : null,
      unknown: drawn.flatMap(({ r, draws }) => (draws ? [] : [r.id])),
    },
  };
};

/** Every ruled stage of a machine, in path order. */
export const outlooksOf = (record: MachineRecord): readonly StageOutlook[] =>
  record.machine.stages.filter((s) => s.rules.length > 0).map((s) => outlookOf(record, s));
