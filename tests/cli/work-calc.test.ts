import { describe, expect, it } from 'vitest';
import { HoseOutput } from '@/contracts/calc/air-path';
import { DustOutput } from '@/contracts/calc/dust';
import { CircuitOutput, ToolNeedOutput, WorkOutput } from '@/contracts/calc/work';
import { runCalc as run } from '../support/calc';

describe('calc tool-need, calc circuit and calc work', () => {
  it('a 5 in wheel on concrete wants 125 cfm (29 CFR 1926.1153 Table 1) and a respirator past four hours indoors', async () => {
    const { json } = await run('tool-need', {
      text: 'concrete',
      tool: 'grinder',
      size: { value: 5, unit: 'in' },
      place: 'indoors',
      hours: 6,
    });
    const need = ToolNeedOutput.parse(json);
    expect(need.must?.value).toBeCloseTo(125 * 4.719474432e-4, 9);
    expect([need.classes, need.respiratorApf]).toEqual([{ eu_uk: 'M', us: 'HEPA' }, 10]);
  });

  it('12 A on a 15 A breaker holds under US rules, and a weak lead is said', async () => {
    const { json } = await run('circuit', {
      ruleSet: 'us',
      supply: 120,
      breaker: 15,
      machine: { current: 12 },
      lead: { length: { value: 100, unit: 'ft' }, sectionMm2: 2.08 },
    });
    const out = CircuitOutput.parse(json);
    expect(out.checks.map((c) => [c.check, c.holds])).toEqual([
      ['machineShare', true],
      ['breaker', true],
      ['drop', false],
    ]);
    expect(out.atMachine.value).toBeCloseTo(120 - (2 * 0.0225 * 30.48 * 12) / 2.08, 6);
  });

  it('calc dust says what is forbidden and what the waste is called; calc hose which of two hoses does it', async () => {
    const dust = DustOutput.parse((await run('dust', { text: 'lead paint' })).json);
    expect(dust.forbidden).toContain('No compressed air, on the work, the filter or yourself.');
    expect(dust.waste.join(' ')).toMatch(/lead/i);
    const verdict = async (bore: number, must: number) =>
      HoseOutput.parse(
        (
          await run('hose', {
            bore,
            length: 4,
            flow: 0.03,
            machine: { kind: 'mExtractor' },
            must,
            leastVelocity: { value: 20, unit: 'm/s' },
          })
        ).json,
      ).machine;
    // 80 mm is a duct: no vacuum fills it. 0.2 m3/s is more than any of its kind moves.
    expect((await verdict(0.08, 0.02))?.verdict).toBe('tooSlow');
    expect((await verdict(0.027, 0.2))?.verdict).toBe('tooLittle');
    const some = await verdict(0.036, 0.02);
    expect(['does', 'perhaps']).toContain(some?.verdict);
    expect(some?.low.value).toBeLessThan(some?.flowWithThis.value ?? 0);
  });

  it('names the H machine for lead paint, says of the M one why not, and nothing for asbestos', async () => {
    const machines = [
      { name: 'blue', kind: 'mExtractor', machineClass: 'M' },
      { name: 'grey', kind: 'hExtractor', machineClass: 'H' },
    ];
    const lead = WorkOutput.parse((await run('work', { text: 'lead paint', tool: 'sander', machines })).json);
    expect(lead.machines.map((m) => [m.name, m.whyNot])).toEqual([
      ['grey', []],
      ['blue', ['classTooLow']],
    ]);
    expect(lead.sentence).toMatch(/^Take grey/);
    const asbestos = WorkOutput.parse((await run('work', { text: 'asbestos', machines })).json);
    expect(asbestos.machines.every((m) => m.whyNot.includes('dustRefused'))).toBe(true);
    expect(asbestos.sentence).toMatch(/not with any machine here/);
  });

  it.each([
    ['a wheel of 2 m', 'tool-need', { text: 'concrete', tool: 'grinder', size: 2 }],
    ['a plate of less than nothing', 'circuit', { supply: 230, machine: { current: -1 } }],
    ['no voltage', 'circuit', { supply: 0 }],
    ['a hose of nothing', 'work', { text: 'oak', tool: 'sander', machines: [], hoses: [{ bore: 0, length: 3 }] }],
  ])('%s is refused in a sentence', async (_, name, input) => {
    const { code, complaint, json } = await run(name, input);
    expect([code === 0, json]).toEqual([false, null]);
    const { problems } = JSON.parse(complaint) as { problems: { sentence: string }[] };
    expect(problems[0]?.sentence).toMatch(/\.$/);
  });
});
