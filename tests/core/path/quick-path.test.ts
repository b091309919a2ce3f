import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { MachineKind } from '@/core/machine/kinds';
import { CLEAN, type PathState } from '@/core/path/machine-path';
import { solveReady } from '@/core/path/model/solve';
import { quickMachine, quickPath } from '@/core/path/quick-path';
import { conditionOf, type Entry, pressureProfile, templateParameters } from '@/core/path/pressure-profile';
import { CLEAN_STATE, modelOf, templateMachine } from '../../support/machines';

const KINDS: readonly MachineKind[] = [
  'hepaTank',
  'grinderExtractor',
  'singleStageCollector',
  'pneumaticHepa',
  'cycloneCollector',
];
const size = (low: number, high: number) =>
  fc.double({ min: Math.log(low), max: Math.log(high), noNaN: true }).map(Math.exp);

const anyState = fc.record({
  position: fc.nat(8),
  load: fc.oneof(fc.constant(0), size(1e3, 1e8)),
  block: fc.oneof(fc.constant(1), size(1, 200)),
  out: fc.option(fc.nat(8), { nil: null }),
  leak: fc.record({ node: fc.nat(8), areaM2: fc.oneof(fc.constant(0), size(1e-7, 1e-3)) }),
  speedRatio: fc.double({ min: 0.3, max: 1.1, noNaN: true }),
});

describe('quick path', () => {
  it('is what building, checking and solving the path anew gives, in every state and at every place (slow twin)', () => {
    fc.assert(
      fc.property(fc.constantFrom(...KINDS), anyState, fc.constantFrom('use', 'open', 'sealed'), (kind, s, how) => {
        const model = modelOf(templateMachine(kind));
        const parameters = templateParameters(model, 12e-6);
        const state: PathState = {
          ...CLEAN_STATE,
          stages: {
            [s.position]: { ...CLEAN, loadPaSM3: s.load, blockFactor: s.block },
            ...(s.out === null ? {} : { [s.out]: { ...CLEAN, removed: true } }),
          },
          leaksM2: s.leak.areaM2 > 0 ? { [s.leak.node]: s.leak.areaM2 } : {},
          drive: { speedRatio: s.speedRatio, supplyPa: null },
        };
        const entry: Entry =
          how === 'use'
            ? { at: 'use' }
            : {
                at: 'node',
                opening: how === 'open' ? { node: 2, state: 'open' } : { node: 2, state: 'drawn', flowM3s: 0 },
              };
        const quick = quickMachine(model, parameters, CLEAN_STATE);
        if (!quick.ok) throw new Error('not ready');
        const ready = quickPath(quick.value, state);
        const fast = ready.ok ? solveReady(ready.value, conditionOf(model, entry)) : ready;
        const slow = pressureProfile({ model, parameters, state, entry });
        expect(fast.ok).toBe(slow.ok);
        if (!fast.ok || !slow.ok) return;
        expect(fast.value.toolFlowM3s).toBeCloseTo(slow.value.toolFlowM3s, 9);
        expect(fast.value.fanFlowM3s).toBeCloseTo(slow.value.fanFlowM3s, 9);
      }),
      { numRuns: 300 },
    );
  });

  it('says what is wrong with a path that cannot be, and a drive that cannot turn', () => {
    const model = modelOf(templateMachine('shopVacuum'));
    expect(quickMachine({ ...model, stages: [] }, templateParameters(model, 12e-6), CLEAN_STATE)).toMatchObject({
      ok: false,
      failures: [{ code: 'path.empty' }],
    });
    const quick = quickMachine(model, templateParameters(model, 12e-6), CLEAN_STATE);
    if (!quick.ok) throw new Error('not ready');
    expect(quickPath(quick.value, { ...CLEAN_STATE, drive: { speedRatio: 0, supplyPa: null } })).toMatchObject({
      ok: false,
      failures: [{ code: 'path.drive' }],
    });
  });
});
