import Papa from 'papaparse';

export interface Table {
  readonly headings: readonly string[];
  /** Below the heading, each as wide as it. */
  readonly rows: readonly (readonly string[])[];
}

/** Larger than any list of a yard, bytes. */
export const MOST_FILE_BYTES = 5 * 2 ** 20;

/**
 * The text of a file as spreadsheets save it: by its byte order mark, else UTF-8 where it is that, else Windows-1252.
 * Source: WHATWG Encoding Standard.
 */
export const decodeText = (bytes: Uint8Array): string => {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
};

const filled = (row: readonly string[]): number => row.filter((c) => c.trim() !== '').length;

/**
 * A table out of text, with commas, semicolons or tabs between its cells. Titles above the heading are left out: the
 * heading is the first row with two cells or more that is at least half as full as the fullest.
 */
export const readTable = (text: string): Table => {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const most = Math.max(1, ...data.slice(0, 20).map(filled));
  const at = data.findIndex((row) => filled(row) >= Math.max(most / 2, Math.min(2, most)));
  const heading = data[at] ?? [];
  const width = Math.max(heading.length, ...data.slice(at + 1).map((r) => r.length));
  const wide = (row: readonly string[]) => Array.from({ length: width }, (_, i) => (row[i] ?? '').trim());
  return { headings: wide(heading), rows: at < 0 ? [] : data.slice(at + 1).map(wide) };
};
