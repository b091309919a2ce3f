import { createHash } from 'node:crypto';
import { unzipSync } from 'fflate';
import {
  BUNDLE_FORMAT,
  BUNDLE_TABLE_NAMES,
  BUNDLE_TABLES,
  BUNDLE_VERSION,
  BundleManifest,
  type BundleTable,
} from '@/contracts/bundle';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { MANIFEST_FILE, photoFile, recordsFile } from './out';
import { MIGRATIONS } from '../db/migrations';

// A bundle that came in: opened, and held to what its manifest says, before anything of it is believed.

/** Unpacked, one file of a bundle, and all of it: more than the records of a yard of 500 machines over ten years. */
const MOST_FILE = 400 * 2 ** 20;
const MOST_ALL = 2 ** 31;

export interface BundleRow extends Readonly<Record<string, unknown>> {
  readonly n: number;
  /** Not of a row that goes with another one. */
  readonly uid?: string;
}

export interface Bundle {
  readonly manifest: BundleManifest;
  /** The rows of a table, each held to its shape. Throws DamagedBundle. */
  readonly rows: (table: BundleTable) => Iterable<BundleRow>;
  /** A picture as it lies in it. Throws DamagedBundle. */
  readonly photo: (uid: string) => Uint8Array;
}

/** Thrown for a damaged bundle; `where` names the file, and the line where there is one. */
export class DamagedBundle extends Error {}

const ALLOWED = new Set<string>([MANIFEST_FILE, ...BUNDLE_TABLE_NAMES.map(recordsFile)]);
const isPhoto = (name: string): boolean => /^photos\/[0-9a-f]{32}$/.test(name);

interface Entry {
  readonly name: string;
  readonly originalSize: number;
}

const entriesOf = (bytes: Uint8Array): readonly Entry[] => {
  const entries: Entry[] = [];
  unzipSync(bytes, {
    filter: ({ name, originalSize }) => {
      entries.push({ name, originalSize });
      return false;
    },
  });
  return entries;
};

/** Extracts a file of the zip. It gets the size its entry states: a false size cuts the file, and its hash fails. */
const fileOf = (bytes: Uint8Array, name: string): Uint8Array => {
  const found = unzipSync(bytes, { filter: (f) => f.name === name })[name];
  if (!found) throw new DamagedBundle(name);
  return found;
};

const linesOf = function* (bytes: Uint8Array): Generator<string> {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  for (let from = 0; from < bytes.length;) {
    const found = bytes.indexOf(0x0a, from);
    const to = found < 0 ? bytes.length : found;
    yield decoder.decode(bytes.subarray(from, to));
    from = to + 1;
  }
};

const parsed = <T>(where: string, read: () => T): T => {
  try {
    return read();
  } catch {
    throw new DamagedBundle(where);
  }
};

const rowsOf = (bytes: Uint8Array, manifest: BundleManifest) =>
  function* (table: BundleTable): Generator<BundleRow> {
    const said = manifest.tables[table];
    if (!said) return;
    const name = recordsFile(table);
    const file = parsed(name, () => fileOf(bytes, name));
    if (createHash('sha256').update(file).digest('hex') !== said.sha256) throw new DamagedBundle(name);
    let line = 0;
    for (const text of linesOf(file)) {
      line += 1;
      yield parsed(`${name} line ${line}`, () => BUNDLE_TABLES[table].parse(JSON.parse(text)) as unknown as BundleRow);
    }
    if (line !== said.rows) throw new DamagedBundle(name);
  };

/** The version a manifest claims, before the rest of it is understood. */
const claimed = (manifest: unknown): number | null =>
  typeof manifest === 'object' &&
  manifest !== null &&
  'format' in manifest &&
  manifest.format === BUNDLE_FORMAT &&
  'version' in manifest &&
  typeof manifest.version === 'number'
    ? manifest.version
    : null;

/**
 * Opens a bundle: refuses a file that is not one, is incomplete, comes from a newer Moorwind, or holds foreign files.
 */
export const openBundle = (bytes: Uint8Array): Result<Bundle> => {
  try {
    const entries = entriesOf(bytes);
    const stranger = entries.find((e) => !ALLOWED.has(e.name) && !isPhoto(e.name));
    const twice = entries.find((e, i) => entries.findIndex((x) => x.name === e.name) < i);
    if (stranger ?? twice)
      return fail(failure('bundle.stranger', '', { name: (stranger ?? twice)?.name.slice(0, 80) ?? '' }));
    const all = entries.reduce((sum, e) => sum + e.originalSize, 0);
    if (all > MOST_ALL || entries.some((e) => e.originalSize > MOST_FILE)) return fail(failure('bundle.too-large'));
    const json: unknown = JSON.parse(new TextDecoder().decode(fileOf(bytes, MANIFEST_FILE)));
    const version = claimed(json);
    if (version === null) return fail(failure('bundle.damaged', '', { where: MANIFEST_FILE }));
    if (version > BUNDLE_VERSION) return fail(failure('bundle.newer', '', { version }));
    const manifest = BundleManifest.safeParse(json);
    if (!manifest.success) return fail(failure('bundle.damaged', '', { where: MANIFEST_FILE }));
    if (!(manifest.data.schema in MIGRATIONS))
      return fail(failure('bundle.newer', '', { version: manifest.data.schema }));
    const photo = (uid: string) => parsed(photoFile(uid), () => fileOf(bytes, photoFile(uid)));
    return ok({ manifest: manifest.data, rows: rowsOf(bytes, manifest.data), photo });
  } catch {
    return fail(failure('bundle.damaged', '', { where: 'the zip' }));
  }
};
