import { findUnit, type QuantityKind } from '../units';
import { SHEETS, type SheetField, type SheetKind } from './fields';

/** A heading without its unit, its case and its marks. */
export const plainHeading = (heading: string): string =>
  heading
    .toLowerCase()
    .replace(/[([].*?[)\]]/g, ' ')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** The unit named in a heading: in brackets, or behind its last comma; null where it names none of the quantity. */
export const unitInHeading = (heading: string, of: QuantityKind): string | null => {
  const said = /[([]([^)\]]+)[)\]]/.exec(heading)?.[1] ?? /,\s*([^,]+)$/.exec(heading)?.[1] ?? '';
  return findUnit(of, said.trim())?.symbol ?? null;
};

const score = (heading: string, { key, label, names }: SheetField): number => {
  const mine = [plainHeading(label), ...names, key.toLowerCase()];
  if (mine[0] === heading) return 4;
  if (mine.includes(heading)) return 3;
  if (heading === '') return 0;
  return mine.some((n) => n.length > 3 && (heading.includes(n) || (heading.length > 3 && n.includes(heading)))) ? 1 : 0;
};

/**
 * Which field each column is taken for, by its heading: the closest fit first, each field once; null for a column that
 * nothing fits. @example guessColumns(['Asset no', 'Location'], 'machines') // ['tag', 'place']
 */
export const guessColumns = (headings: readonly string[], kind: SheetKind): readonly (string | null)[] => {
  const plain = headings.map(plainHeading);
  const pairs = plain
    .flatMap((h, column) => SHEETS[kind].map((f, at) => ({ column, at, key: f.key, fits: score(h, f) })))
    .filter((p) => p.fits > 0)
    .sort((a, b) => b.fits - a.fits || a.column - b.column || a.at - b.at);
  const guessed: (string | null)[] = headings.map(() => null);
  const used = new Set<string>();
  for (const { column, key } of pairs) {
    if (guessed[column] !== null || used.has(key)) continue;
    guessed[column] = key;
    used.add(key);
  }
  return guessed;
};
