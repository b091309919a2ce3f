import { describe, expect, it } from 'vitest';
import { integrityStanding, integrityTestsOf } from '@/core/machine/integrity';
import { classStanding } from '@/core/machine/machine';
import { machineOf, stageOf } from '../../support/machines';

const FITTED = '2026-11-24T10:00:00.000Z';
const later = (minutes: number) => new Date(Date.parse(FITTED) + minutes * 60_000).toISOString();
const check = (test: 'particles' | 'cleanSide' | 'smoke', passed: boolean, minutes: number) => ({ test, passed, at: later(minutes), by: 'MK', note: '' });
const filter = (over = {}) => stageOf(1, { kind: 'mainFilter', name: 'main filter', fittedAt: FITTED, ...over });

describe('integrity after a change of the filter that carries the class', () => {
  it('asks for what stands in for a class test in the field, by class and stage (EN 60335-2-69 tests the appliance; the field tests are common practice, no published source)', () => {
    expect(integrityTestsOf({ machineClass: 'M' }, { kind: 'mainFilter' })).toEqual(['cleanSide', 'smoke']);
    expect(integrityTestsOf({ machineClass: 'H' }, { kind: 'mainFilter' })).toEqual(['particles', 'cleanSide', 'smoke']);
    expect(integrityTestsOf({ machineClass: 'HEPA' }, { kind: 'hepa' })).toEqual(['particles', 'cleanSide', 'smoke']);
    expect(integrityTestsOf({ machineClass: 'HEPA' }, { kind: 'bag' })).toEqual([]);
    expect(integrityTestsOf({ machineClass: 'L' }, { kind: 'mainFilter' })).toEqual([]);
    expect(integrityTestsOf({ machineClass: null }, { kind: 'hepa' })).toEqual([]);
  });

  it('suspends the class from the change until every test is passed; a pass from before the change counts for nothing', () => {
    const machine = (proven: Parameters<typeof filter>[0]) => machineOf([filter({ proven })], { machineClass: 'M' });
    expect(classStanding(machine([]))).toMatchObject({ label: null, onPlate: 'M', withdrawn: { because: 'untested' } });
    expect(classStanding(machine([check('cleanSide', true, 5)]))).toMatchObject({ withdrawn: { because: 'untested' } });
    expect(classStanding(machine([check('cleanSide', true, -5), check('smoke', true, 5)]))).toMatchObject({ withdrawn: { because: 'untested' } });
    expect(classStanding(machine([check('cleanSide', true, 5), check('smoke', true, 6)]))).toMatchObject({ label: 'M', withdrawn: null });
  });

  it('a failure withdraws it until it is passed again; a machine without a recorded change is taken as it was tested', () => {
    const stage = filter({ proven: [check('smoke', false, 4), check('cleanSide', true, 5)] });
    expect(integrityStanding({ machineClass: 'M' }, stage)).toEqual({ due: ['smoke'], failed: ['smoke'] });
    expect(classStanding(machineOf([stage]))).toMatchObject({ withdrawn: { because: 'failed' } });
    expect(integrityStanding({ machineClass: 'M' }, { ...stage, proven: [...stage.proven, check('smoke', true, 9)] })).toBeNull();
    expect(integrityStanding({ machineClass: 'M' }, filter({ fittedAt: null }))).toBeNull();
  });
});
