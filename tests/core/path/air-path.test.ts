import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import { questionReading } from '@/core/machine/plausible';
import { gapOfPlace, sidesOfPath } from '@/core/path/path-places';
import type { StageKind } from '@/core/path/stage-kinds';
import { MACHINES } from '../../../demo/yard-data';

const EXTRACTOR: readonly StageKind[] = ['nozzle', 'hose', 'inlet', 'bag', 'mainFilter', 'fan', 'exhaust'];
const COLLECTOR: readonly StageKind[] = ['hood', 'duct', 'fan', 'ring', 'bag', 'canister', 'exhaust'];

describe('the air path', () => {
  it('has a suction side before the fan and a pressure side after it: a collector filters after its fan', () => {
    const extractor = sidesOfPath(EXTRACTOR);
    const collector = sidesOfPath(COLLECTOR);
    expect(extractor.ok && extractor.value[EXTRACTOR.indexOf('mainFilter')]).toBe('suction');
    expect(collector.ok && collector.value[COLLECTOR.indexOf('canister')]).toBe('pressure');
  });

  it.each([
    [[], 'path.empty'],
    [['nozzle', 'hose', 'bag'], 'path.no-fan'],
    [['hose', 'fan', 'bag', 'fan'], 'path.two-fans'],
  ] as const)('%j is %s', (kinds, code) => {
    const sides = sidesOfPath(kinds);
    expect(sides.ok ? 'drawn' : sides.failures[0]?.code).toBe(code);
  });

  it('puts each place in its gap', () => {
    const gaps = (['toolEnd', 'hoseEnd', 'inlet', 'outlet'] as const).map((place) => gapOfPlace(EXTRACTOR, place));
    expect(gaps).toEqual([0, 1, 2, 7]);
    expect(gapOfPlace(['hose', 'inlet', 'fan'], 'hoseEnd')).toBe(0);
  });

  it('every demo machine has a path that can be drawn, of at least five kinds', () => {
    expect(MACHINES.length).toBeGreaterThanOrEqual(6);
    expect(new Set(MACHINES.map((m) => m.kind)).size).toBeGreaterThanOrEqual(5);
    for (const machine of MACHINES) expect(sidesOfPath(machine.stages.map((s) => s.kind)).ok, machine.tag).toBe(true);
  });
});

describe('an implausible reading', () => {
  it('is questioned for what this kind of machine gives, in both directions', () => {
    const ask = (valueSi: number, measurand: 'flow' | 'suction') =>
      questionReading({ kind: 'mExtractor', measurand, valueSi })?.code ?? 'plausible';
    expect(ask(0.029, 'flow')).toBe('plausible');
    expect(ask(0.29, 'flow')).toBe('reading.high');
    expect(ask(0.0004, 'flow')).toBe('reading.low');
    expect(ask(23_000, 'suction')).toBe('plausible');
    expect(ask(60_000, 'suction')).toBe('reading.high');
  });

  it('typical ranges are ranges', () => {
    for (const facts of Object.values(MACHINE_KINDS)) {
      expect(facts.flowM3s[0]).toBeLessThan(facts.flowM3s[1]);
      expect(facts.suctionPa[0]).toBeLessThan(facts.suctionPa[1]);
    }
  });
});
