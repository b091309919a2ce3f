import { describe, expect, it } from 'vitest';
import {
  classLimit,
  holdsLimit,
  integrityStanding,
  integrityTestsOf,
  type PenetrationTest,
  wantsPenetration,
} from '@/core/machine/integrity';
import { classStanding } from '@/core/machine/machine';
import { machineOf, stageOf } from '../../support/machines';

const OPENED = '2026-11-24T10:00:00.000Z';
const later = (minutes: number) => new Date(Date.parse(OPENED) + minutes * 60_000).toISOString();
const check = (test: 'particles' | 'cleanSide' | 'smoke', passed: boolean, minutes: number) => ({
  test,
  passed,
  at: later(minutes),
  by: 'MK',
  note: '',
});
const filter = (over = {}) =>
  stageOf(1, { kind: 'mainFilter', name: 'main filter', fittedOn: OPENED.slice(0, 10), openedAt: OPENED, ...over });
const paper = (share: number, minutes: number, over: Partial<PenetrationTest> = {}): PenetrationTest => ({
  id: 1,
  at: later(minutes),
  by: 'AB',
  testedOn: later(minutes).slice(0, 10),
  tester: 'the test firm',
  method: 'photometer',
  certificate: 'P-1',
  share,
  limit: 0.00005,
  nextDueOn: null,
  ...over,
});
const SCREENED = [check('cleanSide', true, 5), check('smoke', true, 6), check('particles', true, 9)];

const tested = (machineClass: 'M' | 'H') => ({
  machineClass,
  hazard: 'plain' as const,
  penetration: [],
  timeZone: 'Europe/London',
});

describe('what is due after the seat of the filter that carries the class was opened', () => {
  it('screening by class and stage, the look that opens first; for H and HEPA the proof besides (EN 60335-2-69 tests the appliance; which screening is common practice, no published source)', () => {
    expect(integrityTestsOf(tested('M'), { kind: 'mainFilter' })).toEqual(['cleanSide', 'smoke']);
    expect(integrityTestsOf(tested('H'), { kind: 'mainFilter' })).toEqual(['cleanSide', 'smoke', 'particles']);
    expect(integrityTestsOf({ machineClass: 'HEPA', hazard: 'contained' }, { kind: 'bag' })).toEqual([]);
    expect(integrityTestsOf({ machineClass: 'L', hazard: 'contained' }, { kind: 'mainFilter' })).toEqual([]);
    expect([
      wantsPenetration(tested('H'), { kind: 'mainFilter' }),
      wantsPenetration(tested('M'), { kind: 'mainFilter' }),
      wantsPenetration({ machineClass: 'HEPA' }, { kind: 'bag' }),
    ]).toEqual([true, false, false]);
  });

  it('an M machine is back once it is screened; a pass from before the opening counts for nothing', () => {
    const machine = (proven: readonly unknown[]) => machineOf([filter({ proven })], tested('M'));
    expect(classStanding(machine([]))).toMatchObject({ label: null, onPlate: 'M', gap: { because: 'untested' } });
    expect(classStanding(machine([check('cleanSide', true, -5), check('smoke', true, 5)]))).toMatchObject({
      gap: { because: 'untested' },
    });
    expect(classStanding(machine([check('cleanSide', true, 5), check('smoke', true, 6)]))).toMatchObject({
      label: 'M',
      gap: null,
    });
  });

  it('an H machine that is screened stays suspended until a penetration test holds; one that does not hold fails it', () => {
    const machine = (penetration: readonly PenetrationTest[]) =>
      machineOf([filter({ proven: SCREENED })], { machineClass: 'H', penetration });
    expect(classStanding(machine([]))).toMatchObject({ label: null, gap: { because: 'unproven' } });
    expect(classStanding(machine([paper(0.00002, 2000)]))).toMatchObject({ label: 'H', gap: null });
    expect(classStanding(machine([paper(0.0004, 2000)]))).toMatchObject({
      label: null,
      gap: { because: 'failed' },
    });
    // A paper of before the seat was opened proves nothing, however late it is written down.
    expect(classStanding(machine([paper(0.00002, 2000, { testedOn: '2026-11-20' })]))).toMatchObject({
      gap: { because: 'unproven' },
    });
    expect(
      integrityStanding(
        { ...tested('H'), penetration: [paper(0.00002, 2000)] },
        filter({ openedAt: later(3000), proven: SCREENED }),
      ),
    ).toMatchObject({ penetration: 'due', due: ['cleanSide', 'smoke', 'particles'] });
  });

  it('nothing is opened after its proof: smoke and counts from before a look at the clean side do not count', () => {
    const standing = integrityStanding(
      tested('H'),
      filter({ proven: [check('smoke', true, 2), check('particles', true, 3), check('cleanSide', true, 5)] }),
    );
    expect(standing).toEqual({ due: ['smoke', 'particles'], failed: [], penetration: 'due' });
    expect(
      integrityStanding(
        { ...tested('H'), penetration: [paper(0.00001, 4)] },
        filter({ proven: [check('cleanSide', true, 5)] }),
      )?.penetration,
    ).toBe('due');
  });

  it('a failure withdraws it until it is passed again; a machine without a recorded opening is taken as it was tested', () => {
    const stage = filter({ proven: [check('smoke', false, 6), check('cleanSide', true, 5)] });
    expect(integrityStanding(tested('M'), stage)).toEqual({
      due: ['smoke'],
      failed: ['smoke'],
      penetration: 'notNeeded',
    });
    expect(classStanding(machineOf([stage]))).toMatchObject({ gap: { because: 'failed' } });
    expect(integrityStanding(tested('M'), { ...stage, proven: [...stage.proven, check('smoke', true, 9)] })).toBeNull();
    expect(integrityStanding(tested('M'), filter({ openedAt: null }))).toBeNull();
  });

  it('limits of the classes, inclusive (EN/IEC 60335-2-69 Annex AA; HEPA 29 CFR 1926.1153, DOE-STD-3020; from memory of the sources)', () => {
    expect([classLimit('L'), classLimit('M'), classLimit('H')]).toEqual([0.01, 0.001, 0.00005]);
    expect(classLimit('HEPA')).toBeCloseTo(0.0003, 12);
    expect(holdsLimit({ share: 1 - 0.999, limit: 0.001 })).toBe(true);
    expect(holdsLimit({ share: 0.000051, limit: 0.00005 })).toBe(false);
  });
});
