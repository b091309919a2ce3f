import { sql } from 'kysely';
import { BUNDLE_TABLE_NAMES, type BundleTable } from '@/contracts/bundle';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { type Bundle, type BundleRow, DamagedBundle } from './file';
import { TABLE_SPECS } from './tables';
import type { Db } from '../db/connect';

// Sorts the rows of a bundle: present ones, new ones, and the number of each row here.

/** A row of a bundle, by its number in it. */
type Numbers = Map<number, number>;

export interface Sorted {
  /** The number a row of the bundle has here. Throws DamagedBundle where the bundle has no such row. */
  readonly idOf: (table: BundleTable, n: number) => number;
  readonly isNew: (table: BundleTable, n: number) => boolean;
  /** Machines here that were changed where the bundle comes from, by their number in the bundle, and their tags here. */
  readonly taken: ReadonlyMap<number, string>;
  readonly known: number;
}

const identities = async (db: Db, table: BundleTable): Promise<ReadonlyMap<string, number>> => {
  const rows = await db.selectFrom('identity').select(['uid', 'row_id']).where('kind', '=', table).execute();
  return new Map(rows.map((r) => [r.uid, r.row_id]));
};

/** A column that holds text; '' where it does not. */
export const textIn = (row: BundleRow, column: string): string => {
  const value = row[column];
  return typeof value === 'string' ? value : '';
};

const naturals = async (db: Db, table: BundleTable): Promise<ReadonlyMap<string, number>> => {
  const { natural } = TABLE_SPECS[table];
  if (natural === undefined) return new Map();
  const { rows } = await sql<{ id: number; name: string }>`select id, upper(trim(${sql.ref(natural)})) as name
    from ${sql.table(table)}`.execute(db);
  return new Map(rows.map((r) => [r.name, r.id]));
};

const naturalName = (table: BundleTable, row: BundleRow): string =>
  textIn(row, TABLE_SPECS[table].natural ?? '')
    .trim()
    .toUpperCase();

const highest = async (db: Db, table: BundleTable): Promise<number> => {
  const { rows } = await sql<{ id: number | null }>`select max(id) as id from ${sql.table(table)}`.execute(db);
  return rows[0]?.id ?? 0;
};

/** The edits of a machine's path that the bundle knows, and those that are known here: which side has seen more. */
const whoSawMore = async (db: Db, bundle: Bundle, machines: Numbers): Promise<Result<ReadonlyMap<number, string>>> => {
  const uids = await db
    .selectFrom('path_edit as e')
    .innerJoin('identity as i', (j) => j.onRef('i.row_id', '=', 'e.id').on('i.kind', '=', 'path_edit'))
    .select(['e.machine_id', 'i.uid'])
    .execute();
  const there = new Map<number, Set<string>>();
  for (const row of bundle.rows('path_edit')) {
    const n = Number(row['machine_id']);
    there.set(n, (there.get(n) ?? new Set<string>()).add(String(row.uid)));
  }
  const tags = new Map(
    (await db.selectFrom('machine').select(['id', 'tag']).execute()).map((m) => [m.id, m.tag] as const),
  );
  const taken = new Map<number, string>();
  const torn: string[] = [];
  for (const [n, id] of machines) {
    const theirs = there.get(n) ?? new Set<string>();
    const ours = uids.filter((e) => e.machine_id === id).map((e) => e.uid);
    const [onlyTheirs, onlyOurs] = [[...theirs].some((u) => !ours.includes(u)), ours.some((u) => !theirs.has(u))];
    if (onlyTheirs && onlyOurs) torn.push(tags.get(id) ?? '');
    else if (onlyTheirs) taken.set(n, tags.get(id) ?? '');
  }
  return torn.length > 0 ? fail(failure('bundle.both-edited', '', { tags: torn.join(', ') })) : ok(taken);
};

/** New machines with a tag that another machine has, or had, here. */
const tagsTaken = async (db: Db, bundle: Bundle, machines: Numbers): Promise<readonly string[]> => {
  const here = await db.selectFrom('machine').select(['id', 'tag']).execute();
  const once = await db.selectFrom('former_tag').select(['machine_id as id', 'tag']).execute();
  const owner = new Map([...once, ...here].map((r) => [r.tag.toUpperCase(), r.id]));
  const clash: string[] = [];
  const look = (tag: unknown, n: number) => {
    const has = owner.get(String(tag).toUpperCase());
    if (has !== undefined && has !== machines.get(n)) clash.push(String(tag));
  };
  for (const row of bundle.rows('machine')) look(row['tag'], row.n);
  for (const row of bundle.rows('former_tag')) look(row['tag'], Number(row['machine_id']));
  return clash;
};

