import Papa from 'papaparse';
import { SHEET_KINDS, SHEETS } from '@/core/sheet/fields';

/** The headings of an empty sheet of a kind, with the unit of each quantity; null for a kind there is not. */
export const sheetTemplate = (kind: string): string | null => {
  const known = SHEET_KINDS.find((k) => k === kind);
  if (!known) return null;
  const headings = SHEETS[known].map((f) => (f.cell.as === 'quantity' ? `${f.label} (${f.cell.unit})` : f.label));
  return `${Papa.unparse([headings])}\r\n`;
};
