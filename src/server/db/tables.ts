import type { Generated, Insertable, Selectable } from 'kysely';
import type { MadeTable, StockOnHandTable, YardRevisionTable } from './tables-digest';
import type {
  DecontaminationTable,
  DustCollectedTable,
  BondingReadingTable,
  DustEntryTable,
  ExaminationTable,
  PenetrationTestTable,
  SeatOpeningTable,
  ToolEntryTable,
} from './tables-dust';
import type { UpgradeEventTable, UpgradePhotoTable, UpgradeTable } from './tables-upgrade';
import type { AccessKeyTable, AuditLineTable, CrewEntryTable, PersonTable, SessionTable } from './tables-people';
import type {
  CaseEventTable,
  FaultCaseTable,
  IntegrityCheckTable,
  JobEventTable,
  JobTable,
  PhotoTable,
} from './tables-jobs';
import type {
  FormerTagTable,
  IdentityTable,
  MachineRetirementTable,
  SettingChangeTable,
  SheetImportTable,
  SheetUndoTable,
  SiteTable,
  UndoingTable,
} from './tables-site';
import type {
  FillLookTable,
  MachineAwayTable,
  PlanPromiseTable,
  StageStartTable,
  OrderArrivalTable,
  OutboxMessageTable,
  PartOrderTable,
  PlanLockTable,
  UsageEntryTable,
} from './tables-plan';

/** JSON columns hold text; the repositories parse them through `contracts/json-columns`. */
export interface PartTable {
  id: Generated<number>;
  code: string;
  name: string;
  pack_size: number;
  bin: string;
  price: Generated<number>;
  lead_days: Generated<number>;
  shelf_days: Generated<number | null>;
  supplier: Generated<string>;
  /** Reordered below this many pieces; null leaves it to the demand. */
  minimum: Generated<number | null>;
  retired_on: Generated<string | null>;
  medium: Generated<string>;
  area_m2: Generated<number | null>;
  rating: Generated<string>;
}

/** Two entries of one and the same part: the first is read as the second from then on. */
export interface PartMergeTable {
  id: Generated<number>;
  part_id: number;
  into_id: number;
  at: string;
  by_initials: string;
}

export interface PartPhotoTable {
  id: Generated<number>;
  part_id: number;
  at: string;
  by_initials: string;
  media_type: string;
  bytes: Uint8Array;
}

export interface MachineTable {
  id: Generated<number>;
  tag: string;
  name: string;
  kind: string;
  maker: string;
  place: string;
  machine_class: string | null;
  has_brush: number;
  hose_bore_m: number | null;
  hose_length_m: number | null;
  hose_selector_m: number | null;
  nominal_volts: number;
  wet_set: Generated<number>;
  in_service_on: string;
}

export interface StageTable {
  id: Generated<number>;
  machine_id: number;
  position: number;
  kind: string;
  name: string;
  part_id: number | null;
  missing: number;
  do_not_remove: number;
  first_used_on: string;
  spec_json: Generated<string | null>;
  retired_on: Generated<string | null>;
  missing_since: Generated<string | null>;
}

export interface RuleTable {
  id: Generated<number>;
  stage_id: number;
  rule_json: string;
  school: string;
}

export interface InstrumentTable {
  id: Generated<number>;
  name: string;
  reads: string;
  accuracy_json: string;
  calibration_due_on: string | null;
  certificate: Generated<string>;
  retired_on: Generated<string | null>;
}

interface WorkColumns {
  id: Generated<number>;
  machine_id: number;
  performed_at: string;
  recorded_at: string;
  by_initials: string;
  note: string;
  supersedes_id: number | null;
  voided: number;
  correction_reason: string | null;
}

