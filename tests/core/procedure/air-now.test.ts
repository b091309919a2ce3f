import { describe, expect, it } from 'vitest';
import { airNow, handsOf } from '@/core/procedure/air-now';
import { templateMachine } from '../../support/machines';

const { stages } = templateMachine('hepaTank');
const bag = stages.findIndex((s) => s.kind === 'bag');
const at = (air: readonly string[]) => Object.fromEntries(stages.map((s, i) => [s.kind, air[i]]));

describe('which way the air flows while a machine is worked at (common practice, no published source)', () => {
  it('off, nothing moves; running and closed, everything does', () => {
    expect(new Set(airNow({ stages, run: 'off', open: ['lid'], at: bag }))).toEqual(new Set(['still']));
    expect(new Set(airNow({ stages, run: 'running', open: [], at: bag }))).toEqual(new Set(['through']));
  });

  it('running, it is drawn into what stands open, and nothing comes through the hose', () => {
    expect(at(airNow({ stages, run: 'running', open: ['door'], at: bag }))).toMatchObject({
      hose: 'still',
      bag: 'in',
      hepa: 'through',
      fan: 'through',
    });
    expect(at(airNow({ stages, run: 'running', open: ['inlet'], at: null }))).toMatchObject({
      hose: 'still',
      inlet: 'in',
      bag: 'through',
    });
  });

  it('a head set aside does not clean the tank; a second vacuum does', () => {
    expect(at(airNow({ stages, run: 'headAside', open: ['head'], at: bag }))).toMatchObject({
      hose: 'still',
      bag: 'still',
      prefilter: 'in',
      hepa: 'through',
    });
    expect(at(airNow({ stages, run: 'secondVacuum', open: ['head'], at: bag }))).toMatchObject({
      bag: 'out',
      prefilter: 'in',
    });
  });

  it('of two people one keeps clean hands: shelf, plug and label; the other works where the dust is', () => {
    const step = { run: 'off', stage: 0, because: 'method' } as const;
    expect(handsOf({ ...step, key: 'bagOld', moves: 'bagOld', dusty: true })).toBe('dirty');
    expect(handsOf({ ...step, key: 'prepareNew', moves: 'takeNew' })).toBe('clean');
    expect(handsOf({ ...step, key: 'labelWaste' })).toBe('clean');
  });
});
