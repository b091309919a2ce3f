import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';
import { isChangeable } from '@/core/machine/machine';
import type { StageKind } from '@/core/path/stage-kinds';

/** Bores that machines of a kind come with, mm. Common practice, no published source. */
const USUAL_BORE_MM: Record<MachineKind, readonly [number, number]> = {
  shopVacuum: [32, 64],
  mExtractor: [27, 50],
  hExtractor: [27, 36],
  hepaTank: [25, 38],
  grinderExtractor: [50, 50],
  pneumaticHepa: [25, 38],
  singleStageCollector: [100, 150],
  cycloneCollector: [125, 200],
  fumeExtractor: [50, 125],
  floorCleaner: [32, 35],
  centralUnit: [50, 50],
};

describe('a new record of each kind', () => {
  it.each(Object.keys(MACHINE_KINDS) as MachineKind[])('%s begins with a hose or duct of its own size', (kind) => {
    const [low, high] = USUAL_BORE_MM[kind];
    const mm = MACHINE_KINDS[kind].hoseM * 1000;
    expect(mm).toBeGreaterThanOrEqual(low);
    expect(mm).toBeLessThanOrEqual(high);
    // What has a duct instead of a hose is never given the bore of a vacuum's hose.
    if (MACHINE_KINDS[kind].path.includes('duct') && kind !== 'centralUnit') expect(mm).toBeGreaterThanOrEqual(100);
  });
});

// A bin or a can is emptied and goes back: common practice, no published source.
describe('a change of a stage', () => {
  const changeable = (kind: StageKind, part = false, doNotRemove = false) =>
    isChangeable({ kind, part: part ? { id: 1, code: 'B', name: 'bag' } : null, doNotRemove });

  it('is recorded for a bin that is emptied without a part, and for no stage that only leads the air', () => {
    expect((['cyclone', 'dropChamber', 'bag', 'hepa'] as const).map((k) => changeable(k))).toEqual([
      true,
      true,
      true,
      true,
    ]);
    expect((['fan', 'duct', 'nozzle', 'muffler', 'wye'] as const).some((k) => changeable(k))).toBe(false);
    expect(changeable('muffler', true)).toBe(true);
    expect(changeable('cyclone', true, true)).toBe(false);
  });
});
