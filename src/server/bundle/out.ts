import { createHash, type Hash } from 'node:crypto';
import { Readable } from 'node:stream';
import { setImmediate } from 'node:timers/promises';
import Sqlite from 'better-sqlite3';
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import {
  BUNDLE_FORMAT,
  BUNDLE_TABLE_NAMES,
  BUNDLE_TABLES,
  BUNDLE_VERSION,
  type BundleManifest,
  type BundleScope,
  type BundleTable,
} from '@/contracts/bundle';
import { MIGRATIONS } from '../db/migrations';
import { PICTURES, TABLE_SPECS } from './tables';

/** A zip says when each of its files was written; a bundle of the same records is the same bundle, whenever it was made. */
const NO_DAY = new Date(1980, 0, 1);
const ROWS_A_STEP = 500;

export const MANIFEST_FILE = 'moorwind.json';
export const recordsFile = (table: BundleTable): string => `records/${table}.ndjson`;
export const photoFile = (uid: string): string => `photos/${uid}`;

type Stored = Readonly<Record<string, string | number | Buffer | null>>;

/** The columns of a table's row in a bundle, in the order they are written. */
const columnsOf = (table: BundleTable): readonly string[] => Object.keys(BUNDLE_TABLES[table].shape);

const isNamed = (table: BundleTable): boolean => columnsOf(table).includes('uid');

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

const toLine = (table: BundleTable, stored: Stored): string => {
  const json = TABLE_SPECS[table].json ?? {};
  const row = Object.fromEntries(
    columnsOf(table).map((column) => {
      if (column === 'n') return [column, stored['id']];
      if (column === 'sha256') return [column, sha256(stored['bytes'] as Buffer)];
      const value = stored[column] ?? null;
      return [column, column in json && typeof value === 'string' ? (JSON.parse(value) as unknown) : value];
    }),
  );
  return `${JSON.stringify(row)}\n`;
};

/** The number of the machine of a bundle; null for the whole yard. */
export type MachineOf = number | null;

const rowsOf = (raw: Sqlite.Database, table: BundleTable, machine: MachineOf): Iterable<Stored> => {
  const { ofMachine } = TABLE_SPECS[table];
  const name = isNamed(table)
    ? ['i.uid as uid', `left join identity i on i.kind = '${table}' and i.row_id = t.id`]
    : ['null as uid', ''];
  const where = machine === null ? '' : `where t.id in (select id from "${table}" where ${ofMachine ?? '0'})`;
  const statement = raw.prepare(`select t.*, ${name[0]} from "${table}" t ${name[1]} ${where} order by t.id`);
  return (
    machine === null || ofMachine === undefined ? statement.iterate() : statement.iterate({ machine })
  ) as Iterable<Stored>;
};

/** Collects what the zip gives out, so that it can be handed on bit by bit. */
class Out {
  readonly zip: Zip;
  #ready: Uint8Array[] = [];
  #error: Error | null = null;

  constructor() {
    this.zip = new Zip((error, chunk) => {
      if (error) this.#error = error;
      else this.#ready.push(chunk);
    });
  }

  take(): readonly Uint8Array[] {
    if (this.#error) throw this.#error;
    const ready = this.#ready;
    this.#ready = [];
    return ready;
  }

  file(name: string, stored: boolean): ZipDeflate | ZipPassThrough {
    const file = stored ? new ZipPassThrough(name) : new ZipDeflate(name, { level: 6 });
    file.mtime = NO_DAY;
    this.zip.add(file);
    return file;
  }
}

interface TableOut {
  readonly raw: Sqlite.Database;
  readonly out: Out;
  readonly machine: MachineOf;
  readonly written: BundleManifest['tables'];
}

async function* tableOf(table: BundleTable, { raw, out, machine, written }: TableOut): AsyncGenerator<Uint8Array> {
  const file = out.file(recordsFile(table), false);
  const hash: Hash = createHash('sha256');
  const encoder = new TextEncoder();
  let [rows, lines] = [0, ''];
  const push = (last: boolean) => {
    const bytes = encoder.encode(lines);
    hash.update(bytes);
    file.push(bytes, last);
    lines = '';
  };
  for (const stored of rowsOf(raw, table, machine)) {
    lines += toLine(table, stored);
    rows += 1;
    if (rows % ROWS_A_STEP !== 0) continue;
    push(false);
    yield* out.take();
    // Other requests run in between.
    await setImmediate();
  }
  push(true);
  written[table] = { rows, sha256: hash.digest('hex') };
  yield* out.take();
}

async function* photosOf({ raw, out, machine }: TableOut): AsyncGenerator<Uint8Array> {
  for (const table of PICTURES)
    for (const { uid, bytes } of rowsOf(raw, table, machine)) {
      const file = out.file(photoFile(String(uid)), true);
      file.push(bytes as Buffer, true);
      yield* out.take();
      await setImmediate();
    }
}

/** The number of the machine of a tag, however it is written; null when there is none. */
const machineTagged = (raw: Sqlite.Database, tag: string): MachineOf => {
  const id: unknown = raw.prepare('select id from machine where tag = ? collate nocase').pluck().get(tag);
  return typeof id === 'number' ? id : null;
};

/**
 * The records of a file as one bundle, in pieces, all of one moment, while others write. An unknown machine gives an
 * empty bundle: check first.
 */
export async function* bundleOf(file: string, scope: BundleScope): AsyncGenerator<Uint8Array> {
  const raw = new Sqlite(file, { readonly: true, fileMustExist: true });
  try {
    raw.exec('begin');
    const out = new Out();
    const machine = scope.kind === 'machine' ? (machineTagged(raw, scope.tag) ?? -1) : null;
    const written: BundleManifest['tables'] = {};
    const of: TableOut = { raw, out, machine, written };
    for (const table of BUNDLE_TABLE_NAMES)
      if (machine === null || TABLE_SPECS[table].ofMachine !== undefined) yield* tableOf(table, of);
    yield* photosOf(of);
    const manifest: BundleManifest = {
      format: BUNDLE_FORMAT,
      version: BUNDLE_VERSION,
      schema: Object.keys(MIGRATIONS).at(-1) ?? '',
      scope,
      tables: written,
    };
    const last = out.file(MANIFEST_FILE, false);
    last.push(new TextEncoder().encode(`${JSON.stringify(manifest, null, 1)}\n`), true);
    out.zip.end();
    yield* out.take();
  } finally {
    raw.close();
  }
}

/** The same, as what a browser downloads. */
export const bundleStream = (file: string, scope: BundleScope): ReadableStream<Uint8Array> =>
  Readable.toWeb(Readable.from(bundleOf(file, scope))) as ReadableStream<Uint8Array>;
