import { describe, expect, it } from 'vitest';
import { caseState, type CaseEvent, type CaseRecord } from '@/core/diagnose/case-log';
import type { CaseSubject } from '@/core/diagnose/expected';
import { nextStep } from '@/core/diagnose/next-step';
import type { Operation } from '@/core/diagnose/operation';
import { faultSimulatorOf } from '@/core/diagnose/signature';
import { templateParameters } from '@/core/path/pressure-profile';
import { CLEAN_STATE, modelOf, templateMachine } from '../../support/machines';

const AT = '2026-11-01T08:00:00.000Z';
const FLOW: Operation = { kind: 'flow', place: 'toolEnd' };

const recordOf = (school: CaseRecord['school'], ...events: readonly CaseEvent[]): CaseRecord => ({
  id: 1,
  machineId: 1,
  openedAt: AT,
  by: 'MK',
  complaint: 'noSuction',
  words: '',
  hazard: 'plain',
  lastCollected: 'plaster',
  school,
  events: events.map((event, i) => ({ id: i + 1, at: AT, by: 'MK', event })),
});

const model = modelOf(templateMachine('mExtractor'));
const subject: CaseSubject = {
  faultSimulator: faultSimulatorOf({ model, parameters: templateParameters(model, 12e-6), state: CLEAN_STATE }),
  traits: { hasLamp: true, hasBrush: false, selectorM: null, machineClass: 'M' },
  hoseM: model.hoseBoreM,
  nominalVolts: 230,
  calibrated: true,
  baselines: {},
};

const test = (operation: Operation) => ({ operation });
const BEST = { kind: 'test', test: test({ kind: 'listen' }) } as const;
const REPAIR = { kind: 'repair' } as const;
const saw = (valueSi: number): CaseEvent => ({
  kind: 'saw',
  operation: FLOW,
  outcome: { kind: 'number', valueSi },
  typed: '',
  note: '',
});

const step = (record: CaseRecord, over: Partial<Parameters<typeof nextStep>[0]> = {}) =>
  nextStep({
    subject,
    state: caseState(record),
    findings: { advice: BEST, schoolTest: null, back: false },
    swappable: [1, 2],
    picked: null,
    correcting: false,
    askOn: false,
    ...over,
  });

describe('the one next step of a case (common practice, no published source)', () => {
  it('an essential filter that is not in comes before everything, a choice by hand too', () => {
    const findings = {
      advice: { kind: 'fitFirst', position: 2, doubtMinutes: 0 } as const,
      schoolTest: null,
      back: false,
    };
    expect(step(recordOf('swap'), { findings, picked: test(FLOW) })).toEqual({ kind: 'fitFirst', position: 2 });
  });

  it('the complaint is measured as found before a part is tried, and before a school is followed', () => {
    const findings = {
      advice: { kind: 'test', test: test(FLOW) } as const,
      schoolTest: test({ kind: 'takeOut', position: 1 }),
      back: false,
    };
    for (const school of ['swap', 'takeOut'] as const)
      expect(step(recordOf(school), { findings })).toMatchObject({ kind: 'test', why: 'asFound', isPending: true });
    const repaired: CaseEvent = {
      kind: 'repaired',
      repair: { kind: 'clear', position: 1 },
      fault: { kind: 'blocked', position: 1 },
      found: 'yes',
      changeId: null,
    };
    expect(step(recordOf('takeOut', saw(0.004), repaired), { findings })).toMatchObject({ kind: 'test', why: 'again' });
  });

  it('the swap school fits the coarsest first, keeps watch by measuring, and a proposed swap is a trial too', () => {
    expect(step(recordOf('swap', saw(0.004)))).toEqual({ kind: 'trial', step: { kind: 'fit', position: 1 } });
    expect(step(recordOf('swap', saw(0.004)), { askOn: true })).toMatchObject({ kind: 'test', why: 'best' });
    expect(step(recordOf('best', saw(0.004)), { picked: test({ kind: 'swap', position: 2 }) })).toEqual({
      kind: 'trial',
      step: { kind: 'fit', position: 2 },
    });
  });

  it('a choice by hand comes before the proposal, and is called a correction where it is one', () => {
    const picked = test({ kind: 'smoke' });
    expect(step(recordOf('best', saw(0.004)), { picked })).toMatchObject({ test: picked, why: 'picked' });
    expect(step(recordOf('best', saw(0.004)), { picked, correcting: true })).toMatchObject({ why: 'correction' });
  });

  it('a school is followed while a test is advised and nothing is back; a repair is drawn unless it is put aside', () => {
    const schoolTest = test({ kind: 'takeOut', position: 2 });
    const at = recordOf('takeOut', saw(0.004));
    expect(step(at, { findings: { advice: BEST, schoolTest, back: false } })).toMatchObject({ why: 'school' });
    expect(step(at, { findings: { advice: BEST, schoolTest, back: true } })).toMatchObject({ why: 'best' });
    expect(step(at, { findings: { advice: REPAIR, schoolTest, back: false } })).toEqual(REPAIR);
    expect(step(at, { findings: { advice: REPAIR, schoolTest, back: false }, askOn: true })).toEqual({
      kind: 'choose',
    });
  });
});
