import { describe, expect, it } from 'vitest';
import { assessDust, stated } from '@/core/dust/assess';
import { waysToClean } from '@/core/dust/care';
import { classFromLimit } from '../../support/class-from-limit';
import type { Dust } from '@/core/dust/dust';
import { checkDust } from '@/core/dust/edit';
import { EQUIPMENT_OF } from '@/core/dust/equipment';
import { type DustHistory, lastStatement, machineDust, NO_DUST, withStatement } from '@/core/dust/history';
import { DUST_HAZARDS, isBelow } from '@/core/dust/level';
import { BUILT_IN_DUSTS, builtIn, registerOf } from '@/core/dust/register';

const dust = (key: string): Dust => {
  const d = builtIn(key);
  if (!d) throw new Error(`no ${key}`);
  return d;
};
const limit = (key: string, authority: string) => dust(key).limits.find((l) => l.authority === authority)?.mgM3;

describe('the register against the published limits', () => {
  it('lead, hexavalent chromium, silica, cadmium, wood (29 CFR 1910.1025 and 1926.62, 1910.1026, 1926.1153, 1910.1027; Directive 2004/37/EC; EH40: all from memory of the sources)', () => {
    expect([
      limit('lead', 'OSHA'),
      limit('chromate', 'OSHA'),
      limit('silica', 'OSHA'),
      limit('silica', 'UK'),
      limit('silica', 'EU'),
      limit('cadmium', 'OSHA'),
    ]).toEqual([0.05, 0.005, 0.05, 0.1, 0.1, 0.005]);
    expect([limit('hardwood', 'UK'), limit('hardwood', 'EU'), limit('softwood', 'UK')]).toEqual([3, 2, 5]);
    expect(
      BUILT_IN_DUSTS.flatMap((d) => d.limits).filter(
        (l) => !/from memory of the source|modelling choice/.test(l.source) || !(l.mgM3 > 0),
      ),
    ).toEqual([]);
  });

  it('classes from limits (EN/IEC 60335-2-69 Annex AA, from memory of the table): above 1 L, from 0.1 M, below it or a carcinogen H', () => {
    const of = (mgM3: number, carcinogenOrPathogen = false) => classFromLimit({ mgM3, carcinogenOrPathogen });
    expect([of(10), of(1.01), of(1), of(0.1), of(0.099), of(5, true)]).toEqual(['L', 'L', 'M', 'M', 'H', 'H']);
    for (const bad of [0, -1, Number.NaN]) expect(() => of(bad)).toThrow(RangeError);
    // The class of a dust is never below what its own strictest limit proposes; silica and hardwood are the named exceptions from H.
    const rank = { L: 0, M: 1, H: 2, HEPA: 2 };
    for (const d of BUILT_IN_DUSTS.filter((x) => x.refused === null)) {
      for (const l of d.limits)
        expect(Math.max(rank[d.neededClass.eu_uk], rank[d.neededClass.us]), `${d.key} ${l.of}`).toBeGreaterThanOrEqual(
          rank[of(l.mgM3)],
        );
    }
  });

  it('what follows from a family: asbestos, reactive metal, hot and petrol are refused; toxic metal, silica and biological are contained; nothing that harms is plain', () => {
    for (const d of BUILT_IN_DUSTS) {
      // A claim of "free" is asked about; mercury is a toxic metal that no filter holds.
      expect([d.key, d.refused !== null]).toEqual([
        d.key,
        d.key === 'mercury' ||
          (d.key !== 'claimedFree' &&
            ['asbestos', 'reactiveMetal', 'hot', 'flammableLiquid', 'oxidiser'].includes(d.family)),
      ]);
      if (d.refused !== null || ['toxicMetal', 'silica', 'biological'].includes(d.family))
        expect([d.key, d.level]).toEqual([d.key, 'contained']);
      // Sparks come of the work, not of what lies in the bag.
      if (d.properties.some((p) => p !== 'combustible' && p !== 'oily' && p !== 'sparking'))
        expect([d.key, isBelow('plain', d.level)]).toEqual([d.key, true]);
      expect(d.waste).not.toBe('');
    }
  });

  it('equipment grows with the level: respirator from controlled, coverall and its own filter class when contained (HSE and OSHA guidance, from memory)', () => {
    expect(DUST_HAZARDS.map((l) => EQUIPMENT_OF[l].length)).toEqual(
      [...DUST_HAZARDS.map((l) => EQUIPMENT_OF[l].length)].sort((a, b) => a - b),
    );
    expect(
      [EQUIPMENT_OF.plain.join(), EQUIPMENT_OF.controlled.join(), EQUIPMENT_OF.contained.join()].map((e) =>
        /p3|P3|respirator|mask|ffp/i.test(e),
      ),
    ).toEqual([false, true, true]);
    expect(/coverall/i.test(EQUIPMENT_OF.contained.join())).toBe(true);
  });

  it('a shipped dust is never made less than it ships as; an own one is free, and lies over it by its key', () => {
    const code = (d: Dust) => {
      const r = checkDust(d);
      return r.ok ? 'ok' : r.failures[0]?.code;
    };
    const lead = dust('lead');
    expect(code({ ...lead, level: 'controlled' })).toBe('dust.lower');
    expect(code({ ...dust('asbestos'), refused: null })).toBe('dust.refusal');
    expect(code({ ...lead, retired: true })).toBe('dust.shipped');
    expect(code({ ...lead, synonyms: lead.synonyms.slice(1) })).toBe('dust.word');
    expect(code({ ...lead, key: 'own-1', level: 'plain' })).toBe('ok');
    expect(code({ ...lead, key: 'own-1', name: ' ' })).toBe('dust.name');
    const kept = checkDust({ ...dust('paint'), asks: [] });
    expect(kept.ok && kept.value.asks).toEqual(['oldPaint']);
    const own: Dust = {
      ...dust('general'),
      key: 'own-1',
      name: 'kiln dust',
      synonyms: ['kiln dust'],
      level: 'contained',
    };
    expect(assessDust(registerOf([own]), stated('kiln dust')).level).toBe('contained');
    expect(assessDust(registerOf([{ ...dust('general'), level: 'controlled' }]), stated('house dust')).level).toBe(
      'controlled',
    );
  });
});

