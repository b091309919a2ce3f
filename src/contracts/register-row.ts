export interface RegisterColumn {
  readonly id: string;
  readonly label: string;
  /** Sorted as numbers, with aligned figures. */
  readonly numeric: boolean;
  /** The text between commas is not broken at hyphens: tags. */
  readonly tight?: boolean;
}

export interface RegisterCell {
  readonly text: string;
  /** Small print under it. */
  readonly note?: string;
  readonly tone?: 'good' | 'watch' | 'stop' | 'open';
  /** Sort key, where it is not the text. */
  readonly sort?: number | string;
}

/** A row of a register, with the page it leads to. */
export interface RegisterRow {
  readonly href: string;
  readonly cells: readonly RegisterCell[];
  /** No longer kept. */
  readonly gone: boolean;
  /** All that is searched, in lower case. */
  readonly words: string;
}

export const registerRow = (
  href: string,
  cells: readonly RegisterCell[],
  { gone = false, also = '' }: { readonly gone?: boolean; readonly also?: string } = {},
): RegisterRow => ({
  href,
  cells,
  gone,
  words: [...cells.flatMap((c) => [c.text, c.note ?? '']), also].join(' ').toLowerCase(),
});
