/** One printed page of a drawing: the part of it that lies on the page. mm. */
export interface Tile {
  readonly row: number;
  readonly column: number;
  readonly xMm: number;
  readonly yMm: number;
}

/** A page has this much that every printer reaches: A4 and letter, whichever is less, with 10 mm all round; the head of a page takes the rest. */
export const TILE_MM = { width: 185, height: 230 } as const;
/** Neighbouring pages share this much, to lay one over the other. */
export const OVERLAP_MM = 10;
/** The side of the square that is measured after printing. */
export const CONTROL_MM = 100;

const count = (size: number, tile: number): number => Math.max(1, Math.ceil((size - OVERLAP_MM) / (tile - OVERLAP_MM)));

/** The pages that a drawing of a size in mm is printed on at full size, row by row. Source: plane geometry. Valid: sizes above 0. */
export const tilesOf = ({
  widthMm,
  heightMm,
}: {
  readonly widthMm: number;
  readonly heightMm: number;
}): readonly Tile[] => {
  const [columns, rows] = [count(widthMm, TILE_MM.width), count(heightMm, TILE_MM.height)];
  return Array.from({ length: rows * columns }, (_, i) => {
    const [row, column] = [Math.floor(i / columns), i % columns];
    return {
      row,
      column,
      xMm: column * (TILE_MM.width - OVERLAP_MM),
      yMm: row * (TILE_MM.height - OVERLAP_MM),
    };
  });
};