describe('what may clean a part', () => {
  const ways = (
    medium: Parameters<typeof waysToClean>[0],
    text: string,
    carriesClass: Parameters<typeof waysToClean>[1]['carriesClass'] = null,
  ) => waysToClean(medium, { standing: assessDust(registerOf([]), stated(text)), carriesClass });

  it('never HEPA, a throw-away bag or carbon, whatever the dust; never what carries H; nothing after lead or an unknown dust', () => {
    for (const medium of ['hepaGlass', 'paperBag', 'fleeceBag', 'carbonBed', 'fineDustFleece'] as const)
      for (const text of ['house dust', 'sawdust', 'lead'])
        expect(ways(medium, text)).toEqual({ ways: [], because: 'medium' });
    expect(ways('pleatedPolyester', 'house dust', 'H')).toEqual({ ways: [], because: 'class' });
    expect(ways('foam', 'lead paint')).toEqual({ ways: [], because: 'dust' });
    expect(ways('foam', 'wibble')).toEqual({ ways: [], because: 'dust' });
  });

  it("a foam is washed after house dust; wood is vacuumed, never washed or shaken; after silica only the machine's own pulse", () => {
    expect(ways('foam', 'house dust').ways).toContain('wash');
    expect(ways('clothBag', 'sawdust').ways).toEqual([]);
    expect(ways('pleatedPolyester', 'concrete').ways).toEqual(['machinePulse']);
  });
});

