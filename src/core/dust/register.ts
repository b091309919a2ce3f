import type { Dust } from './dust';
import { CONTAINED_DUSTS } from './table-contained';
import { REFUSED_DUSTS } from './table-refused';
import { OTHER_DUSTS } from './table-rest';

/** The register as it ships. Source: handbook of the trade, sections 9 and 18; limits from memory of the sources they name. */
export const BUILT_IN_DUSTS: readonly Dust[] = [...REFUSED_DUSTS, ...CONTAINED_DUSTS, ...OTHER_DUSTS];

export const builtIn = (key: string): Dust | null => BUILT_IN_DUSTS.find((d) => d.key === key) ?? null;

/** The register of a site: the shipped dusts, overlaid by the site's own entries and edits, by key. */
export const registerOf = (own: readonly Dust[]): readonly Dust[] => {
  if (own.length === 0) return BUILT_IN_DUSTS;
  const byKey = new Map(own.map((d) => [d.key, d]));
  return [...BUILT_IN_DUSTS.map((d) => byKey.get(d.key) ?? d), ...own.filter((d) => builtIn(d.key) === null)];
};
