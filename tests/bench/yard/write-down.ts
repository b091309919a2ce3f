import Sqlite from 'better-sqlite3';
import type { Written } from './life';
import type { TrueRule } from './machine';
import { LAST } from './work';
import type { LivedMachine, LivedYard } from './yard';

// Writes what people wrote of a made-up yard into the tables of the application, row by row, as its own forms would: what
// is true stays outside.

/** The day the forecast is asked on, when its work is done. */
export const TODAY = '2026-11-24';
export const NOW = `${TODAY}T18:00:00.000Z`;
const DAY_MS = 86_400_000;

export const dateOf = (day: number): string =>
  new Date(Date.parse(TODAY) + (day - LAST) * DAY_MS).toISOString().slice(0, 10);
const momentOf = (day: number, hour: number): string => `${dateOf(day)}T${String(hour).padStart(2, '0')}:00:00.000Z`;

type Row = Record<string, number | string | null>;

const inserter =
  (db: Sqlite.Database) =>
  (table: string, row: Row): number => {
    const columns = Object.keys(row);
    return Number(
      db.prepare(`insert into ${table} (${columns.join()}) values (${columns.map((c) => `@${c}`).join()})`).run(row)
        .lastInsertRowid,
    );
  };
type Insert = ReturnType<typeof inserter>;

const work = (machine: number, at: string): Row => ({
  machine_id: machine,
  performed_at: at,
  recorded_at: at,
  by_initials: 'MK',
  note: '',
  supersedes_id: null,
  voided: 0,
  correction_reason: null,
});

const STAGES = [
  ['shroud', 'tool shroud'],
  ['hose', 'hose'],
  ['inlet', 'inlet'],
  ['bag', 'fleece bag'],
  ['mainFilter', 'main filter'],
  ['fan', 'fan'],
  ['exhaust', 'exhaust'],
] as const;

const ruleJson = (rule: TrueRule, bag: number): string =>
  JSON.stringify(
    rule.kind === 'countOfChanges' ? { ...rule, countedStageId: bag, countedStageName: 'fleece bag' } : rule,
  );

const gaugeSpec = (gauge: LivedMachine['made']['gauge']): string | null =>
  gauge &&
  JSON.stringify({
    air: { form: 'medium', medium: 'pleatedPolyester', areaM2: 0.7, k1PaSM: null, inParallel: 1 },
    fit: {
      orientation: 'unmarked',
      seals: 1,
      bypass: 0.002,
      rating: { scale: 'none' },
      foreign: false,
      gaugePa: { ...gauge, spans: 'own' },
    },
  });

const addTests = (
  insert: Insert,
  machine: number,
  {
    filter,
    boreM,
    written,
  }: {
    readonly filter: number;
    readonly boreM: number;
    readonly written: Written;
  },
): void => {
  const add = (day: number, over: Row, readings: readonly (readonly [value: number, unit: string])[]) => {
    const id = insert('airflow_test', {
      ...work(machine, momentOf(day, 9)),
      place: 'toolEnd',
      bore_m: null,
      profile_factor: null,
      instrument_id: null,
      air_json: '{"temperatureK":293.15,"relativeHumidity":0.5,"pressurePa":101325}',
      hose_bore_m: boreM,
      failed_preconditions_json: '[]',
      is_baseline: 0,
      bag_state: 'asFound',
      after_change_id: null,
      detail_json: '{"kind":"none"}',
      use_json: '{"wheelM":null,"ductLoad":null}',
      rig_series: 1,
      volts: null,
      configuration: '',
      ...over,
    });
    readings.forEach(([value, unit], seq) =>
      insert('test_reading', {
        test_id: id,
        seq,
        typed: String(value),
        unit,
        value_si: value,
        resolution_si: unit === 'Pa' ? 10 : 0.0001,
        struck_because: null,
        slot: 0,
        how: 'typed',
      }),
    );
  };
  for (const { day, readings, baseline } of written.flows)
    add(
      day,
      { method: 'flowMeter', is_baseline: baseline ? 1 : 0 },
      readings.map((q) => [Math.round(q * 1e5) / 1e5, 'm3/s']),
    );
  for (const { day, zone } of written.zones)
    add(day, { method: 'gaugeZone', detail_json: JSON.stringify({ kind: 'zone', stageId: filter, zone }) }, []);
  for (const { day, readings } of written.pascals)
    add(
      day,
      { method: 'stageDp', detail_json: JSON.stringify({ kind: 'stage', stageId: filter }) },
      readings.map((pa) => [10 * Math.round(pa / 10), 'Pa']),
    );
};

