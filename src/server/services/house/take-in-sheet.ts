import { PlainAnswer } from '@/contracts/action-answer';
import { SheetAnswer, type SheetBody, type UndoSheetBody } from '@/contracts/sheet';
import { fail, failure, type Failure, ok, type Result } from '@/core/failure/failure';
import { readRow } from '@/core/sheet/read';
import type { Db } from '../../db/connect';
import { loadRegister } from '../../repositories/dusts';
import { loadInstruments } from '../../repositories/instruments';
import { insertAudit } from '../../repositories/people';
import { insertImport, insertUndo, lastSeq, loadImports, type SheetImport, takeBack } from '../../repositories/sheets';
import { loadSite } from '../../repositories/site';
import { loadParts } from '../../repositories/stock';
import { WRITE_ROW } from './sheet-rows';
import type { SheetWorld } from './sheet-world';
import { type Context, runOnce } from '../yard/user-action';

/** The most wrong cells reported at once; a sheet with more has a wrong column. */
const MOST_WRONG = 200;

const worldOf = async (tx: Db, body: SheetBody, at: string): Promise<SheetWorld> => ({
  tx,
  at,
  by: body.by.toUpperCase(),
  site: await loadSite(tx),
  parts: new Map((await loadParts(tx)).map((p) => [p.code.toUpperCase(), p.id])),
  meters: await loadInstruments(tx),
  dusts: await loadRegister(tx),
  vouched: body.vouched,
  columns: body.columns,
  machines: new Map(),
  seen: new Set(),
});

/** Writes every row, or says which cells are wrong: `rows.12.tag`. */
const writeRows = async (tx: Db, body: SheetBody, at: string): Promise<Result<number>> => {
  const world = await worldOf(tx, body, at);
  const wrong: Failure[] = [];
  const put = (i: number, failures: readonly Failure[]) =>
    wrong.push(...failures.map((f) => ({ ...f, path: `rows.${i}${f.path === '' ? '' : `.${f.path}`}` })));
  let rows = 0;
  for (const [i, cells] of body.rows.entries()) {
    if (wrong.length >= MOST_WRONG) break;
    if (cells.every((c) => c.trim() === '')) continue;
    const read = readRow(body.kind, cells, body);
    const written = read.ok ? await WRITE_ROW[body.kind](world, read.value) : read;
    if (written.ok) rows += 1;
    else put(i, written.failures);
  }
  if (wrong.length > 0) return fail(...wrong.slice(0, MOST_WRONG));
  return rows === 0 ? fail(failure('sheet.empty', 'rows')) : ok(rows);
};

const takeIn = async (tx: Db, body: SheetBody, at: string): Promise<Result<SheetAnswer>> => {
  const firstSeq = (await lastSeq(tx)) + 1;
  const rows = await writeRows(tx, body, at);
  if (!rows.ok) return rows;
  const { kind, name, by } = body;
  const id = await insertImport(tx, {
    kind,
    name,
    rows: rows.value,
    at,
    by: by.toUpperCase(),
    firstSeq,
    lastSeq: await lastSeq(tx),
  });
  await insertAudit(tx, {
    at,
    who: by.toUpperCase(),
    kind: 'takenIn',
    detail: `sheet of ${kind}: ${rows.value} rows`,
    address: '',
  });
  return ok({ id, rows: rows.value });
};

class OnlyAsked extends Error {
  constructor(readonly result: Result<SheetAnswer>) {
    super('only asked');
  }
}

/** Imports a spreadsheet once, every row or none; with `dryRun` it only returns the problems. */
export const takeInSheet = async ({ db, now }: Context, body: SheetBody): Promise<Result<SheetAnswer>> => {
  const at = now();
  if (!body.dryRun) return runOnce(db, { kind: 'sheet', body, at, answers: SheetAnswer }, (tx) => takeIn(tx, body, at));
  try {
    return await db.transaction().execute(async (tx) => {
      throw new OnlyAsked(await takeIn(tx, body, at));
    });
  } catch (error) {
    if (error instanceof OnlyAsked) return error.result;
    throw error;
  }
};

/** Undoes one spreadsheet import as a whole, until later records use it. */
export const undoSheet = async ({ db, now }: Context, body: UndoSheetBody): Promise<Result<{ readonly id: number }>> =>
  runOnce(db, { kind: 'undo sheet', body, at: now(), answers: PlainAnswer }, async (tx) => {
    const found = (await loadImports(tx, Number.MAX_SAFE_INTEGER)).find((i) => i.id === body.id && !i.undone);
    if (!found) return fail(failure('import.unknown', 'id'));
    const what = await takeBack(tx, body.id);
    if (what !== null) return fail(failure('import.built-on', 'id', { what: what.replaceAll('_', ' ') }));
    await insertUndo(tx, { importId: body.id, at: now(), by: body.by.toUpperCase() });
    await insertAudit(tx, {
      at: now(),
      who: body.by.toUpperCase(),
      kind: 'takenIn',
      detail: `taken back: sheet of ${found.kind}, ${found.rows} rows`,
      address: '',
    });
    return ok({ id: body.id });
  });

const SHOWN_IMPORTS = 20;

/** The spreadsheets that came in last, newest first. */
export const recentSheets = ({ db }: Pick<Context, 'db'>): Promise<readonly SheetImport[]> =>
  loadImports(db, SHOWN_IMPORTS);
