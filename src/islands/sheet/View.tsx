import { useEffect, useMemo, useRef, useState } from 'react';
import { MOST_SHEET_COLUMNS, MOST_SHEET_ROWS, SheetAnswer } from '@/contracts/sheet';
import type { SheetKind } from '@/core/sheet/fields';
import type { Column, DateOrder } from '@/core/sheet/read';
import type { UnitSystem } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { SHEET_HELP, SHEET_WORDS } from '@/messages/sheet';
import { setChoice } from '@/ui/cookies';
import { newClientId, postFor } from '@/ui/post-action';
import { FieldProblems } from '@/ui/problems';
import { InitialsField } from '@/ui/text-fields';
import { Columns } from './Columns';
import { byRow, readLines } from './lines';
import { Preview } from './Preview';
import { Recent, type RecentSheet } from './Recent';
import { decodeText, MOST_FILE_BYTES, readTable, type Table } from './read-table';
import { doubledFields, guessed, missingFields } from './state';

interface SheetProps {
  readonly kind: SheetKind;
  readonly units: UnitSystem;
  readonly by: string;
  readonly recent: readonly RecentSheet[];
}

interface Source {
  readonly name: string;
  readonly table: Table;
}

interface ChooseProps {
  readonly onSource: (source: Source) => void;
}

/** A file, or rows pasted from a spreadsheet. */
const Choose = ({ onSource }: ChooseProps) => {
  const [wrong, setWrong] = useState('');
  const take = (name: string, text: string) => {
    const table = readTable(text);
    const problem =
      table.rows.length === 0
        ? 'The sheet has no row below the heading.'
        : table.rows.length > MOST_SHEET_ROWS
          ? `The sheet has ${table.rows.length} rows; ${MOST_SHEET_ROWS} can be imported at once. Split it.`
          : table.headings.length > MOST_SHEET_COLUMNS
            ? `The sheet has ${table.headings.length} columns; ${MOST_SHEET_COLUMNS} at most.`
            : '';
    setWrong(problem);
    if (problem === '') onSource({ name, table });
  };
  const file = async (chosen: File | undefined) => {
    if (!chosen) return;
    if (chosen.size > MOST_FILE_BYTES)
      setWrong('That file is larger than any list of a yard. Save the one sheet you want as CSV.');
    else if (/\.(xlsx?|ods|numbers)$/i.test(chosen.name))
      setWrong('That is a workbook. Save the sheet as CSV, or paste its cells below.');
    else take(chosen.name, decodeText(new Uint8Array(await chosen.arrayBuffer())));
  };
  return (
    <div className="grid gap-3 md:grid-cols-2">
      <label className="block">
        <span className="caption">A file, saved as CSV</span>
        <input
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          className="file-input w-full"
          onChange={(e) => void file(e.currentTarget.files?.[0])}
        />
      </label>
      <label className="block">
        <span className="caption">Or paste the cells, with their heading</span>
        <textarea
          className="field min-h-24"
          defaultValue=""
          onPaste={(e) => {
            const text = e.clipboardData.getData('text/plain');
            if (text.includes('\n') || text.includes('\t')) take('pasted', text);
          }}
        />
      </label>
      {wrong !== '' && (
        <p role="alert" className="tone-stop font-semibold md:col-span-2">
          {wrong}
        </p>
      )}
    </div>
  );
};

interface State {
  readonly source: Source | null;
  readonly columns: readonly Column[];
  readonly problems: readonly Problem[];
  readonly checked: boolean;
  readonly sending: boolean;
}
const EMPTY: State = { source: null, columns: [], problems: [], checked: false, sending: false };

interface HookProps {
  readonly kind: SheetKind;
  readonly units: UnitSystem;
  readonly by: string;
}

/** The open sheet: its fields, its problems, and its sending. */
const useSheet = ({ kind, units, by: known }: HookProps) => {
  const [s, setState] = useState<State>(EMPTY);
  const set = (over: Partial<State>) => setState((held) => ({ ...held, ...over }));
  const [order, setOrder] = useState<DateOrder>(units === 'us' ? 'monthFirst' : 'dayFirst');
  const [vouched, setVouched] = useState(false);
  const [by, setBy] = useState(known);
  const clientId = useRef(newClientId());
  const { source, columns, problems } = s;
  const said = useMemo(() => byRow(problems), [problems]);
  const lines = useMemo(
    () => (source ? readLines(source.table, { kind, columns, order }, said) : []),
    [source, kind, columns, order, said],
  );
  const fields = useMemo(() => columns.flatMap((c) => c.field ?? []), [columns]);
  const send = async (dryRun: boolean) => {
    if (!source || s.sending) return;
    set({ sending: true });
    const upper = by.trim().toUpperCase();
    const rows = source.table.rows;
    const id = dryRun ? newClientId() : clientId.current;
    const body = { clientId: id, by: upper, dryRun, kind, name: source.name, order, vouched, columns, rows };
    const answer = await postFor('/api/sheets', body, () =>
      Promise.resolve((data: unknown) => SheetAnswer.parse(data)),
    );
    set({ sending: false, problems: answer.ok ? [] : answer.problems, checked: answer.ok });
    if (!answer.ok) clientId.current = newClientId();
    if (!answer.ok || dryRun) return;
    setChoice('mw_by', upper);
    window.location.assign(`/sheets?kind=${kind}&in=${answer.value.rows}`);
  };
  const take = (found: Source) => {
    clientId.current = newClientId();
    set({ ...EMPTY, source: found, columns: guessed(kind, found.table) });
  };
  const retake = (over: { columns?: readonly Column[]; order?: DateOrder }) => {
    if (over.order) setOrder(over.order);
    set({ ...(over.columns ? { columns: over.columns } : {}), checked: false, problems: [] });
  };
  const drop = () => setState(EMPTY);
  return { ...s, order, vouched, setVouched, by, setBy, lines, fields, send, take, retake, drop };
};
type SheetAtHand = ReturnType<typeof useSheet>;

