import { z } from 'zod';
import {
  ChangeReasonName,
  HazardName,
  IntegrityTestName,
  MachineClassName,
  MachineKindName,
  MethodName,
  MovementReasonName,
  PlaceName,
  QuantityKindName,
  StageKindName,
} from './enums';
import { ReadingHowJson } from './json-columns';

// The open format of a yard's records, table by table. docs/bundle.md describes it.

/** Raised when bundles of an earlier version can no longer be read unchanged. */
export const BUNDLE_VERSION = 1;
export const BUNDLE_FORMAT = 'moorwind-bundle';

const T = z.string().max(20_000);
const I = z.int();
const R = z.number();
const Bit = z.union([z.literal(0), z.literal(1)]);
/** A moment, UTC ISO 8601. */
const Moment = z.iso.datetime();
const Day = z.iso.date();
/** The number a row of the named table has in this bundle. */
const ref = (table: string) => z.int().positive().meta({ refersTo: table });
/** What Moorwind keeps as JSON; checked by its own shape when it is read. */
const J = z.json();

/** `n` numbers a row within its table in this bundle; `uid` names it for good, the same in every installation. */
const row = <S extends z.ZodRawShape>(shape: S) => z.strictObject({ n: z.int().positive(), ...shape });
const named = <S extends z.ZodRawShape>(shape: S) => row({ uid: z.string().regex(/^[0-9a-f]{32}$/), ...shape });

const signed = { at: Moment, by_initials: T };
const picture = {
  media_type: z.enum(['image/jpeg', 'image/png', 'image/webp']),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
};
const machine = { machine_id: ref('machine') };
const stage = { stage_id: ref('stage') };
const work = {
  ...machine,
  performed_at: Moment,
  recorded_at: Moment,
  by_initials: T,
  note: T,
  voided: Bit,
  correction_reason: T.nullable(),
};

