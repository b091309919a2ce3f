import type { z } from 'zod';
import type { BundleTable } from '@/contracts/bundle';
import { AnswersJson, DustJson, KeysJson } from '@/contracts/dust';
import { CrewEntryJson } from '@/contracts/crew';
import { CaseEventJson } from '@/contracts/find';
import { JobEventJson, ProcedureJson, StagesJson } from '@/contracts/job';
import {
  AccuracyJson,
  AirJson,
  ClosedJson,
  DetailJson,
  ByOpeningJson,
  PreconditionsJson,
  RuleJson,
  UseJson,
} from '@/contracts/json-columns';
import { StoredSnapshotJson } from '@/contracts/machine-edit';
import { StageSpecJson } from '@/contracts/stage-spec';
import { ToolJson } from '@/contracts/tools';
import { PredictedJson, UpgradeChangesJson, UpgradeEventJson } from '@/contracts/upgrade';

// How the tables of a bundle hang together: what refers to what, and what of them belongs to one machine.

/** A JSON column: its shape, and which of its keys hold the number of a row. */
interface JsonColumn {
  readonly shape: z.ZodType;
  readonly refs?: Readonly<Record<string, BundleTable>>;
}

export interface TableSpec {
  readonly refs?: Readonly<Record<string, BundleTable>>;
  readonly json?: Readonly<Record<string, JsonColumn>>;
  /**
   * `record`: written once, and known again by its name. `entity`: may differ between installations. `owned`: goes with
   * the row of `owner`. `site`: the one row of a yard.
   */
  readonly as: 'record' | 'entity' | 'owned' | 'site';
  /** Two of them in one installation are one and the same: matched by it where no name matches. */
  readonly natural?: string;
  /** Which rows belong to machine `@machine`, as a condition; none where a bundle of one machine leaves the table out. */
  readonly ofMachine?: string;
}

const OWN = 'machine_id = @machine';
const OF_STAGE = 'stage_id in (select id from stage where machine_id = @machine)';
const PART_IN = (column: string) =>
  `select j.value from path_edit e, json_tree(e.${column}) j where e.machine_id = @machine and j.key = 'partId' and j.type = 'integer'`;
const PARTS_OF = `select part_id from stage where machine_id = @machine
  union select part_id from stage_change where machine_id = @machine
  union ${PART_IN('before_json')} union ${PART_IN('after_json')}`;
/** Tables with a picture beside each row. */
export const PICTURES = ['photo', 'part_photo', 'upgrade_photo'] as const satisfies readonly BundleTable[];
const machine = { machine_id: 'machine' } as const;
const stage = { stage_id: 'stage' } as const;

const record = (refs: TableSpec['refs'] = machine, over: Partial<TableSpec> = {}): TableSpec => ({
  as: 'record',
  refs,
  ofMachine: OWN,
  ...over,
});
const snapshot: JsonColumn = { shape: StoredSnapshotJson, refs: { id: 'stage', partId: 'part' } };

