import { describe, expect, it } from 'vitest';
import { withoutOthers } from '@/core/forecast/other-loads';
import type { Seen } from '@/core/forecast/seen';
import { loadClock, usedOf } from '@/core/forecast/used';
import { stageTemplate } from '@/core/machine/stage-templates';
import { machineOf, stageOf } from '../../support/machines';

const flow = (day: number, share: number): Seen => ({ kind: 'share', day, share, deviation: 0.1, wholePath: true });

describe('the share of the other loaded stages', () => {
  const used = usedOf({ first: 0, today: 100, written: [], seen: [], worked: () => true });
  const share = (machine: 'singleStageCollector' | 'mExtractor') => {
    const bag = stageOf(1, { kind: 'bag', spec: stageTemplate('bag', machine) });
    const filter = stageOf(2, { kind: 'canister', spec: stageTemplate('canister', machine) });
    return withoutOthers([flow(50, 0.6), flow(80, 0.8)], {
      machine: machineOf([bag, filter], { kind: machine }),
      stage: filter,
      startsOf: (id) => (id === 1 ? [0, 30, 60] : [0]),
      clock: loadClock(used, [1]),
      usualDays: () => 30,
    });
  };

  it('the lower bag of a collector hangs beside the air: all of the loss is the canister’s (handbook, section 2)', () => {
    expect(share('singleStageCollector')).toEqual([flow(50, 0.6), flow(80, 0.8)]);
  });

  it('a bag that the air passes through takes its share, and makes what is left less sure', () => {
    const [first] = share('mExtractor');
    expect(first).toMatchObject({ kind: 'share' });
    expect(first?.kind === 'share' ? first.share : 1).toBeLessThan(0.6);
    expect(first?.kind === 'share' ? first.deviation : 0).toBeGreaterThan(0.1);
  });
});