describe('the history of a machine', () => {
  const REGISTER = registerOf([]);
  const entry = (id: number, text: string, at: string, over: object = {}) => ({
    id,
    ...stated(text),
    since: null,
    at,
    by: 'MK',
    ...over,
  });
  const history = (over: Partial<DustHistory>): DustHistory => ({
    entries: [],
    hours: [],
    decontaminations: [],
    ...over,
  });
  const cleared = (at: string) => ({
    id: 1,
    at,
    on: at.slice(0, 10),
    by: 'MK',
    how: 'job' as const,
    paper: '',
    jobId: 3,
  });

  it('the worst governs, whatever came after it; only a recorded decontamination clears it', () => {
    const entries = [entry(1, 'lead paint', '2025-02-01T08:00:00Z'), entry(2, 'house dust', '2026-05-01T08:00:00Z')];
    expect(machineDust(REGISTER, history({ entries })).standing.level).toBe('contained');
    const after = history({ entries, decontaminations: [cleared('2026-03-01T08:00:00Z')] });
    expect(machineDust(REGISTER, after).standing.level).toBe('plain');
    expect(
      machineDust(REGISTER, history({ ...after, entries: [...entries, entry(3, 'quartz', '2026-06-01T08:00:00Z')] }))
        .standing.level,
    ).toBe('contained');
    expect(
      machineDust(REGISTER, history({ entries, decontaminations: [cleared('2026-06-01T08:00:00Z')] })),
    ).toMatchObject({ collected: [], standing: { level: 'plain' } });
  });

  it('an old refusal is not talked away by house dust, nor by an own word', () => {
    const entries = [
      entry(1, 'asbestos cord', '2020-01-01T00:00:00Z'),
      entry(2, 'house dust', '2026-05-01T08:00:00Z', { own: 'plain', lowerBecause: 'it is clean now' }),
    ];
    expect(machineDust(REGISTER, history({ entries })).standing).toMatchObject({
      level: 'contained',
      refusal: { instead: 'licensedContractor' },
      lowered: null,
    });
  });

  it('run hours with a dust count as collected, also on the day of a decontamination', () => {
    const hours = [
      { day: '2026-03-01', dust: 'concrete' },
      { day: '2026-02-01', dust: 'lead' },
    ];
    expect(
      machineDust(REGISTER, history({ hours }))
        .standing.dusts.map((d) => d.key)
        .sort(),
    ).toEqual(['lead', 'silica']);
    expect(
      machineDust(REGISTER, history({ hours, decontaminations: [cleared('2026-03-01T18:00:00Z')] })).standing.dusts.map(
        (d) => d.key,
      ),
    ).toEqual(['silica']);
  });

  it('without dates, with a dust renamed, retired or gone from the register: it stays what it was, or is contained', () => {
    const own: Dust = {
      ...dust('general'),
      key: 'own-9',
      name: 'kiln dust',
      synonyms: ['kiln dust'],
      level: 'controlled',
    };
    const entries = [entry(1, 'kiln stuff', '2026-01-01T00:00:00Z', { confirmed: ['own-9'] })];
    const level = (own_: readonly Dust[]) => machineDust(registerOf(own_), history({ entries })).standing.level;
    expect(level([own])).toBe('controlled');
    expect(level([{ ...own, name: 'oven dust', synonyms: ['oven dust'] }])).toBe('controlled');
    expect(level([{ ...own, retired: true }])).toBe('controlled');
    expect(level([])).toBe('contained');
    expect(machineDust(REGISTER, history({ entries })).collected[0]).toMatchObject({ from: null, to: null });
  });

  it('while it is typed, the same rule: a new word does not hide what is in the machine; no history is no dust', () => {
    const known = machineDust(REGISTER, history({ entries: [entry(1, 'lead', '2026-01-01T00:00:00Z')] }));
    expect(withStatement(REGISTER, known, stated('house dust')).standing.level).toBe('contained');
    expect(withStatement(REGISTER, NO_DUST, stated('house dust')).standing.level).toBe('plain');
    expect(lastStatement(known, 'anything').text).toBe('lead');
    // A lowering that something else outweighs is not said.
    const both = machineDust(
      REGISTER,
      history({
        entries: [
          entry(1, 'sand', '2026-01-01T00:00:00Z', { own: 'plain', lowerBecause: 'boots' }),
          entry(2, 'lead', '2026-01-02T00:00:00Z'),
        ],
      }),
    );
    expect(both.standing).toMatchObject({ level: 'contained', lowered: null });
  });
});