/** Every table of a bundle, in the order they are written. Quantities are in SI units, shares from 0 to 1. */
export const BUNDLE_TABLES = {
  site: row({
    name: T,
    time_zone: T,
    altitude_m: R,
    rule_set: z.enum(['eu_uk', 'us']),
    warn_loss: R,
    act_loss: R,
    open_here: Bit,
    works_on: z.string().regex(/^[0-6]{1,7}$/),
    closed_json: J,
    minutes_a_day: I,
    currency: T.default(''),
    late_factor: R.default(6),
    opening_json: J.default({ plain: 8, controlled: 18, contained: 45 }),
    opening_minutes_json: J.default({ plain: 6, controlled: 12, contained: 25 }),
  }),
  part: named({
    code: T,
    name: T,
    pack_size: I,
    bin: T,
    price: R,
    lead_days: I,
    shelf_days: I.nullable(),
    supplier: T,
    minimum: I.nullable(),
    retired_on: Day.nullable(),
    medium: T.default(''),
    area_m2: R.nullable().default(null),
    rating: T.default(''),
  }),
  part_merge: named({ part_id: ref('part'), into_id: ref('part'), ...signed }),
  /** The picture itself lies in photos/UID. */
  part_photo: named({ part_id: ref('part'), ...signed, ...picture }),
  instrument: named({
    name: T,
    reads: QuantityKindName,
    accuracy_json: J,
    calibration_due_on: Day.nullable(),
    certificate: T,
    retired_on: Day.nullable(),
  }),
  /** Without passphrases: each chooses a new one where they arrive. */
  person: named({
    initials: T,
    name: T,
    role: z.enum(['look', 'technician', 'lead']),
    may_contain: Bit,
    mask_fit_on: Day.nullable(),
    trained_on: Day.nullable(),
    active: Bit,
    added_at: Moment,
  }),
  dust_entry: named({ key: T, dust_json: J, ...signed }),
  tool_entry: named({ key: T, tool_json: J, ...signed }),
  setting_change: named({ ...signed, setting: T, before: T, after: T }),
  machine: named({
    tag: T,
    name: T,
    kind: MachineKindName,
    maker: T,
    place: T,
    machine_class: MachineClassName.nullable(),
    has_brush: Bit,
    hose_bore_m: R.nullable(),
    hose_length_m: R.nullable(),
    hose_selector_m: R.nullable(),
    nominal_volts: R,
    wet_set: Bit,
    in_service_on: Day,
  }),
  former_tag: named({ ...machine, tag: T, ...signed }),
  machine_retirement: named({ ...machine, on_day: Day, how: z.enum(['retired', 'sold', 'back']), ...signed, note: T }),
  stage: named({
    ...machine,
    position: I,
    kind: StageKindName,
    name: T,
    part_id: ref('part').nullable(),
    missing: Bit,
    do_not_remove: Bit,
    first_used_on: Day,
    spec_json: J.nullable(),
    retired_on: Day.nullable(),
    missing_since: Moment.nullable(),
  }),
  /** Belongs to its stage and goes with it. */
  rule: row({ ...stage, rule_json: J, school: T }),
  path_edit: named({
    ...machine,
    performed_at: Moment,
    by_initials: T,
    note: T,
    before_json: J,
    after_json: J,
    reshapes: Bit,
  }),
  job: named({
    ...machine,
    started_at: Moment,
    by_initials: T,
    hazard: HazardName,
    last_collected: T,
    procedure_json: J,
    reason: T,
    people: I,
    stages_json: J,
  }),
  job_event: named({ job_id: ref('job'), ...signed, event_json: J }),
  /** The picture itself lies in photos/UID. */
  photo: named({
    job_id: ref('job'),
    ...signed,
    ...picture,
  }),
  fault_case: named({
    ...machine,
    opened_at: Moment,
    by_initials: T,
    complaint: T,
    words: T,
    hazard: HazardName,
    last_collected: T,
    school: T,
  }),
  case_event: named({ case_id: ref('fault_case'), ...signed, event_json: J }),
  stage_change: named({
    supersedes_id: ref('stage_change').nullable(),
    ...stage,
    reason: ChangeReasonName,
    part_id: ref('part').nullable(),
    quantity: I,
    before_test_id: ref('airflow_test').nullable(),
    ...work,
    job_id: ref('job').nullable(),
    done_by: T.nullable(),
    done_how: T.nullable(),
  }),
  airflow_test: named({
    supersedes_id: ref('airflow_test').nullable(),
    method: MethodName,
    place: PlaceName,
    bore_m: R.nullable(),
    profile_factor: R.nullable(),
    instrument_id: ref('instrument').nullable(),
    air_json: J,
    hose_bore_m: R.nullable(),
    failed_preconditions_json: J,
    is_baseline: Bit,
    bag_state: z.enum(['asFound', 'asLeft']),
    after_change_id: ref('stage_change').nullable(),
    ...work,
    detail_json: J,
    use_json: J,
    rig_series: I,
    volts: R.nullable(),
    configuration: T,
  }),
  /** Belongs to its test and goes with it. */
  test_reading: row({
    test_id: ref('airflow_test'),
    seq: I,
    typed: T,
    unit: T,
    value_si: R,
    resolution_si: R,
    struck_because: T.nullable(),
    slot: I,
    how: ReadingHowJson,
  }),
  stock_movement: named({
    part_id: ref('part'),
    quantity: I,
    reason: MovementReasonName,
    ...signed,
    change_id: ref('stage_change').nullable(),
    note: T,
    job_id: ref('job').nullable(),
    case_id: ref('fault_case').nullable(),
  }),
  usage_entry: named({ ...machine, day: Day, hours: R, dust: T, ...signed }),
  fill_look: named({ ...stage, day: Day, share: R, ...signed }),
  part_order: named({ part_id: ref('part'), quantity: I, arrives_on: Day, ...signed }),
  order_arrival: named({ order_id: ref('part_order'), ...signed }),
  crew_entry: named({ person_id: ref('person'), ...signed, entry_json: J }),
  stage_start: named({ ...stage, day: Day, ...signed }),
  plan_lock: named({ ...stage, day: Day.nullable(), ...signed }),
  machine_away: named({ ...machine, from_day: Day, to_day: Day, why: T, ...signed }),
  dust_collected: named({
    ...machine,
    since_on: Day.nullable(),
    said: T,
    confirmed_json: J,
    denied_json: J,
    answers_json: J,
    own_level: HazardName.nullable(),
    lower_because: T,
    ...signed,
  }),
  decontamination: named({
    ...machine,
    on_day: Day,
    how: z.enum(['job', 'contractor']),
    paper: T,
    job_id: ref('job').nullable(),
    ...signed,
  }),
  penetration_test: named({
    ...machine,
    tested_on: Day,
    tester: T,
    method: T,
    certificate: T,
    share: R,
    limit_share: R,
    next_due_on: Day.nullable(),
    ...signed,
  }),
  examination: named({ ...machine, examined_on: Day, examiner: T, found: T, ...signed }),
  upgrade: named({
    ...machine,
    ...signed,
    note: T,
    changes_json: J,
    price: z.number().nonnegative().nullable(),
    predicted_json: J,
  }),
  upgrade_event: named({ upgrade_id: ref('upgrade'), ...signed, event_json: J }),
  /** The picture itself lies in photos/UID. */
  upgrade_photo: named({ upgrade_id: ref('upgrade'), ...signed, ...picture }),
  bonding_reading: named({
    ...machine,
    measured_on: Day,
    ohm: z.number().nonnegative().nullable(),
    between_text: T,
    ...signed,
  }),
  integrity_check: named({ ...machine, ...stage, ...signed, test: IntegrityTestName, passed: Bit, note: T }),
  seat_opening: named({ ...stage, why: T, ...signed }),
} as const satisfies Record<string, z.ZodObject>;

export type BundleTable = keyof typeof BUNDLE_TABLES;
export const BUNDLE_TABLE_NAMES = Object.keys(BUNDLE_TABLES) as readonly BundleTable[];

/** `moorwind.json`, the first thing that is read: what the bundle is, and what each of its files must be. */
export const BundleManifest = z.strictObject({
  format: z.literal(BUNDLE_FORMAT),
  version: z.int().min(1),
  /** The newest change of the schema that the records had seen. */
  schema: z.string().max(60),
  scope: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('yard') }),
    z.strictObject({ kind: z.literal('machine'), tag: z.string().max(16) }),
  ]),
  tables: z.partialRecord(
    z.enum(BUNDLE_TABLE_NAMES as [BundleTable, ...BundleTable[]]),
    z.strictObject({ rows: z.int().min(0), sha256: z.string().regex(/^[0-9a-f]{64}$/) }),
  ),
});
export type BundleManifest = z.infer<typeof BundleManifest>;
export type BundleScope = BundleManifest['scope'];

/** The published schema: the manifest, and a row of each table. */
export const bundleSchema = (): object => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: `Moorwind bundle, version ${BUNDLE_VERSION}`,
  description:
    'A zip of moorwind.json (the manifest), records/TABLE.ndjson (one row a line) and photos/UID. See docs/bundle.md.',
  $defs: {
    manifest: z.toJSONSchema(BundleManifest),
    ...Object.fromEntries(BUNDLE_TABLE_NAMES.map((t) => [t, z.toJSONSchema(BUNDLE_TABLES[t])])),
  },
});
