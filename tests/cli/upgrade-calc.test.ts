import { describe, expect, it } from 'vitest';
import { PaybackOutput, RingOutput, UpgradeOutput } from '@/contracts/calc/upgrade';
import { runCalc as run } from '../support/calc';

describe('calc upgrade, calc adapter-ring and calc payback', () => {
  it('19.25 and 17.5 in: 0.875 in of gap (handbook of the trade, section 14)', async () => {
    const inch = (value: number) => ({ value, unit: 'in' });
    const input = { rim: inch(19.25), gasket: inch(16), gasketWidth: inch(0.75), sheet: 0.018, screw: 0.004 };
    const ring = RingOutput.parse((await run('adapter-ring', { filter: inch(17.5), ...input })).json);
    expect(ring.gap.value / 0.0254).toBeCloseTo(0.875, 9);
    expect(ring.sentence).toBe('One ring inside the rim: 22.2 mm of gap each side.');
    const same = await run('adapter-ring', { filter: inch(19.25), ...input });
    expect([same.code === 0, same.json]).toEqual([false, null]);
    expect(same.complaint).toMatch(/as wide as the rim/);
  });

  it('100 against 50 to 100 a year pays in one to two years (handbook of the trade, section 13)', async () => {
    const stage = { name: 'bag', perChange: 10, days: 365.25 / 12 };
    const pays = async (factor: number) =>
      PaybackOutput.parse((await run('payback', { price: 100, stages: [{ ...stage, factor }] })).json).years.middle;
    expect(await pays(120 / 70)).toBeCloseTo(2, 6);
    expect(await pays(6)).toBeCloseTo(1, 6);
    expect(await pays(1)).toBe(null);
  });

  it('a cyclone costs a shop vacuum air; a bag where there is one is refused by its place', async () => {
    const cyclone = { kind: 'separator', lossK: 6, inletBoreM: 0.05, share: 0.9 };
    const out = UpgradeOutput.parse((await run('upgrade', { kind: 'shopVacuum', changes: [cyclone] })).json);
    expect(out.steps).toHaveLength(2);
    expect(out.steps[1]?.ratio.value).toBeLessThan(1);
    expect(out.sentence).toMatch(/^Less air/);
    const two = await run('upgrade', { kind: 'shopVacuum', changes: [cyclone, { kind: 'bag', areaM2: 0.2 }] });
    expect(two.complaint).toMatch(/does not fit the present path/);
  });
});
