import { describe, expect, it } from 'vitest';
import { type CircuitQuestion, COPPER_OHM_MM2_M, judgeCircuit, leadDropV } from '@/core/for-work/circuit';

const plate = (amps: number | null, watts: number | null = null, powerFactor: number | null = null) => ({
  amps,
  watts,
  powerFactor,
});
const asked = (over: Partial<CircuitQuestion> = {}): CircuitQuestion => ({
  ruleSet: 'eu_uk',
  supplyV: 230,
  breakerA: null,
  machine: plate(null),
  tool: plate(null),
  socketW: null,
  throughMachine: true,
  lead: null,
  hours: null,
  generatorVA: null,
  ...over,
});
const checkOf = (q: CircuitQuestion, name: string) => judgeCircuit(q).checks.find((c) => c.check === name);

describe('the lead', () => {
  it('loses what IEC 60364-5-52 Annex G says: b rho1 L / S times I', () => {
    expect(leadDropV({ lengthM: 25, sectionMm2: 1.5, amps: 10 })).toBeCloseTo(7.5, 9);
    expect(leadDropV({ lengthM: 0, sectionMm2: 1.5, amps: 10 })).toBe(0);
    expect(() => leadDropV({ lengthM: 25, sectionMm2: 0, amps: 10 })).toThrow(RangeError);
  });

  // NEC 2020 chapter 9 Table 8, stranded uncoated copper at 75 degC, from memory: ohm per 1000 ft, and the section in mm2.
  it.each([
    ['14 AWG', 2.08, 3.14],
    ['12 AWG', 3.31, 1.98],
    ['10 AWG', 5.261, 1.24],
  ])('%s lies within a tenth of the NEC table, and never below it', (_, sectionMm2, ohmPer1000ft) => {
    const ours = (COPPER_OHM_MM2_M / sectionMm2) * 304.8;
    expect(ours).toBeGreaterThan(ohmPer1000ft);
    expect(ours).toBeLessThan(1.1 * ohmPer1000ft);
  });

  it('of 300 m starves the machine, and is said; it never takes more than there is', () => {
    const long = asked({ lead: { lengthM: 300, sectionMm2: 1.5 }, machine: plate(6), tool: plate(5) });
    expect(checkOf(long, 'drop')).toMatchObject({ holds: false, value: 99 });
    expect(judgeCircuit(long).machineV).toBeCloseTo(131, 6);
    expect(judgeCircuit(asked({ ...long, lead: { lengthM: 500, sectionMm2: 0.5 } })).machineV).toBe(0);
  });

  it('carries the tool only where that is plugged into the machine', () => {
    const q = asked({ lead: { lengthM: 25, sectionMm2: 1.5 }, machine: plate(6), tool: plate(4) });
    expect(judgeCircuit(q).dropV).toBeCloseTo(7.5, 9);
    expect(judgeCircuit({ ...q, throughMachine: false }).dropV).toBeCloseTo(4.5, 9);
  });
});

describe('the breaker', () => {
  // NEC 210.23(A)(1): one cord-and-plug appliance at most 80 % of the branch circuit: 12 A of 15 A, 16 A of 20 A.
  it.each([
    [15, 12],
    [20, 16],
  ])('of %s A takes one appliance of %s A under US rules, and not a tenth more', (breakerA, most) => {
    const us = (amps: number) => asked({ ruleSet: 'us', supplyV: 120, breakerA, machine: plate(amps) });
    expect(checkOf(us(most), 'machineShare')).toMatchObject({ holds: true, limit: most });
    expect(checkOf(us(most + 0.1), 'machineShare')?.holds).toBe(false);
  });

  it('takes three hours and more at 80 % under US rules only', () => {
    const q = asked({ ruleSet: 'us', supplyV: 120, breakerA: 20, machine: plate(9), tool: plate(8), hours: 3 });
    expect(checkOf(q, 'continuous')).toMatchObject({ holds: false, value: 17, limit: 16 });
    expect(checkOf({ ...q, hours: 2.9 }, 'continuous')).toBeUndefined();
    expect(checkOf({ ...q, ruleSet: 'eu_uk' }, 'continuous')).toBeUndefined();
    expect(checkOf(q, 'breaker')?.holds).toBe(true);
  });

  it('says nothing of what was not read, and takes the plate before the watts', () => {
    expect(judgeCircuit(asked({ breakerA: 16 })).checks).toEqual([]);
    const watts = judgeCircuit(asked({ breakerA: 16, machine: plate(null, 1150, 0.5) }));
    expect([watts.machineA, watts.fromWatts]).toEqual([10, true]);
    const both = judgeCircuit(asked({ breakerA: 16, machine: plate(6, 1150) }));
    expect([both.machineA, both.fromWatts]).toEqual([6, false]);
    expect(() => judgeCircuit(asked({ supplyV: 0 }))).toThrow(RangeError);
  });

  it('holds the socket on the machine and a generator at the start to their plates', () => {
    const q = asked({ machine: plate(5), tool: plate(6), socketW: 1200, generatorVA: 5000 });
    expect(checkOf(q, 'socket')).toMatchObject({ value: 1380, limit: 1200, holds: false });
    // 11 A running and the larger of them starting at three times: 23 A of 230 V.
    expect(checkOf(q, 'generator')).toMatchObject({ value: 5290, holds: false });
    expect(checkOf({ ...q, throughMachine: false }, 'socket')).toBeUndefined();
  });
});