export const TABLE_SPECS: Readonly<Record<BundleTable, TableSpec>> = {
  site: {
    as: 'site',
    json: {
      closed_json: { shape: ClosedJson },
      opening_json: { shape: ByOpeningJson },
      opening_minutes_json: { shape: ByOpeningJson },
    },
  },
  part: { as: 'entity', natural: 'code', ofMachine: `id in (${PARTS_OF})` },
  part_merge: { as: 'record', refs: { part_id: 'part', into_id: 'part' } },
  part_photo: record({ part_id: 'part' }, { ofMachine: `part_id in (${PARTS_OF})` }),
  instrument: {
    as: 'entity',
    natural: 'name',
    json: { accuracy_json: { shape: AccuracyJson } },
    ofMachine: 'id in (select instrument_id from airflow_test where machine_id = @machine)',
  },
  person: { as: 'entity', natural: 'initials' },
  // All of them: what a machine collected names them by their words.
  dust_entry: record({}, { json: { dust_json: { shape: DustJson } }, ofMachine: '@machine is not null' }),
  tool_entry: { as: 'record', json: { tool_json: { shape: ToolJson } } },
  setting_change: { as: 'record' },
  machine: { as: 'entity', ofMachine: 'id = @machine' },
  former_tag: record(),
  machine_retirement: { as: 'record', refs: machine },
  stage: {
    as: 'entity',
    refs: { ...machine, part_id: 'part' },
    json: { spec_json: { shape: StageSpecJson } },
    ofMachine: OWN,
  },
  rule: {
    as: 'owned',
    refs: stage,
    json: { rule_json: { shape: RuleJson, refs: { countedStageId: 'stage', stageId: 'stage' } } },
    ofMachine: OF_STAGE,
  },
  path_edit: record(machine, { json: { before_json: snapshot, after_json: snapshot } }),
  job: record(machine, {
    json: { procedure_json: { shape: ProcedureJson }, stages_json: { shape: StagesJson, refs: { id: 'stage' } } },
  }),
  job_event: record(
    { job_id: 'job' },
    {
      json: { event_json: { shape: JobEventJson, refs: { photoId: 'photo' } } },
      ofMachine: 'job_id in (select id from job where machine_id = @machine)',
    },
  ),
  photo: record({ job_id: 'job' }, { ofMachine: 'job_id in (select id from job where machine_id = @machine)' }),
  fault_case: record(),
  case_event: record(
    { case_id: 'fault_case' },
    {
      json: { event_json: { shape: CaseEventJson, refs: { eventId: 'case_event', changeId: 'stage_change' } } },
      ofMachine: 'case_id in (select id from fault_case where machine_id = @machine)',
    },
  ),
  stage_change: record({
    ...machine,
    ...stage,
    supersedes_id: 'stage_change',
    part_id: 'part',
    before_test_id: 'airflow_test',
    job_id: 'job',
  }),
  airflow_test: record(
    { ...machine, supersedes_id: 'airflow_test', instrument_id: 'instrument', after_change_id: 'stage_change' },
    {
      json: {
        air_json: { shape: AirJson },
        failed_preconditions_json: { shape: PreconditionsJson },
        detail_json: { shape: DetailJson, refs: { stageId: 'stage' } },
        use_json: { shape: UseJson },
      },
    },
  ),
  test_reading: {
    as: 'owned',
    refs: { test_id: 'airflow_test' },
    ofMachine: 'test_id in (select id from airflow_test where machine_id = @machine)',
  },
  stock_movement: {
    as: 'record',
    refs: { part_id: 'part', change_id: 'stage_change', job_id: 'job', case_id: 'fault_case' },
  },
  usage_entry: record(),
  fill_look: record(stage, { ofMachine: OF_STAGE }),
  stage_start: record(stage, { ofMachine: OF_STAGE }),
  part_order: { as: 'record', refs: { part_id: 'part' } },
  order_arrival: { as: 'record', refs: { order_id: 'part_order' } },
  crew_entry: {
    as: 'record',
    refs: { person_id: 'person' },
    json: { entry_json: { shape: CrewEntryJson, refs: { to: 'person' } } },
  },
  plan_lock: { as: 'record', refs: stage },
  machine_away: { as: 'record', refs: machine },
  dust_collected: record(machine, {
    json: {
      confirmed_json: { shape: KeysJson },
      denied_json: { shape: KeysJson },
      answers_json: { shape: AnswersJson },
    },
  }),
  decontamination: record({ ...machine, job_id: 'job' }),
  penetration_test: record(),
  examination: record(),
  upgrade: record(machine, {
    json: {
      changes_json: { shape: UpgradeChangesJson, refs: { stageId: 'stage' } },
      predicted_json: { shape: PredictedJson },
    },
  }),
  upgrade_event: record(
    { upgrade_id: 'upgrade' },
    {
      json: { event_json: { shape: UpgradeEventJson, refs: { editId: 'path_edit', beforeTestId: 'airflow_test' } } },
      ofMachine: 'upgrade_id in (select id from upgrade where machine_id = @machine)',
    },
  ),
  upgrade_photo: record(
    { upgrade_id: 'upgrade' },
    { ofMachine: 'upgrade_id in (select id from upgrade where machine_id = @machine)' },
  ),
  bonding_reading: record(),
  integrity_check: record({ ...machine, ...stage }),
  seat_opening: record(stage, { ofMachine: OF_STAGE }),
};

/** The same value with new reference numbers. `move` returns null for a missing row. */
export const movedJson = (
  value: unknown,
  refs: JsonColumn['refs'],
  move: (table: BundleTable, n: number) => number,
): unknown => {
  if (refs === undefined) return value;
  if (Array.isArray(value)) return value.map((v) => movedJson(v, refs, move));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, v]: [string, unknown]) => {
      const to = refs[key];
      return [key, to !== undefined && typeof v === 'number' ? move(to, v) : movedJson(v, refs, move)];
    }),
  );
};
