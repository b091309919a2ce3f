import { describe, expect, it } from 'vitest';
import { stairsAtDue } from '@/core/calibrate/at-due';
import { modelledMachine } from '@/core/calibrate/machine-model';
import { pathViewOf } from '@/core/calibrate/path-view';
import { todayOf } from '@/core/calibrate/today';
import { CLEAN } from '@/core/path/machine-path';
import { templateMachine } from '../../support/machines';

const machine = { ...templateMachine('mExtractor'), inServiceOn: '2026-01-01' };
const modelled = modelledMachine(machine, []);
const bag = machine.stages.findIndex((s) => s.kind === 'bag');
const view = (() => {
  const drawn = pathViewOf(
    machine,
    modelled,
    todayOf({ machine, modelled, tests: [], changes: [], dayOf: (m) => m.slice(0, 10) }),
  );
  // A bag that costs something today.
  const state = {
    ...drawn.today.state,
    stages: { ...drawn.today.state.stages, [bag]: { ...CLEAN, loadPaSM3: 20_000 } },
  };
  return { ...drawn, today: { ...drawn.today, state } };
})();
const at = (shareUsed: number) => stairsAtDue({ view, position: bag, shareUsed });

describe('the staircase at the due moment', () => {
  it('loads the stage further in proportion to its life: less flow, a taller step, and today where its life is used up', () => {
    const [now, half] = [at(1), at(0.5)];
    expect(now && half && half.toolFlowM3s < now.toolFlowM3s).toBe(true);
    // Twice the load: the step over the bag doubles but for the flow that is lost by it.
    const ratio =
      (half?.steps[bag]?.dropPa ?? 0) /
      (half?.toolFlowM3s ?? 1) /
      ((now?.steps[bag]?.dropPa ?? 1) / (now?.toolFlowM3s ?? 1));
    expect(ratio).toBeGreaterThan(1.6);
    expect(ratio).toBeLessThanOrEqual(2.001);
  });

  it('says nothing of a stage without load, hardly used, or used beyond its life', () => {
    expect(stairsAtDue({ view, position: 0, shareUsed: 0.5 })).toBeNull();
    expect(at(0.01)).toBeNull();
    expect(at(1.2)).toBeNull();
    expect(at(Number.NaN)).toBeNull();
  });
});
