import jsQR from 'jsqr';
import QRCode from 'qrcode';
import { execFileSync } from 'node:child_process';
import { beforeAll, describe, expect, it } from 'vitest';
import { scannedTag } from '@/core/machine/tag-search';
import { csvOf } from '@/server/services/house/csv';
import { qrSquare } from '@/server/services/house/qr';
import { wasteLog } from '@/server/services/jobs/waste-log';
import { loadYard, type Yard } from '@/server/services/yard/yard';
import { labelsOf, LABEL_KINDS, leadsHere, originOf, sheetsFor } from '@/view-models/labels';
import { LIST_NAMES, listOf } from '@/view-models/lists';
import { demoContext } from '../support/database';

let context: Awaited<ReturnType<typeof demoContext>>;
let yard: Yard;
beforeAll(async () => {
  context = await demoContext();
  yard = await loadYard(context);
});

/** Draws the squares of an SVG of one path, as a printer would, and reads them back with another library. */
const readBack = (svg: string): string | undefined => {
  const size = Number(/viewBox="0 0 (\d+) \d+"/.exec(svg)?.[1]);
  const path = /stroke="#000000" d="([^"]+)"/.exec(svg)?.[1] ?? '';
  const scale = 4;
  const side = size * scale;
  const pixels = new Uint8ClampedArray(side * side * 4).fill(255);
  let [x, y] = [0, 0];
  for (const [, what, a, b] of path.matchAll(/([Mmh])(-?[\d.]+)(?:[ ,]?(-?[\d.]+))?/g)) {
    if (what === 'M') [x, y] = [Number(a), Number(b)];
    else if (what === 'm') [x, y] = [x + Number(a), y + Number(b)];
    else {
      for (let i = 0; i < Number(a) * scale; i += 1)
        for (let j = 0; j < scale; j += 1)
          pixels.set([0, 0, 0, 255], ((Math.floor(y) * scale + j) * side + x * scale + i) * 4);
      x += Number(a);
    }
  }
  return jsQR(pixels, side, side)?.data;
};

describe('labels', () => {
  it('lead to their machine, read back by a decoder that knows nothing of the one that drew them', async () => {
    const labels = await labelsOf('machines', { context, yard, origin: 'https://yard.example:4321', tag: null });
    expect(labels.length).toBe(yard.machines.length);
    for (const l of labels) {
      const read = readBack(l.svg);
      expect(read).toBe(`https://yard.example:4321/m/${l.head}`);
      expect(scannedTag(read ?? '')).toBe(l.head);
    }
    // The module pattern is the library's; a slip in our drawing of it would not read back at all.
    expect(QRCode.create('x').modules.size).toBe(21);
    expect(readBack(await qrSquare('x'))).toBe('x');
  });

  it('say the class that may be said today, with the day, and how dusty it is inside', async () => {
    const labels = await labelsOf('machines', { context, yard, origin: 'https://y', tag: null });
    const lines = (tag: string) => labels.find((l) => l.head === tag)?.lines.join('; ') ?? '';
    // CR-14 has no HEPA in: nothing printed may call it one.
    expect(lines('CR-14')).toContain('class withdrawn');
    expect(lines('CR-14')).not.toContain('HEPA');
    expect(lines('CR-04')).toContain('M class');
    expect(lines('CR-05')).toContain('contained dust');
    expect(lines('CR-04').replaceAll('\u2011', '-')).toContain(yard.today);
  });

  it('of waste name the dust, and are offered only where all their words have room', async () => {
    const [label] = await labelsOf('waste', { context, yard, origin: 'https://y', tag: 'CR-05' });
    expect(label?.head).toBe('WASTE');
    expect(label?.lines[0]).toMatch(/^from CR-05, /);
    expect(label?.lines.join(' ')).toContain('contained dust: keep it closed');
    for (const kind of LABEL_KINDS) {
      expect(sheetsFor(kind).length).toBeGreaterThan(1);
      if (kind !== 'machines') expect(Math.min(...sheetsFor(kind).map((s) => s.highMm))).toBeGreaterThan(70);
    }
  });

  it('are printed under the address that phones use, and say so where they lead nowhere', () => {
    const asked = new Request('http://x/', { headers: { host: 'yard.local:4321' } });
    expect(originOf(asked, false)).toBe('http://yard.local:4321');
    expect(leadsHere(originOf(asked, true))).toBe(true);
    expect(['http://127.0.0.1:4321', 'http://localhost', 'http://[::1]:4321'].map(leadsHere)).toEqual([
      false,
      false,
      false,
    ]);
  });
});

describe('what a scanner types', () => {
  it('is the tag in an address; anything else is what it is', () => {
    expect(scannedTag('http://yard:4321/m/CR-04')).toBe('CR-04');
    expect(scannedTag('HTTPS://Y/m/A%2DB/measure?x=1')).toBe('A-B');
    expect(['CR-04', 'https://y/x/CR-04', 'm/CR-04', 'http://y/m/%E0%A4'].map(scannedTag)).toEqual([
      'CR-04',
      'https://y/x/CR-04',
      'm/CR-04',
      'http://y/m/%E0%A4',
    ]);
  });
});

describe('a list as CSV', () => {
  it('is read by another reader, RFC 4180, and a cell that would compute is only shown', () => {
    const evil = ['=1+1', '+49 1', '-x', '@sum', 'a;=2', 'plain', 'say "hi", twice', 'two\nlines'];
    const csv = csvOf(
      ['what', 'n'],
      evil.map((e, i) => [e, -1 - i]),
    );
    const python = 'import csv,json,sys; print(json.dumps(list(csv.reader(sys.stdin, strict=True))))';
    const read = JSON.parse(execFileSync('python3', ['-c', python], { input: csv }).toString()) as string[][];
    expect(read[0]).toEqual(['what', 'n']);
    expect(read.slice(1).map(([what]) => what)).toEqual([
      "'=1+1",
      "'+49 1",
      "'-x",
      "'@sum",
      "'a =2",
      'plain',
      'say "hi", twice',
      'two\nlines',
    ]);
    // A number below nothing is a number, and stays one.
    expect(read.slice(1).map(([, n]) => Number(n))).toEqual(evil.map((_, i) => -1 - i));
  });

  it('is there for each of them, as wide as its heading, empty yard or full', async () => {
    for (const name of LIST_NAMES) {
      const list = await listOf(context, name);
      expect([name, list?.rows.every((r) => r.length === list.headings.length)]).toEqual([name, true]);
    }
    expect((await listOf(context, 'machines'))?.rows.length).toBe(yard.machines.length);
    expect(await listOf(context, 'constructor')).toBeNull();
  });
});

describe('the waste log', () => {
  it('has every part that was replaced and stands on record, once', async () => {
    const { lines } = await wasteLog(context, { from: '0001-01-01', to: yard.today });
    const changes = await context.db
      .selectFrom('stage_change as c')
      .leftJoin('stage_change as next', 'next.supersedes_id', 'c.id')
      .select(({ fn }) => fn.countAll<number>().as('n'))
      .where('next.id', 'is', null)
      .where('c.voided', '=', 0)
      .where('c.part_id', 'is not', null)
      .executeTakeFirstOrThrow();
    expect(lines.length).toBe(changes.n);
    const days = lines.map((l) => l.day);
    expect(days).toEqual([...days].sort().reverse());
    expect(
      (await wasteLog(context, { from: '2026-01-01', to: '2026-01-31' })).lines.every((l) =>
        l.day.startsWith('2026-01'),
      ),
    ).toBe(true);
  });
});