export interface AirflowTestTable extends WorkColumns {
  method: string;
  place: string;
  bore_m: number | null;
  profile_factor: number | null;
  instrument_id: number | null;
  air_json: string;
  hose_bore_m: number | null;
  failed_preconditions_json: string;
  is_baseline: number;
  bag_state: string;
  after_change_id: number | null;
  detail_json: string;
  use_json: string;
  rig_series: number;
  volts: number | null;
  configuration: string;
}

export interface TestReadingTable {
  id: Generated<number>;
  test_id: number;
  seq: number;
  typed: string;
  unit: string;
  value_si: number;
  resolution_si: number;
  struck_because: string | null;
  slot: number;
  how: string;
}

export interface StageChangeTable extends WorkColumns {
  stage_id: number;
  reason: string;
  part_id: number | null;
  quantity: number;
  before_test_id: number | null;
  /** The guided job it was made in. */
  job_id: Generated<number | null>;
  /** For an unguided change: who did it, and how. */
  done_by: Generated<string | null>;
  done_how: Generated<string | null>;
}

export interface StockMovementTable {
  id: Generated<number>;
  part_id: number;
  quantity: number;
  reason: string;
  at: string;
  by_initials: string;
  change_id: number | null;
  job_id: number | null;
  case_id: number | null;
  note: string;
}

/** One edit of an air path, with the path before and after it. */
export interface PathEditTable {
  id: Generated<number>;
  machine_id: number;
  performed_at: string;
  by_initials: string;
  note: string;
  before_json: string;
  after_json: string;
  /** The air runs another way, or through something else, than before. */
  reshapes: number;
}

/** One row a user action: the client's id makes a double click or a retry one record. */
export interface UserActionTable {
  client_id: string;
  kind: string;
  request_hash: string;
  result_json: string;
  at: string;
}

export interface Tables {
  site: SiteTable;
  setting_change: SettingChangeTable;
  former_tag: FormerTagTable;
  machine_retirement: MachineRetirementTable;
  identity: IdentityTable;
  sheet_import: SheetImportTable;
  sheet_undo: SheetUndoTable;
  undoing: UndoingTable;
  part: PartTable;
  part_merge: PartMergeTable;
  part_photo: PartPhotoTable;
  machine: MachineTable;
  stage: StageTable;
  rule: RuleTable;
  instrument: InstrumentTable;
  airflow_test: AirflowTestTable;
  test_reading: TestReadingTable;
  stage_change: StageChangeTable;
  stock_movement: StockMovementTable;
  path_edit: PathEditTable;
  fault_case: FaultCaseTable;
  case_event: CaseEventTable;
  job: JobTable;
  job_event: JobEventTable;
  integrity_check: IntegrityCheckTable;
  photo: PhotoTable;
  usage_entry: UsageEntryTable;
  fill_look: FillLookTable;
  part_order: PartOrderTable;
  order_arrival: OrderArrivalTable;
  plan_lock: PlanLockTable;
  stage_start: StageStartTable;
  crew_entry: CrewEntryTable;
  outbox_message: OutboxMessageTable;
  machine_away: MachineAwayTable;
  plan_promise: PlanPromiseTable;
  dust_entry: DustEntryTable;
  tool_entry: ToolEntryTable;
  bonding_reading: BondingReadingTable;
  upgrade: UpgradeTable;
  upgrade_event: UpgradeEventTable;
  upgrade_photo: UpgradePhotoTable;
  dust_collected: DustCollectedTable;
  decontamination: DecontaminationTable;
  penetration_test: PenetrationTestTable;
  examination: ExaminationTable;
  seat_opening: SeatOpeningTable;
  user_action: UserActionTable;
  person: PersonTable;
  session: SessionTable;
  access_key: AccessKeyTable;
  audit_line: AuditLineTable;
  yard_revision: YardRevisionTable;
  machine_digest: MadeTable;
  machine_forecast: MadeTable;
  stock_on_hand: StockOnHandTable;
}

export type Row<T extends keyof Tables> = Selectable<Tables[T]>;
export type NewRow<T extends keyof Tables> = Insertable<Tables[T]>;
