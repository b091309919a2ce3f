import { describe, expect, it } from 'vitest';
import { assessDust, stated } from '@/core/dust/assess';
import { BUILT_IN_DUSTS } from '@/core/dust/register';
import { judgePhrase } from '../../bench/safety/judge-phrase';
import { PHRASES } from '../../bench/safety/phrases';

// What people type against what an occupational hygienist requires: common practice, no published source; the dusts by
// 29 CFR 1910.1001, 1910.1025, 1910.1026, 1926.1153 and Directive (EU) 2024/869, from memory of the sources.
const said = (text: string) => assessDust(BUILT_IN_DUSTS, stated(text));

describe('the register against a hygienist', () => {
  const judged = PHRASES.map((p) => ({ text: p.text, ...judgePhrase(p) }));

  it('opens nothing with less than is required', () => {
    expect(judged.length).toBeGreaterThanOrEqual(300);
    expect(judged.filter((j) => j.lax).map((j) => j.text)).toEqual([]);
  });

  it('asks for more than a careful colleague would in at most one of twenty', () => {
    expect(judged.filter((j) => j.strict).length / judged.length).toBeLessThanOrEqual(0.05);
  });

  it.each([
    ['oak and Mg', 'a symbol beside a known dust'],
    ['Al, oak', 'a symbol of two letters, as a chemist writes it'],
    ['oak and zq', 'a scrap that nobody knows'],
    ['shavings', 'a shape that names no material'],
    ['70s house dust', 'a decade in two digits'],
  ])('"%s" is never plain and never only wood: %s', (text) => {
    const s = said(text);
    expect(s.refusal !== null || s.level === 'contained').toBe(true);
  });

  it.each([
    ['mercury', 'spillKit'],
    ['potassium permanganate', 'whoIsResponsible'],
    ['calcium carbide', 'whoIsResponsible'],
    ['fireworks', 'whoIsResponsible'],
  ] as const)('%s is refused', (text, instead) => {
    expect(said(text).refusal?.instead).toBe(instead);
  });

  it('a paper that says "clear" is asked about and not refused; until it is proven it is the worst', () => {
    for (const text of ['asbestos survey clear', 'tested clear', 'asbestos-free board']) {
      const s = said(text);
      expect([text, s.refusal, s.level, s.neededClass.eu_uk]).toEqual([text, null, 'contained', 'H']);
      expect(s.questions).toContain('provenFree');
    }
  });

  it('lithium grease is no metal, lead-free solder no lead, and stainless fume not that of steel', () => {
    expect(said('lithium grease')).toMatchObject({ refusal: null, level: 'plain' });
    expect(said('lead-free solder').dusts.map((d) => d.key)).toEqual(['fume']);
    expect(said('welding stainless').dusts.map((d) => d.key)).toContain('stainlessFume');
    expect(said('welding fume').dusts.map((d) => d.key)).toEqual(['fume']);
  });

  it('shows the limit of the EU for lead (Directive (EU) 2024/869: 0.03 mg/m3, from memory)', () => {
    expect(said('lead').dusts[0]?.limits.find((l) => l.authority === 'EU')?.mgM3).toBe(0.03);
  });
});
