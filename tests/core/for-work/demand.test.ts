import { describe, expect, it } from 'vitest';
import { assessDust, stated } from '@/core/dust/assess';
import { registerOf } from '@/core/dust/register';
import { fromSi } from '@/core/units';
import { captureNeedM3s } from '@/core/for-work/capture';
import { demandOf } from '@/core/for-work/demand';
import { classFit } from '@/core/for-work/judge-machine';
import { aboutDust, type WorkQuestion } from '@/core/for-work/question';
import { TOOL_KEYS, wheelThatFitsM } from '@/core/for-work/tools';

const asked = (text: string, over: Partial<WorkQuestion> = {}): WorkQuestion => aboutDust(stated(text), over);
const demand = (text: string, over: Partial<WorkQuestion> = {}) => {
  const q = asked(text, over);
  return demandOf(q, assessDust(registerOf([]), q.dust));
};
const INCH = 0.0254;

describe('the air a tool must have', () => {
  // 29 CFR 1926.1153 Table 1, rows (xi) and (xii): at least 25 cfm per inch of wheel diameter.
  it.each([
    [4.5, 112.5],
    [5, 125],
    [7, 175],
    [10, 250],
  ])('a %s in wheel on concrete wants %s cfm', (inches, cfm) => {
    const { mustM3s } = demand('concrete', { tool: 'grinder', sizeM: inches * INCH });
    expect(fromSi('flow', mustM3s ?? 0, 'cfm')).toBeCloseTo(cfm, 6);
    expect(wheelThatFitsM('grinder', mustM3s ?? 0)).toBeCloseTo(inches * INCH, 2);
  });

  it('counts both wheels of a wall chaser, and the maker who asks for more', () => {
    const one = demand('concrete', { tool: 'grinder', sizeM: 5 * INCH }).mustM3s ?? 0;
    expect(demand('concrete', { tool: 'wallChaser', sizeM: 5 * INCH }).mustM3s).toBeCloseTo(2 * one, 9);
    expect(demand('concrete', { tool: 'grinder', sizeM: 5 * INCH, makerM3s: 2 * one }).mustM3s).toBeCloseTo(2 * one, 9);
    expect(demand('concrete', { tool: 'grinder', sizeM: 5 * INCH, makerM3s: one / 2 }).mustM3s).toBeCloseTo(one, 9);
  });

  it('is no rule off mineral: what the trade gives a tool is said, and keeps no machine from it', () => {
    const oak = demand('oak', { tool: 'grinder', sizeM: 5 * INCH });
    expect([oak.mustM3s, oak.flows[0]?.because, oak.respiratorApf, oak.gear]).toEqual([null, 'usual', null, []]);
    expect(demand('oak').flows).toEqual([]);
    for (const tool of TOOL_KEYS) expect(demand('oak', { tool }).mustM3s).toBe(null);
  });

  it('a hood draws by the distance squared, a slot by the distance: no rule, and nearer is cheaper', () => {
    // ACGIH Industrial Ventilation, plain opening: 6 in across, 6 in away, 100 fpm is 100 (10 x 0.5^2 + 0.196) = 270 cfm.
    const cfm = fromSi(
      'flow',
      captureNeedM3s({ form: 'hood', sizeM: 0.1524, awayM: 0.1524, velocityMs: 0.508 }),
      'cfm',
    );
    expect(cfm).toBeCloseTo(269.6, 0);
    // The same of a slot, 2 ft long and 6 in away: 3.7 x 2 x 100 x 0.5 = 370 cfm.
    const slot = captureNeedM3s({ form: 'slot', sizeM: 0.6096, awayM: 0.1524, velocityMs: 0.508 });
    expect(fromSi('flow', slot, 'cfm')).toBeCloseTo(370, 0);
    const [far, near] = [0.3, 0.15].map((awayM) => demand('oak', { tool: 'hood', awayM }).usualM3s ?? 0);
    expect((far ?? 0) / (near ?? 1)).toBeGreaterThan(3);
    expect(demand('oak', { tool: 'hood', awayM: 0.3 }).mustM3s).toBe(null);
    expect(demand('oak', { tool: 'hood', makerM3s: 0.1 }).mustM3s).toBe(0.1);
    expect(() => captureNeedM3s({ form: 'hood', sizeM: 0.1, awayM: 0 })).toThrow(RangeError);
  });

  it('a wheel of nothing is refused', () => {
    expect(() => demand('concrete', { tool: 'grinder', sizeM: 0 })).toThrow(RangeError);
  });
});

describe('the task table', () => {
  // 29 CFR 1926.1153 Table 1, from memory: (ii) hand saws, (xi) mortar, (xii) other grinding.
  it.each([
    ['grinder', 'outdoors', 8, 0],
    ['grinder', 'indoors', 4, 0],
    ['grinder', 'cabin', 5, 10],
    ['mortarRaker', 'outdoors', 4, 10],
    ['mortarRaker', 'outdoors', 5, 25],
    ['handSaw', 'outdoors', 4, 0],
    ['handSaw', 'outdoors', 5, 10],
    ['handSaw', 'indoors', 1, 10],
    ['hammerDrill', 'indoors', 8, 0],
  ] as const)('%s %s for %s hours asks for a protection factor of %s', (tool, place, hours, apf) => {
    expect(demand('concrete', { tool, place, hours, sizeM: 0.125 }).respiratorApf).toBe(apf);
  });

  it('where nobody said where, takes it as closed in', () => {
    expect(demand('concrete', { tool: 'handSaw', hours: 1 }).respiratorApf).toBe(10);
  });

  it('asks a mortar raker for shroud, 99 % and a filter that cleans itself or a cyclone', () => {
    expect(demand('mortar', { tool: 'mortarRaker' }).gear).toEqual(['shroud', 'filter99', 'filterCleaning']);
  });
});

describe('what is forbidden', () => {
  it('follows the dust: no sweeping where a class is asked, nothing shaken out of what is contained', () => {
    expect(demand('oak').forbidden).toEqual(['drySweeping', 'compressedAir']);
    expect(demand('lead paint').forbidden).toEqual(['drySweeping', 'compressedAir', 'shaking', 'dryScraping']);
    expect(demand('lead paint', { wet: true }).forbidden).toContain('mainsInTheWet');
    expect(demand('lead paint', { wet: true }).forbidden).not.toContain('dryScraping');
    expect(demand('house dust').forbidden).toEqual([]);
  });

  it('keeps sparks out of what burns', () => {
    expect(demand('aluminium', { tool: 'grinder' }).forbidden).toContain('sparks');
    expect(demand('oak', { tool: 'grinder' }).forbidden.includes('sparks')).toBe(
      demand('oak').standing.dusts.some((d) => d.properties.includes('combustible')),
    );
  });
});

describe('a class against what is asked', () => {
  // EN/IEC 60335-2-69 Annex AA: M 0.1 %, H 0.005 %; HEPA in US usage 0.03 %: less than H, and no class of that standard.
  it.each([
    // Labels from none over L, HEPA and M to H.
    ['house dust', 'yes', 'yes', 'yes', 'yes', 'yes'],
    ['oak', 'no', 'no', 'note', 'yes', 'yes'],
    // EU and UK say M, the US HEPA: the stricter applies.
    ['concrete', 'no', 'no', 'note', 'no', 'yes'],
    ['lead paint', 'no', 'no', 'no', 'no', 'yes'],
  ] as const)('%s', (text, ...fits) => {
    const d = demand(text);
    const labels = [null, 'L', 'HEPA', 'M', 'H'] as const;
    expect(labels.map((label) => classFit(label, d))).toEqual(fits);
  });
});
