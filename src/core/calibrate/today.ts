import type { Machine } from '../machine/machine';
import type { CalendarDate } from '../calendar/calendar-date';
import { daysBetween } from '../calendar/calendar-date';
import { AS_NEW } from '../path/as-new';
import { CLEAN, type PathState } from '../path/machine-path';
import { type ChangeRecord, inForce, type TestRecord } from '../record/records';
import { loadOfFlow, loadOfStageDp, withLoads } from './load';
import type { ModelledMachine } from './machine-model';
import type { Observation } from './observation';
import { observationsOfTest } from './observations-of-tests';

/** What today's staircase rests on. */
export type TodayBasis =
  | {
      readonly kind: 'flow';
      readonly testId: number;
      readonly day: CalendarDate;
      readonly measuredM3s: number;
      readonly shared: readonly string[];
      readonly changedSince: readonly string[];
    }
  /** More flow than the clean path allows. */
  | {
      readonly kind: 'easier';
      readonly testId: number;
      readonly day: CalendarDate;
      readonly measuredM3s: number;
      readonly cleanM3s: number;
      readonly within: boolean;
    }
  /** Nothing flows, or the model cannot be solved back. */
  | { readonly kind: 'unexplained'; readonly testId: number; readonly day: CalendarDate }
  /** No flow was measured since the baseline. */
  | { readonly kind: 'noFlow' };

export interface Today {
  readonly state: PathState;
  readonly basis: TodayBasis;
  /** Stages whose load comes from a pressure read across them, by name. */
  readonly fromStageDp: readonly string[];
}

export interface TodayInput {
  readonly machine: Machine;
  readonly modelled: ModelledMachine;
  readonly tests: readonly TestRecord[];
  readonly changes: readonly ChangeRecord[];
  readonly dayOf: (moment: string) => CalendarDate;
}

interface Dated {
  readonly record: TestRecord;
  readonly observation: Observation;
}

const newestOf = (list: readonly Dated[]): Dated | null =>
  list.reduce<Dated | null>(
    (best, d) => (best === null || d.record.performedAt > best.record.performedAt ? d : best),
    null,
  );

const lastChange = (stageId: number, changes: readonly ChangeRecord[], notAfter: string): string | null =>
  inForce(changes)
    .filter((c) => c.stageId === stageId && c.performedAt <= notAfter)
    .reduce<string | null>((best, c) => (best === null || c.performedAt > best ? c.performedAt : best), null);

/** Days a stage usually lasts, for sharing a load where no rule says it. A Moorwind default, a modelling choice. */
const USUAL_DAYS = 180;
/** Part of a load that comes with a stage's own age; fine stages behind others take less. Moorwind default. */
const FINE_SHARE = 0.4;
/**
 * Share of its interval assumed for a stage's age: at least a little for a new one, limited for a long overdue one.
 * Moorwind defaults.
 */
const AGE_SHARE = { least: 0.02, most: 1.3 } as const;

/** Share of the machine's load in each filter: by its age against its interval, less for the finest. */
const weightsAt = ({ machine, changes, dayOf }: TodayInput, moment: string): ReadonlyMap<number, number> => {
  const weights = machine.stages.flatMap((stage, position): readonly (readonly [number, number])[] => {
    if (stage.missing || stage.spec.air.form !== 'medium' || stage.kind === 'gas') return [];
    const since = lastChange(stage.id, changes, moment);
    const age = daysBetween({ from: since === null ? stage.firstUsedOn : dayOf(since), to: dayOf(moment) });
    const days = stage.rules.flatMap(({ rule }) => (rule.kind === 'calendarDays' ? [rule.days] : []))[0] ?? USUAL_DAYS;
    const share = Math.min(AGE_SHARE.most, Math.max(AGE_SHARE.least, age / days));
    return [[position, share * (stage.kind === 'hepa' ? FINE_SHARE : 1)]];
  });
  const most = Math.max(...weights.map(([, w]) => w), 1e-9);
  return new Map(weights.map(([position, w]) => [position, w / most]));
};

