import type { RingPlan } from './ring';

/** Circles and lines of a drawing at full size, mm; y upwards. */
export interface Drawing {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly circles: readonly {
    readonly xMm: number;
    readonly yMm: number;
    readonly diameterMm: number;
    readonly layer: 'cut' | 'drill';
  }[];
  /** Where a ring that does not come out whole is sawn into segments. */
  readonly lines: readonly { readonly fromMm: readonly [number, number]; readonly toMm: readonly [number, number] }[];
}

const MARGIN_MM = 10;
const mm = (metres: number): number => 1000 * metres;

/**
 * The rings of a plan side by side at full size, with their holes, and the lines they are sawn along where they come out of
 * the board in segments only. Source: plane geometry. Valid: a plan with rings; an empty one gives an empty drawing.
 */
export const drawingOf = ({ pieces, holes, board, way }: RingPlan): Drawing => {
  const tall = Math.max(0, ...pieces.map((p) => mm(p.outerM)));
  const segments = board?.fits === 'segments' ? board.segments : 1;
  let x = MARGIN_MM;
  const circles: Drawing['circles'][number][] = [];
  const lines: Drawing['lines'][number][] = [];
  for (const piece of pieces) {
    const [outer, inner] = [mm(piece.outerM), mm(piece.innerM)];
    const [cx, cy] = [x + outer / 2, MARGIN_MM + tall / 2];
    circles.push(
      { xMm: cx, yMm: cy, diameterMm: outer, layer: 'cut' },
      { xMm: cx, yMm: cy, diameterMm: inner, layer: 'cut' },
      ...holes.map((h) => ({
        xMm: cx + mm(h.xM),
        yMm: cy + mm(h.yM),
        // The upper ring of two is passed by the screw, everything else is bitten.
        diameterMm: mm(way === 'double' && piece.name === 'top' ? h.clearanceM : h.pilotM),
        layer: 'drill' as const,
      })),
    );
    if (segments > 1)
      for (let i = 0; i < segments; i += 1) {
        // Half a step off the screws, so that no saw line runs through a hole.
        const angle = (2 * Math.PI * (i + 0.5)) / segments + Math.PI / (segments * 7);
        const at = (diameter: number): readonly [number, number] => [
          cx + (diameter / 2) * Math.cos(angle),
          cy + (diameter / 2) * Math.sin(angle),
        ];
        lines.push({ fromMm: at(inner), toMm: at(outer) });
      }
    x += outer + MARGIN_MM;
  }
  return { widthMm: x, heightMm: tall + 2 * MARGIN_MM, circles, lines };
};
