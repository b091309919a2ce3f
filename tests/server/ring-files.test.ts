import DxfParser from 'dxf-parser';
import { describe, expect, it } from 'vitest';
import { RingQuery } from '@/contracts/ring';
import { CONTROL_MM, OVERLAP_MM, TILE_MM, tilesOf } from '@/core/upgrade/tiles';
import { dxfOfRing, ringOf, svgOfRing } from '@/server/services/upgrade/ring-drawing';

// The drawings of a ring, read again by parsers that are not ours: what comes out is what was measured, to 0.01 mm.

const query = (over: Record<string, string> = {}) =>
  RingQuery.parse({
    filter: '17.5 in',
    rim: '19.25 in',
    gasket: '16 in',
    gasketWidth: '0.75 in',
    sheet: '18 mm',
    screw: '4 mm',
    ...over,
  });
const ring = (over: Record<string, string> = {}) => {
  const made = ringOf(query(over));
  if (!made.ok) throw new Error(made.failures.map((f) => f.code).join());
  return made.value;
};
interface Circle {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly layer: string;
}
const circlesOf = (text: string): readonly Circle[] =>
  (new DxfParser().parseSync(text)?.entities ?? []).flatMap((e) => {
    const circle = e as unknown as { type: string; layer: string; center: { x: number; y: number }; radius: number };
    return circle.type === 'CIRCLE'
      ? [{ x: circle.center.x, y: circle.center.y, radius: circle.radius, layer: circle.layer }]
      : [];
  });

describe('a ring as DXF', () => {
  it('is in millimetres, with its cuts and holes where they belong', () => {
    const text = dxfOfRing(ring());
    const parsed = new DxfParser().parseSync(text);
    // 4 is millimetres in the header of DXF.
    expect(parsed?.header['$INSUNITS']).toBe(4);
    const circles = circlesOf(text);
    const cuts = circles.filter((c) => c.layer === 'CUT').map((c) => 2 * c.radius);
    expect(cuts.map((d) => Number(d.toFixed(2)))).toEqual([488.95, Number((16 * 25.4 - 19.05 - 6).toFixed(2))]);
    const holes = circles.filter((c) => c.layer === 'DRILL');
    expect(holes).toHaveLength(4);
    const [outer] = circles;
    for (const h of holes) {
      const from = Math.hypot(h.x - (outer?.x ?? 0), h.y - (outer?.y ?? 0));
      // Half way between a canister of 444.5 mm and a rim of 488.95 mm.
      expect(Math.abs(from - (444.5 + 488.95) / 4)).toBeLessThan(0.01);
    }
  });

  it('a double ring is bitten below and passed above; segments carry their saw lines, none through a hole', () => {
    const double = circlesOf(dxfOfRing(ring({ filter: '20 in', gasket: '18 in' }))).filter((c) => c.layer === 'DRILL');
    expect([...new Set(double.map((c) => Number((2 * c.radius).toFixed(2))))]).toEqual([2.8, 4.4]);
    const text = dxfOfRing(ring({ boardWidth: '600 mm', boardHeight: '400 mm' }));
    const lines = (new DxfParser().parseSync(text)?.entities ?? []).filter((e) => e.type === 'LINE') as unknown as {
      vertices: { x: number; y: number }[];
    }[];
    expect(lines.length).toBeGreaterThan(1);
    for (const { vertices } of lines) {
      const [a, b] = vertices;
      if (!a || !b) throw new Error('no line');
      const size = Math.hypot(b.x - a.x, b.y - a.y);
      for (const h of circlesOf(text).filter((c) => c.layer === 'DRILL')) {
        const t = Math.min(1, Math.max(0, ((h.x - a.x) * (b.x - a.x) + (h.y - a.y) * (b.y - a.y)) / size ** 2));
        expect(Math.hypot(a.x + t * (b.x - a.x) - h.x, a.y + t * (b.y - a.y) - h.y)).toBeGreaterThan(h.radius + 2);
      }
    }
  });
});

describe('a ring as SVG', () => {
  it('is as large as it says, in millimetres, with the same circles', () => {
    const text = svgOfRing(ring());
    const [, w, h, box] = /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="0 0 ([\d. ]+)"/.exec(text) ?? [];
    expect(`${w} ${h}`).toBe(box);
    const radii = [...text.matchAll(/<circle [^>]*r="([\d.]+)"/g)].map((m) => 2 * Number(m[1]));
    expect(Math.abs(Math.max(...radii) - 488.95)).toBeLessThan(0.01);
  });
});

describe('the pages it is printed on', () => {
  it('cover the whole drawing, overlap, and fit A4 and letter with their margins', () => {
    for (const [widthMm, heightMm] of [
      [100, 100],
      [185, 230],
      [509, 509],
      [1100, 560],
    ] as const) {
      const tiles = tilesOf({ widthMm, heightMm });
      for (let x = 0.5; x < widthMm; x += 7)
        for (let y = 0.5; y < heightMm; y += 7)
          expect(
            tiles.some((t) => x >= t.xMm && x <= t.xMm + TILE_MM.width && y >= t.yMm && y <= t.yMm + TILE_MM.height),
          ).toBe(true);
    }
    expect(tilesOf({ widthMm: 509, heightMm: 100 })[1]?.xMm).toBe(TILE_MM.width - OVERLAP_MM);
    // A4 is 210 by 297 mm, letter 215.9 by 279.4; 10 mm of margin all round, 15 mm for the head of the page.
    expect(TILE_MM.width).toBeLessThanOrEqual(210 - 20);
    expect(TILE_MM.height).toBeLessThanOrEqual(279.4 - 20 - 15);
    expect(CONTROL_MM).toBe(100);
  });
});

describe('what was measured', () => {
  it('is asked for by its name where it is missing or cannot be read', () => {
    const bad = ringOf(query({ rim: '', sheet: 'thick' }));
    expect(bad.ok ? [] : bad.failures.map((f) => [f.code, f.path])).toEqual([
      ['ring.missing', 'rim'],
      ['quantity.not-a-number', 'sheet'],
    ]);
  });
});
