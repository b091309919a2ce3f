import Papa from 'papaparse';

/** Text that a spreadsheet would compute, also behind a separator of another language. */
const COMPUTES = /(^|[;,\t\r\n])\s*[=+\-@\t\r]/;

/** A text made safe for a spreadsheet: it is shown, never computed. */
export const plainCell = (value: string): string =>
  COMPUTES.test(value) ? `'${value.replace(/[;\t\r\n]/g, ' ')}` : value;

export type CsvCell = string | number | null;

/** A table as CSV, RFC 4180. Numbers stay numbers, a minus of theirs too. */
export const csvOf = (headings: readonly string[], rows: readonly (readonly CsvCell[])[]): string =>
  `${Papa.unparse(
    {
      fields: [...headings],
      data: rows.map((row) => row.map((c) => (typeof c === 'string' ? plainCell(c) : (c ?? '')))),
    },
    { newline: '\r\n' },
  )}\r\n`;

/** A table as a download. */
export const csvReply = (name: string, csv: string): Response =>
  new Response(csv, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${name.replace(/[^A-Za-z0-9.-]/g, '_')}.csv"`,
      'cache-control': 'no-store',
    },
  });
