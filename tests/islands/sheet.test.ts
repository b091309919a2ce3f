import { describe, expect, it } from 'vitest';
import { readLines } from '@/islands/sheet/lines';
import { decodeText, readTable } from '@/islands/sheet/read-table';
import { doubledFields, guessed, missingFields } from '@/islands/sheet/state';

const bytes = (text: string, ...mark: number[]) => new Uint8Array([...mark, ...new TextEncoder().encode(text)]);
const utf16 = (text: string) => {
  const units = [0xfeff, ...Array.from(text, (c) => c.charCodeAt(0))];
  return new Uint8Array(units.flatMap((u) => [u & 0xff, u >> 8]));
};

describe('a file as spreadsheets save it', () => {
  it('is read by its mark, as UTF-8 where it is that, else as Windows-1252', () => {
    const umlaut = 'Tag;Name\nA-1;Hüne 5 µm';
    expect(decodeText(bytes(umlaut))).toBe(umlaut);
    expect(decodeText(bytes(umlaut, 0xef, 0xbb, 0xbf))).toBe(umlaut);
    expect(decodeText(utf16(umlaut))).toBe(umlaut);
    // 0xFC is u with two dots and 0xB5 the micro sign there (WHATWG Encoding Standard, windows-1252 index).
    const old = new Uint8Array(Array.from(umlaut, (c) => c.charCodeAt(0)));
    expect(decodeText(old)).toBe(umlaut);
  });

  it('has commas, semicolons or tabs, quotes, and titles above its heading', () => {
    const rows = [['LS-01', 'Vac, blue', 'bay']];
    const headings = ['Tag', 'Name', 'Place'];
    const wanted = { headings, rows };
    expect(readTable('Tag,Name,Place\nLS-01,"Vac, blue",bay\n')).toEqual(wanted);
    expect(readTable('Tag;Name;Place\r\nLS-01;"Vac, blue";bay\r\n;;\r\n')).toEqual(wanted);
    expect(readTable('Tag\tName\tPlace\nLS-01\tVac, blue\tbay')).toEqual(wanted);
    expect(readTable('Our machines,,\n,,\nTag,Name,Place\nLS-01,"Vac, blue",bay')).toEqual(wanted);
    expect(readTable('')).toEqual({ headings: [], rows: [] });
  });

  it('may have merged headings and ragged rows: a cell too many is a column without a name', () => {
    const table = readTable('Tag,,Place\nLS-01,Vac,bay,extra\nLS-02,Vac');
    expect(table.headings).toEqual(['Tag', '', 'Place', '']);
    expect(table.rows[1]).toEqual(['LS-02', 'Vac', '', '']);
    const columns = guessed('machines', table);
    expect(columns.map((c) => c.field)).toEqual(['tag', null, 'place', null]);
    expect(missingFields({ kind: 'machines', columns }).map((f) => f.key)).toEqual(['name', 'kind', 'dust']);
    const twice = [...columns, { field: 'tag', unit: null }];
    expect(doubledFields({ kind: 'machines', columns: twice }).map((f) => f.key)).toEqual(['tag']);
  });
});

describe('the rows as they will be', () => {
  it('say what is wrong with each cell, and what the records said besides, beside the column it is about', () => {
    const table = readTable('Date,Machine,Hours\n31/12/2025,LS-01,"2,5"\nsoon,LS-09,25');
    const columns = guessed('hours', table);
    const said = new Map([[1, [{ field: 'tag', sentence: 'There is no machine LS-09.' }]]]);
    const [first, second] = readLines(table, { kind: 'hours', columns, order: 'dayFirst' }, said);
    expect(first).toMatchObject({ n: 1, values: { tag: 'LS-01', day: '2025-12-31', hours: 2.5 }, problems: [] });
    expect(second?.problems.map((p) => p.field)).toEqual(['day', 'hours', 'tag']);
  });
});