interface Found {
  readonly here: Map<BundleTable, Numbers>;
  readonly fresh: Map<BundleTable, Set<number>>;
  /** Machines whose path is imported from the bundle, and their stages, by their numbers in the bundle. */
  readonly taken: Map<number, string>;
  readonly takenStages: Set<number>;
}

/** Sorts the rows of one table: those here by name or natural key, and the new ones. */
const sortTable = async (db: Db, bundle: Bundle, { table, found }: { table: BundleTable; found: Found }) => {
  const spec = TABLE_SPECS[table];
  const here: Numbers = new Map();
  const fresh = new Set<number>();
  found.here.set(table, here);
  found.fresh.set(table, fresh);
  const siteIsNew = found.fresh.get('site')?.size !== 0;
  const [uids, names] = [await identities(db, table), await naturals(db, table)];
  const siteHere = spec.as === 'site' && (await highest(db, 'site')) > 0;
  for (const row of bundle.rows(table)) {
    if (spec.as === 'site') {
      if (siteHere) here.set(row.n, 1);
      else fresh.add(row.n);
      continue;
    }
    if (spec.as === 'owned') {
      const [column, owner] = Object.entries(spec.refs ?? {})[0] ?? ['', 'machine' as const];
      const n = Number(row[column]);
      if (found.fresh.get(owner)?.has(n) || (table === 'rule' && found.takenStages.has(n))) fresh.add(row.n);
      continue;
    }
    if (table === 'stage' && found.taken.has(Number(row['machine_id']))) found.takenStages.add(row.n);
    const id = uids.get(row.uid ?? '') ?? names.get(naturalName(table, row));
    if (id !== undefined) here.set(row.n, id);
    // The history of the settings is that of the yard they belong to.
    else if (table !== 'setting_change' || siteIsNew) fresh.add(row.n);
  }
};

/**
 * New rows keep their numbers where all of them follow the present ones, so that an empty installation gets the same
 * addresses; otherwise they get the next numbers, in their order.
 */
const numbersFor = async (db: Db, table: BundleTable, fresh: ReadonlySet<number>): Promise<Numbers> => {
  const most = await highest(db, table);
  const wanted = [...fresh].sort((a, b) => a - b);
  const keep = wanted.every((n) => n > most);
  return new Map(wanted.map((n, i) => [n, keep ? n : most + 1 + i]));
};

/** Separates new rows from present ones, and numbers the new ones. Refuses rows that cannot be merged. */
export const sortRows = async (db: Db, bundle: Bundle): Promise<Result<Sorted>> => {
  const found: Found = { here: new Map(), fresh: new Map(), taken: new Map(), takenStages: new Set() };
  for (const table of BUNDLE_TABLE_NAMES) {
    await sortTable(db, bundle, { table, found });
    if (table !== 'machine') continue;
    const machines = found.here.get('machine') ?? new Map<number, number>();
    const clash = await tagsTaken(db, bundle, machines);
    if (clash.length > 0) return fail(failure('bundle.tag-taken', '', { tags: clash.slice(0, 5).join(', ') }));
    const taken = await whoSawMore(db, bundle, machines);
    if (!taken.ok) return taken;
    for (const [n, tag] of taken.value) found.taken.set(n, tag);
  }
  const numbers = new Map<BundleTable, Numbers>();
  for (const table of BUNDLE_TABLE_NAMES)
    numbers.set(table, await numbersFor(db, table, found.fresh.get(table) ?? new Set()));
  return ok({
    idOf: (table, n) => {
      const id = found.here.get(table)?.get(n) ?? numbers.get(table)?.get(n);
      if (id === undefined) throw new DamagedBundle(`${table} ${n}`);
      return id;
    },
    isNew: (table, n) => found.fresh.get(table)?.has(n) ?? false,
    taken: found.taken,
    known: [...found.here.values()].reduce((sum, of) => sum + of.size, 0),
  });
};