const flowBasis = (input: TodayInput, { record, observation }: Dated): Today => {
  const { model, parameters } = input.modelled;
  if (observation.what !== 'flow') throw new Error('a flow was asked for');
  const base = { testId: record.id, day: input.dayOf(record.performedAt) };
  const question = { model, parameters, state: observation.state, entry: observation.entry };
  const weights = weightsAt(input, record.performedAt);
  const read = observation.at === 'in' ? undefined : (s: { outletFlowM3s: number }) => s.outletFlowM3s;
  const load = loadOfFlow({ ...question, flowM3s: observation.value, weights, ...(read ? { read } : {}) });
  if (!load.ok) {
    const [why] = load.failures;
    if (why?.code !== 'load.less-than-clean')
      return { state: AS_NEW, basis: { kind: 'unexplained', ...base }, fromStageDp: [] };
    const cleanM3s = Number(why.facts['clean']);
    return {
      state: AS_NEW,
      basis: {
        kind: 'easier',
        ...base,
        measuredM3s: observation.value,
        cleanM3s,
        within: observation.value - observation.expanded <= cleanM3s,
      },
      fromStageDp: [],
    };
  }
  const changed = input.machine.stages.flatMap((s, position) =>
    inForce(input.changes).some((c) => c.stageId === s.id && c.performedAt > record.performedAt) ? [position] : [],
  );
  const loads = new Map([...load.value].filter(([position]) => !changed.includes(position)));
  const nameOf = (position: number) => input.machine.stages[position]?.name ?? '';
  return {
    state: withLoads(AS_NEW, loads),
    basis: {
      kind: 'flow',
      ...base,
      measuredM3s: observation.value,
      shared: [...load.value.keys()].map(nameOf),
      changedSince: changed.map(nameOf),
    },
    fromStageDp: [],
  };
};

/** Replaces the shared guess by loads read across single stages. */
const withStageReadings = (input: TodayInput, today: Today, readings: readonly Dated[]): Today => {
  const { model, parameters } = input.modelled;
  return input.machine.stages.reduce<Today>((held, stage, position) => {
    const newest = newestOf(readings.filter(({ observation: o }) => o.what === 'stageDp' && o.position === position));
    const changedAt = newest ? lastChange(stage.id, input.changes, '9999') : null;
    if (newest?.observation.what !== 'stageDp' || (changedAt !== null && changedAt > newest.record.performedAt))
      return held;
    const { observation } = newest;
    const rest = { ...held.state, stages: { ...held.state.stages, [position]: CLEAN } };
    const load = loadOfStageDp({
      model,
      parameters,
      state: rest,
      entry: observation.entry,
      position,
      dropPa: observation.value,
    });
    return load.ok
      ? {
          ...held,
          state: withLoads(rest, new Map([[position, load.value.loadPaSM3]])),
          fromStageDp: [...held.fromStageDp, stage.name],
        }
      : held;
  }, today);
};

/**
 * The present state of the machine by its records: the newest flow gives the load, shared between the filters by age; a
 * pressure read across one stage replaces its share; a stage changed since is clean. A flow above the clean path's is
 * reported, not explained. Source: the air-path model solved backwards; the sharing is a Moorwind default.
 */
export const todayOf = (input: TodayInput): Today => {
  const dated = inForce(input.tests)
    .filter((t) => !t.isBaseline && (input.machine.reshapedAt === null || t.performedAt > input.machine.reshapedAt))
    .flatMap((record) =>
      observationsOfTest(record, input.machine).map((observation): Dated => ({ record, observation })),
    );
  const flow = newestOf(dated.filter((d) => d.observation.what === 'flow'));
  const today: Today = flow ? flowBasis(input, flow) : { state: AS_NEW, basis: { kind: 'noFlow' }, fromStageDp: [] };
  return withStageReadings(
    input,
    today,
    dated.filter((d) => d.observation.what === 'stageDp'),
  );
};
