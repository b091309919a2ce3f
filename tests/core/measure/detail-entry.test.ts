import { describe, expect, it } from 'vitest';
import { DETAILS_OF, parseDetail } from '@/core/measure/detail-entry';
import { METHOD_NAMES, preconditionsFor } from '@/core/measure/methods';
import { entryOfDetail, startDetails } from '@/islands/measure/details-start';

const code = (entry: Parameters<typeof parseDetail>[0]) => {
  const result = parseDetail(entry);
  return result.ok ? 'accepted' : `${result.failures[0]?.code} ${result.failures[0]?.path}`;
};
const mm = (typed: string) => ({ typed, unit: 'mm' });

describe('what a method is told besides its readings', () => {
  it.each(METHOD_NAMES)(
    '%s starts with a detail that belongs to it, and asks for at least one precondition',
    (method) => {
      for (const units of ['metric', 'us'] as const) {
        expect(DETAILS_OF[method]).toContain(startDetails({ units, stageId: 1 })[method].kind);
      }
      const wanted = preconditionsFor({ method, hasBrush: true });
      expect(new Set(wanted).size).toBe(wanted.length);
      expect(wanted.length).toBeGreaterThan(0);
    },
  );

  it('goes to SI and comes back to the fields it was typed in', () => {
    const entries = [
      { kind: 'round', diameter: mm('125'), pointsPerDiameter: 10, diameters: 3 },
      { kind: 'rectangular', width: mm('300'), height: mm('200'), linesAcross: 6, linesUp: 5 },
      { kind: 'plate', orifice: mm('30'), coefficient: 0.61, pipe: mm('60') },
      { kind: 'curve', orifices: [mm('0'), mm('16')], coefficient: 0.61 },
      {
        kind: 'particles',
        sizeUm: 0.3,
        flow: { typed: '2.83', unit: 'L/min' },
        exhaustTime: { typed: '60', unit: 's' },
        roomTime: { typed: '120', unit: 's' },
      },
      { kind: 'light', name: 'filter light', light: 'steady', after: { typed: '15', unit: 's' } },
      { kind: 'mass', stageId: 3, newMass: { typed: '120', unit: 'g' } },
    ] as const;
    for (const entry of entries) {
      const parsed = parseDetail(entry);
      if (!parsed.ok) throw new Error(entry.kind);
      expect(entryOfDetail(parsed.value, 'metric')).toEqual(entry);
    }
  });

  it.each([
    [
      'no diameter',
      { kind: 'round', diameter: mm(''), pointsPerDiameter: 6, diameters: 2 },
      'quantity.empty detail.diameter',
    ],
    [
      'a duct of 20 m',
      { kind: 'round', diameter: mm('20000'), pointsPerDiameter: 6, diameters: 2 },
      'quantity.out-of-range detail.diameter',
    ],
    [
      'a coefficient of 2',
      { kind: 'plate', orifice: mm('30'), coefficient: 2, pipe: null },
      'profile.range detail.coefficient',
    ],
    [
      'a hole wider than its pipe',
      { kind: 'plate', orifice: mm('70'), coefficient: 0.6, pipe: mm('60') },
      'orifice.too-large detail.orifice',
    ],
    [
      'a hole of 2 m',
      { kind: 'curve', orifices: [mm('2000')], coefficient: 0.6 },
      'quantity.out-of-range detail.orifices.0',
    ],
    ['no stage', { kind: 'stage', stageId: null }, 'detail.stage detail.stageId'],
    ['no new weight', { kind: 'mass', stageId: 1, newMass: { typed: '', unit: 'g' } }, 'quantity.empty detail.newMass'],
    ['no word', { kind: 'hand', word: null }, 'detail.word detail.word'],
    [
      'no light',
      { kind: 'light', name: '', light: null, after: { typed: '15', unit: 's' } },
      'detail.word detail.light',
    ],
  ] as const)('names %s', (_what, entry, wanted) => {
    expect(code(entry)).toBe(wanted);
  });

  it('sealed may be written in any way of nothing', () => {
    for (const typed of ['0', '0.0', '0 mm', ' 0 '])
      expect(code({ kind: 'curve', orifices: [mm(typed)], coefficient: 0.6 })).toBe('accepted');
  });

  const round = (typed: string) =>
    ({ kind: 'round', diameter: mm(typed), pointsPerDiameter: 6, diameters: 2 }) as const;
  const curve = (typed: string) => ({ kind: 'curve', orifices: [mm('16'), mm(typed)], coefficient: 0.61 }) as const;
  const plate = (orifice: string, coefficient = 0.61, pipe: string | null = null) =>
    ({ kind: 'plate', orifice: mm(orifice), coefficient, pipe: pipe === null ? null : mm(pipe) }) as const;
  const counted = (over: object = {}) =>
    ({
      kind: 'particles',
      sizeUm: 0.3,
      flow: { typed: '2.83', unit: 'L/min' },
      exhaustTime: { typed: '60', unit: 's' },
      roomTime: { typed: '60', unit: 's' },
      ...over,
    }) as Parameters<typeof parseDetail>[0];
  const seconds = (typed: string) => ({ typed, unit: 's' });

  it.each([
    ['a duct of 5 mm', round('5'), true],
    ['a duct of 4.9 mm', round('4.9'), false],
    ['a duct of 3 m', round('3000'), true],
    ['a duct of 3.01 m', round('3010'), false],
    ['a hole of 1 mm', plate('1'), true],
    ['a hole of 0.9 mm', plate('0.9'), false],
    ['a hole of 1 m', plate('1000'), true],
    ['a hole of 1.01 m', plate('1010'), false],
    ['half a coefficient', plate('30', 0.5), true],
    ['less', plate('30', 0.49), false],
    ['a coefficient of 1', plate('30', 1), true],
    ['more', plate('30', 1.01), false],
    ['a hole just narrower than its pipe', plate('59.9', 0.61, '60'), true],
    ['a hole as wide as its pipe', plate('60', 0.61, '60'), false],
    ['a second', counted({ roomTime: seconds('1') }), true],
    ['less than a second', counted({ roomTime: seconds('0.9') }), false],
    ['a day', counted({ exhaustTime: seconds('86400') }), true],
    ['more than a day', counted({ exhaustTime: seconds('86401') }), false],
    ['a counter of 0.01 m3/s', counted({ flow: { typed: '600', unit: 'L/min' } }), true],
    ['a faster one', counted({ flow: { typed: '601', unit: 'L/min' } }), false],
    ['a tenth of a gram', { kind: 'mass', stageId: 3, newMass: { typed: '0.1', unit: 'g' } }, true],
    ['less', { kind: 'mass', stageId: 3, newMass: { typed: '0.09', unit: 'g' } }, false],
    ['100 kg', { kind: 'mass', stageId: 3, newMass: { typed: '100', unit: 'kg' } }, true],
    ['101 kg', { kind: 'mass', stageId: 3, newMass: { typed: '101', unit: 'kg' } }, false],
    ['a light at once', { kind: 'light', name: '', light: 'steady', after: seconds('0') }, true],
    ['a light after an hour', { kind: 'light', name: '', light: 'steady', after: seconds('3600') }, true],
    ['a light after more', { kind: 'light', name: '', light: 'steady', after: seconds('3601') }, false],
  ] as const)('%s: %s %s', (_what, entry, accepted) => {
    expect(code(entry) === 'accepted').toBe(accepted);
  });

  it('a sealed opening is 0 however it is typed; a narrow one is no sealed one', () => {
    const second = (typed: string) => {
      const d = parseDetail(curve(typed));
      return d.ok && d.value.kind === 'curve' ? d.value.orificesM[1] : code(curve(typed));
    };
    for (const typed of ['0', ' 0 mm', '0,0', '00.', '0 "']) expect(second(typed)).toBe(0);
    expect(second('0.5')).toBe('quantity.out-of-range detail.orifices.1');
    expect(second('10')).toBeCloseTo(0.01, 12);
    expect(second('')).toBe('quantity.empty detail.orifices.1');
    // No more than twenty are taken.
    const many = parseDetail({
      kind: 'curve',
      orifices: Array.from({ length: 25 }, () => mm('16')),
      coefficient: 0.61,
    });
    expect(many.ok && many.value.kind === 'curve' && many.value.orificesM).toHaveLength(20);
  });

  it('goes to SI: millimetres, litres a minute, grams', () => {
    const value = (entry: Parameters<typeof parseDetail>[0]) => {
      const d = parseDetail(entry);
      if (!d.ok) throw new Error(entry.kind);
      return d.value;
    };
    expect(value(round('125'))).toMatchObject({
      plan: { shape: 'round', diameterM: 0.125, pointsPerDiameter: 6, diameters: 2 },
    });
    const rectangle = { kind: 'rectangular', width: mm('300'), height: mm('200'), linesAcross: 6, linesUp: 5 } as const;
    expect(value(rectangle)).toMatchObject({
      plan: { shape: 'rectangular', widthM: 0.3, heightM: 0.2, linesAcross: 6, linesUp: 5 },
    });
    expect(value(plate('30', 0.62))).toEqual({
      kind: 'plate',
      plate: { orificeM: 0.03, coefficient: 0.62, pipeM: null },
    });
    expect(value(plate('30', 0.62, '60'))).toMatchObject({ plate: { pipeM: 0.06 } });
    const particles = value(counted({ roomTime: { typed: '2', unit: 'min' } }));
    expect(particles).toMatchObject({ sizeUm: 0.3, exhaustS: 60, roomS: 120 });
    expect(particles.kind === 'particles' && particles.flowM3s).toBeCloseTo(2.83e-3 / 60, 12);
    expect(value({ kind: 'mass', stageId: 3, newMass: { typed: '120', unit: 'g' } })).toEqual({
      kind: 'mass',
      stageId: 3,
      newMassKg: 0.12,
    });
  });

  it('names everything that is wrong at once, each beside its field', () => {
    const all = (entry: Parameters<typeof parseDetail>[0]) => {
      const d = parseDetail(entry);
      return d.ok ? [] : d.failures.map((f) => `${f.code} ${f.path}`);
    };
    expect(all(plate('', 2, ''))).toEqual([
      'quantity.empty detail.orifice',
      'profile.range detail.coefficient',
      'quantity.empty detail.pipe',
    ]);
    expect(all(counted({ flow: { typed: '', unit: 'L/min' }, roomTime: seconds('') }))).toEqual([
      'quantity.empty detail.flow',
      'quantity.empty detail.roomTime',
    ]);
    expect(all({ kind: 'curve', orifices: [mm('-3'), mm('x')], coefficient: 3 })).toHaveLength(3);
    for (const entry of [
      { kind: 'stage', stageId: null },
      { kind: 'mass', stageId: null, newMass: { typed: '1', unit: 'g' } },
      { kind: 'zone', stageId: null, zone: 'red' },
    ] as const)
      expect(all(entry)).toEqual(['detail.stage detail.stageId']);
    expect(all({ kind: 'zone', stageId: 1, zone: null })).toEqual(['detail.word detail.zone']);
    expect(all({ kind: 'hand', word: null })).toEqual(['detail.word detail.word']);
    expect(all({ kind: 'light', name: '', light: null, after: seconds('1') })).toEqual(['detail.word detail.light']);
  });
});
