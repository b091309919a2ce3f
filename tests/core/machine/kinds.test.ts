import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';

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
