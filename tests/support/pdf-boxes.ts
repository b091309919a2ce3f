import { inflateSync } from 'node:zlib';

// Reads the boxes of the paths on the pages of a PDF, in points: enough to lay a ruler on what was printed.

type Matrix = readonly [number, number, number, number, number, number];
const ONE: Matrix = [1, 0, 0, 1, 0, 0];

const times = (m: Matrix, n: Matrix): Matrix => [
  m[0] * n[0] + m[1] * n[2],
  m[0] * n[1] + m[1] * n[3],
  m[2] * n[0] + m[3] * n[2],
  m[2] * n[1] + m[3] * n[3],
  m[4] * n[0] + m[5] * n[2] + n[4],
  m[4] * n[1] + m[5] * n[3] + n[5],
];

export interface PaintedBox {
  readonly width: number;
  readonly height: number;
}

const boxOf = (points: readonly (readonly [number, number])[]): PaintedBox => {
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  return { width: Math.max(...xs) - Math.min(...xs), height: Math.max(...ys) - Math.min(...ys) };
};

const boxesOf = (content: string): readonly PaintedBox[] => {
  const boxes: PaintedBox[] = [];
  const stack: Matrix[] = [];
  let [matrix, numbers, points]: [Matrix, number[], (readonly [number, number])[]] = [ONE, [], []];
  const at = (x: number, y: number): readonly [number, number] => [
    x * matrix[0] + y * matrix[2] + matrix[4],
    x * matrix[1] + y * matrix[3] + matrix[5],
  ];
  for (const token of content.split(/\s+/)) {
    const value = Number(token);
    if (token !== '' && Number.isFinite(value)) {
      numbers.push(value);
      continue;
    }
    const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = numbers.slice(-6);
    const [x = 0, y = 0] = numbers.slice(-2);
    if (token === 'q') stack.push(matrix);
    else if (token === 'Q') matrix = stack.pop() ?? ONE;
    else if (token === 'cm') matrix = times([a, b, c, d, e, f], matrix);
    else if (token === 'm' || token === 'l') points.push(at(x, y));
    else if (token === 're') {
      const [rx = 0, ry = 0, w = 0, h = 0] = numbers.slice(-4);
      points.push(at(rx, ry), at(rx + w, ry + h));
    } else if (['S', 's', 'f', 'F', 'B', 'b', 'f*', 'B*', 'n'].includes(token)) {
      if (points.length > 1 && token !== 'n') boxes.push(boxOf(points));
      points = [];
    }
    numbers = [];
  }
  return boxes;
};

/** Every painted path of a PDF whose streams are deflated, page by page as they stand in it; its pages are counted by their boxes. */
export const paintedIn = (pdf: Buffer): { readonly boxes: readonly PaintedBox[]; readonly pages: number } => {
  const text = pdf.toString('latin1');
  const boxes: PaintedBox[] = [];
  for (const found of text.matchAll(/stream\r?\n/g)) {
    const from = found.index + found[0].length;
    const to = text.indexOf('endstream', from);
    try {
      const content = inflateSync(pdf.subarray(from, to)).toString('latin1');
      if (/\bcm\b/.test(content)) boxes.push(...boxesOf(content));
    } catch {
      // A font or a picture: no path in it.
    }
  }
  return { boxes, pages: [...text.matchAll(/\/Type\s*\/Page\b(?!s)/g)].length };
};