/** Most hours one day of the record holds: what a meter has gone on beyond is put on the days before. */
const MOST_A_DAY = 24;

const addHours = (insert: Insert, machine: number, { hours }: LivedMachine): void => {
  for (const { day, hours: sum, dust } of hours)
    for (let [left, d] = [sum, day]; left > 0; left -= MOST_A_DAY, d -= 1)
      insert('usage_entry', {
        machine_id: machine,
        day: dateOf(d),
        hours: Math.min(MOST_A_DAY, left),
        dust,
        at: momentOf(day, 17),
        by_initials: 'MK',
      });
};

const addMachine = (insert: Insert, lived: LivedMachine, number: number): void => {
  const { made, life } = lived;
  const first = dateOf(life.began);
  const machine = insert('machine', {
    tag: `M-${String(number).padStart(3, '0')}`,
    name: `Machine ${number}`,
    kind: 'mExtractor',
    maker: 'Maker A',
    place: 'hall',
    machine_class: 'M',
    has_brush: 0,
    hose_bore_m: made.boreM,
    hose_length_m: 4,
    hose_selector_m: null,
    nominal_volts: 230,
    wet_set: 0,
    in_service_on: first,
  });
  const ids = STAGES.map(([kind, name], position) =>
    insert('stage', {
      machine_id: machine,
      position,
      kind,
      name,
      part_id: null,
      missing: 0,
      do_not_remove: 0,
      first_used_on: first,
      spec_json: kind === 'mainFilter' ? gaugeSpec(made.gauge) : null,
    }),
  );
  const [bag, filter] = [ids[3] ?? 0, ids[4] ?? 0];
  for (const rule of made.bagRules)
    insert('rule', { stage_id: bag, rule_json: ruleJson(rule, bag), school: 'made up' });
  for (const rule of made.filterRules)
    insert('rule', { stage_id: filter, rule_json: ruleJson(rule, bag), school: 'made up' });
  const { written } = life;
  for (const { which, writtenDay, why } of written.changes)
    insert('stage_change', {
      ...work(machine, momentOf(writtenDay, 11)),
      stage_id: which === 'bag' ? bag : filter,
      reason: why,
      part_id: null,
      quantity: 1,
      before_test_id: null,
      job_id: null,
      done_by: null,
      done_how: null,
    });
  for (const { day, share } of written.looks)
    insert('fill_look', { stage_id: bag, day: dateOf(day), share, at: momentOf(day, 12), by_initials: 'MK' });
  addTests(insert, machine, { filter, boreM: made.boreM, written });
  addHours(insert, machine, lived);
};

/** Puts a yard into an empty file of the application. */
export const writeDown = (file: string, { calendar, machines }: LivedYard): void => {
  const db = new Sqlite(file);
  db.pragma('synchronous = OFF');
  const insert = inserter(db);
  db.transaction(() => {
    insert('site', {
      id: 1,
      name: 'Made-up yard',
      time_zone: 'UTC',
      altitude_m: 0,
      rule_set: 'eu_uk',
      warn_loss: 0.15,
      act_loss: 0.25,
      open_here: 1,
      // Day 1 of the yard's own week is a Monday wherever its first day falls.
      works_on: calendar.weekdays.map((d) => new Date(`${dateOf(d)}T12:00:00Z`).getUTCDay()).join(''),
      closed_json: JSON.stringify([...calendar.told].sort((a, b) => a - b).map(dateOf)),
      minutes_a_day: 120,
      currency: '',
      late_factor: 6,
      opening_json: '{"plain":8,"controlled":18,"contained":45}',
      opening_minutes_json: '{"plain":6,"controlled":12,"contained":25}',
    });
    machines.forEach((m, i) => addMachine(insert, m, i + 1));
  })();
  db.close();
};
