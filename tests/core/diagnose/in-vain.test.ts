import { describe, expect, it } from 'vitest';
import type { Complaint } from '@/core/diagnose/complaint';
import type { CaseSubject } from '@/core/diagnose/expected';
import { repairsInVain } from '@/core/diagnose/in-vain';
import type { Operation } from '@/core/diagnose/operation';
import type { Evidence } from '@/core/diagnose/posterior';
import type { Repair } from '@/core/diagnose/repair';
import { faultSimulatorOf } from '@/core/diagnose/signature';
import { templateParameters } from '@/core/path/pressure-profile';
import { CLEAN_STATE, modelOf, templateMachine } from '../../support/machines';

const model = modelOf(templateMachine('shopVacuum'));
const subject: CaseSubject = {
  faultSimulator: faultSimulatorOf({ model, parameters: templateParameters(model, 12e-6), state: CLEAN_STATE }),
  traits: { hasLamp: false, hasBrush: false, selectorM: null, machineClass: null },
  hoseM: model.hoseBoreM,
  nominalVolts: 230,
  calibrated: true,
  baselines: {},
};
const SOUND = subject.faultSimulator.sound.air.flowM3s('toolEnd');
const [BAG, FILTER, HOSE]: readonly Repair[] = [
  { kind: 'newPart', position: 2 },
  { kind: 'newPart', position: 3 },
  { kind: 'clear', position: 1 },
];
const repairs = (n: number): readonly Repair[] => [BAG, FILTER, HOSE].flatMap((r) => r ?? []).slice(0, n);
const at = (n: number, operation: Operation, outcome: Evidence['outcome']): Evidence => ({
  operation,
  outcome,
  interventions: { out: [], repairs: repairs(n) },
  struck: false,
});
/** The flow at the tool with so many repairs done, as a share of the sound machine's. */
const flow = (n: number, share: number) =>
  at(n, { kind: 'flow', place: 'toolEnd' }, { kind: 'number', valueSi: share * SOUND });
const inVain = (evidence: readonly Evidence[], done: number, complaint: Complaint = 'noSuction') =>
  repairsInVain(subject, {
    complaint,
    interventions: { out: [], repairs: repairs(done) },
    evidence,
  });

// A new part that changes nothing was not the cause: common practice, no published source.
describe('repairs in vain', () => {
  it('counts repairs after which the complaint’s own reading is as it was; a repair that helped begins anew', () => {
    expect(inVain([flow(0, 0.4)], 0)).toBe(0);
    expect(inVain([flow(0, 0.4), flow(1, 0.41)], 1)).toBe(1);
    expect(inVain([flow(0, 0.4), flow(1, 0.41), flow(2, 0.39)], 2)).toBe(2);
    expect(inVain([flow(0, 0.4), flow(1, 0.41), flow(2, 0.6)], 2)).toBe(0);
    expect(inVain([flow(0, 0.4), flow(1, 0.6), flow(2, 0.61)], 2)).toBe(1);
    expect(inVain([flow(0, 0.4), flow(1, 0.97)], 1)).toBe(0);
  });

  it('a repair without a reading after it says nothing; the next reading speaks of the machine as it now is', () => {
    expect(inVain([flow(0, 0.4)], 1)).toBe(0);
    expect(inVain([flow(0, 0.4), flow(2, 0.41)], 2)).toBe(1);
  });

  it('a fault that was seen where it was repaired makes the repair a useful one, though the air is not back', () => {
    const seen = at(
      1,
      { kind: 'found', fault: 'blocked', position: BAG?.position ?? 0 },
      { kind: 'word', word: 'yes' },
    );
    expect(inVain([flow(0, 0.4), seen, flow(1, 0.41)], 1)).toBe(0);
    const missed = { ...seen, outcome: { kind: 'word', word: 'no' } } as const;
    expect(inVain([flow(0, 0.4), missed, flow(1, 0.41)], 1)).toBe(1);
  });

  it('dust that still comes out is a complaint that stays, whatever the flow does in its band', () => {
    const dust = (n: number, word: string) => at(n, { kind: 'particles' }, { kind: 'word', word });
    expect(inVain([dust(0, 'above'), flow(0, 1), dust(1, 'above'), flow(1, 1)], 1, 'dust')).toBe(1);
    expect(inVain([dust(0, 'above'), flow(0, 1), dust(1, 'below'), flow(1, 1)], 1, 'dust')).toBe(0);
  });
});