/** For tests: a person states that they count. */
const Vouch = ({ sheet }: { readonly sheet: SheetAtHand }) => (
  <label className="flex min-h-11 items-start gap-2 py-1.5">
    <input
      type="checkbox"
      className="checkbox checkbox-primary mt-0.5"
      checked={sheet.vouched}
      onChange={(e) => sheet.setVouched(e.currentTarget.checked)}
    />
    <span>
      They were taken at full speed, bleed closed, the hose as in use, settled, the rig sealed and the meter at zero.
      <span className="soft block text-sm">Without this tick they are kept, and no verdict or baseline uses them.</span>
    </span>
  </label>
);

const neededOf = (kind: SheetKind, { columns, by }: Pick<SheetAtHand, 'columns' | 'by'>): string => {
  const [missing] = missingFields({ kind, columns });
  const [doubled] = doubledFields({ kind, columns });
  if (missing) return `Which column is: ${missing.label}?`;
  if (doubled) return `Two columns are taken for: ${doubled.label}.`;
  return by.trim() === '' ? 'Your initials are needed.' : '';
};

/** Checks every row first; imports them when all are right. */
const Foot = ({ kind, sheet }: { readonly kind: SheetKind; readonly sheet: SheetAtHand }) => {
  const wrong = sheet.lines.filter((l) => l.problems.length > 0).length;
  const needed = neededOf(kind, sheet);
  const ready = sheet.checked && wrong === 0;
  const words = ready
    ? sheet.sending
      ? 'Importing...'
      : `Import ${sheet.lines.length} ${SHEET_WORDS[kind]}`
    : sheet.sending
      ? 'Checking...'
      : 'Check every row';
  const said =
    wrong > 0
      ? `${wrong === 1 ? '1 row has a problem' : `${wrong} rows have problems`}. Correct the file and load it again. Nothing is imported until every row is right.`
      : ready
        ? 'Every row can be imported. The import can be undone as a whole until later records use it.'
        : '';
  return (
    <>
      <FieldProblems id="sheet-problems" problems={sheet.problems.filter((p) => !p.path.startsWith('rows.'))} />
      <div className="flex flex-wrap items-end gap-2">
        <InitialsField value={sheet.by} onValue={sheet.setBy} />
        <button
          type="button"
          className="go"
          disabled={needed !== '' || sheet.sending}
          onClick={() => void sheet.send(!ready)}
        >
          {words}
        </button>
        <p className="soft text-sm" role="status">
          {needed === '' ? said : needed}
        </p>
      </div>
    </>
  );
};

/** Imports a spreadsheet: columns, then every row as it would be, then everything or nothing. */
export const Sheet = ({ kind, units, by, recent }: SheetProps) => {
  const sheet = useSheet({ kind, units, by });
  useEffect(() => {
    document.documentElement.dataset['sheet'] = 'ready';
  }, []);
  const { source } = sheet;
  return (
    <div className="space-y-5">
      <p className="soft">{SHEET_HELP[kind]}</p>
      {!source && <Choose onSource={sheet.take} />}
      {source && (
        <>
          <p>
            <strong className="break-words">{source.name}</strong>: {source.table.rows.length} rows.{' '}
            <button type="button" className="min-h-11 underline underline-offset-4" onClick={sheet.drop}>
              Take another
            </button>
          </p>
          <Columns
            kind={kind}
            table={source.table}
            columns={sheet.columns}
            setColumns={(columns) => sheet.retake({ columns })}
            order={sheet.order}
            setOrder={(order) => sheet.retake({ order })}
          />
          {kind === 'tests' && <Vouch sheet={sheet} />}
          <Preview kind={kind} lines={sheet.lines} fields={sheet.fields} units={units} />
          <Foot kind={kind} sheet={sheet} />
        </>
      )}
      <Recent sheets={recent} by={sheet.by} />
    </div>
  );
};
