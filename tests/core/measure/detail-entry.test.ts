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
});
