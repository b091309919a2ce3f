import { describe, expect, it } from 'vitest';
import { loadShareOf } from '@/core/calibrate/load-share';
import { modelledMachine } from '@/core/calibrate/machine-model';
import { AS_NEW } from '@/core/path/as-new';
import { CLEAN } from '@/core/path/machine-path';
import { pressureProfile } from '@/core/path/pressure-profile';
import { templateMachine } from '../../support/machines';

const machine = templateMachine('mExtractor');
const modelled = modelledMachine(machine, []);
const position = machine.stages.findIndex((s) => s.kind === 'mainFilter');
const share = loadShareOf({ modelled, position, limitLoss: 0.25 });

describe("a loss of flow as a share of the limit's load", () => {
  it('is one at the limit, nothing without a loss, and half the load loses what the path says it loses', () => {
    expect(share?.(0.25)).toBeCloseTo(1, 6);
    expect([share?.(0), share?.(-0.1), share?.(1)]).toEqual([0, 0, 0]);
    const flow = (loadPaSM3: number) => {
      const drawn = pressureProfile({
        model: modelled.model,
        parameters: modelled.parameters,
        state: { ...AS_NEW, stages: { [position]: { ...CLEAN, loadPaSM3 } } },
      });
      return drawn.ok ? drawn.value.toolFlowM3s : Number.NaN;
    };
    // The load that loses a quarter, found here by stepping, not by halving.
    let limit = 1000;
    while (flow(limit) > 0.75 * flow(0)) limit *= 1.002;
    const lossOfHalf = 1 - flow(limit / 2) / flow(0);
    expect(lossOfHalf).toBeGreaterThan(0.05);
    expect(share?.(lossOfHalf)).toBeCloseTo(0.5, 2);
  });

  it('rises with the loss all the way', () => {
    const values = [0.05, 0.1, 0.15, 0.2, 0.25, 0.3].map((l) => share?.(l) ?? 0);
    expect(values).toEqual([...values].sort((a, b) => a - b));
    expect(new Set(values).size).toBe(values.length);
  });
});
