import { describe, expect, it } from 'vitest';
import { measuresNow, type Progress } from '@/core/diagnose/evaluate-case';
import { backSinceTrial, type CaseEvent, type CaseRecord, caseState } from '@/core/diagnose/case-log';
import type { CaseSubject } from '@/core/diagnose/expected';
import { expectedOf } from '@/core/diagnose/expected';
import type { Fault } from '@/core/diagnose/fault';
import type { Operation } from '@/core/diagnose/operation';
import { likelihood, type Outcome } from '@/core/diagnose/outcome';
import { type Evidence, openCase, weigh, weightOfEvidence } from '@/core/diagnose/posterior';
import { faultSimulatorOf, type Interventions, UNTOUCHED } from '@/core/diagnose/signature';
import { templateParameters } from '@/core/path/pressure-profile';
import { CLEAN_STATE, modelOf, templateMachine } from '../../support/machines';

const model = modelOf(templateMachine('shopVacuum'));
const subject: CaseSubject = {
  faultSimulator: faultSimulatorOf({ model, parameters: templateParameters(model, 12e-6), state: CLEAN_STATE }),
  traits: { hasLamp: true, hasBrush: true, selectorM: null, machineClass: null },
  hoseM: model.hoseBoreM,
  nominalVolts: 230,
  calibrated: true,
  baselines: {},
};
const SOUND = subject.faultSimulator.sound.air.flowM3s('toolEnd');
const FLOW: Operation = { kind: 'flow', place: 'toolEnd' };
const SETTINGS: Operation = { kind: 'settings' };
const AFTER: Interventions = { out: [], repairs: [{ kind: 'newPart', position: 3 }] };
const seen = (operation: Operation, outcome: Outcome, over: Partial<Evidence> = {}): Evidence => ({
  operation,
  outcome,
  interventions: UNTOUCHED,
  struck: false,
  ...over,
});
const flow = (share: number, over: Partial<Evidence> = {}) =>
  seen(FLOW, { kind: 'number', valueSi: share * SOUND }, over);
const word = (operation: Operation, said: string, over: Partial<Evidence> = {}) =>
  seen(operation, { kind: 'word', word: said }, over);
const all = (evidence: readonly Evidence[], over: Partial<Progress> = {}, traits = subject.traits) =>
  measuresNow(
    { ...subject, traits },
    {
      complaint: 'noSuction',
      hazard: 'plain',
      state: 'running',
      interventions: UNTOUCHED,
      evidence,
      skipped: [],
      ...over,
    },
  );

const now = (...asked: Parameters<typeof all>) => {
  const { back, pending } = all(...asked);
  return { back, pending };
};

describe("whether the complaint's own measures are back, and which is still to be taken", () => {
  it('asks for each of them in its order: flow first, then the settings of a brush', () => {
    expect(now([])).toEqual({ back: false, pending: FLOW });
    expect(now([flow(1)])).toEqual({ back: false, pending: SETTINGS });
    expect(now([flow(1), word(SETTINGS, 'right')])).toEqual({ back: true, pending: null });
    expect(now([word(SETTINGS, 'right')])).toEqual({ back: false, pending: FLOW });
  });

  it('one out of its band and it is not back, whatever the other says', () => {
    expect(now([flow(0.6), word(SETTINGS, 'right')])).toEqual({ back: false, pending: null });
    expect(now([flow(1), word(SETTINGS, 'brush')])).toEqual({ back: false, pending: null });
    // The newest word counts.
    expect(now([flow(0.6), flow(0.98), word(SETTINGS, 'right')]).back).toBe(true);
    expect(now([flow(0.98), flow(0.6), word(SETTINGS, 'right')]).back).toBe(false);
  });

  it('after a repair everything is measured again, but settings that were right stay right', () => {
    const before = [flow(1), word(SETTINGS, 'right')];
    expect(now(before, { interventions: AFTER })).toEqual({ back: false, pending: FLOW });
    expect(now([...before, flow(1, { interventions: AFTER })], { interventions: AFTER })).toEqual({
      back: true,
      pending: null,
    });
    // Settings that were wrong are looked at again.
    expect(now([word(SETTINGS, 'brush'), flow(1, { interventions: AFTER })], { interventions: AFTER })).toEqual({
      back: false,
      pending: SETTINGS,
    });
    const struck = word(SETTINGS, 'right', { struck: true });
    expect(now([struck, flow(1, { interventions: AFTER })], { interventions: AFTER }).pending).toEqual(SETTINGS);
    // A word on something else is no word on the settings.
    const other = word({ kind: 'listen' }, 'normal');
    expect(now([other, flow(1, { interventions: AFTER })], { interventions: AFTER }).pending).toEqual(SETTINGS);
  });

  it('a reading that was struck, or taken with a part out, or before another repair, does not count', () => {
    const settings = word(SETTINGS, 'right');
    expect(now([flow(1, { struck: true }), settings]).pending).toEqual(FLOW);
    expect(now([flow(1, { interventions: { out: [3], repairs: [] } }), settings]).pending).toEqual(FLOW);
    const other: Interventions = { out: [], repairs: [{ kind: 'newPart', position: 4 }] };
    expect(now([flow(1, { interventions: other }), settings], { interventions: AFTER }).pending).toEqual(FLOW);
    const cleared: Interventions = { out: [], repairs: [{ kind: 'clear', position: 3 }] };
    expect(now([flow(1, { interventions: cleared }), settings], { interventions: AFTER }).pending).toEqual(FLOW);
  });

  it('what was skipped is not asked for again, and does not count as back', () => {
    expect(now([word(SETTINGS, 'right')], { skipped: [FLOW] })).toEqual({ back: false, pending: null });
    expect(now([], { skipped: [{ kind: 'listen' }] }).pending).toEqual(FLOW);
  });

  it('a look that was put aside is no answer: nothing is said of a part on trial, and none is sent back for it', () => {
    const settings = word(SETTINGS, 'right');
    expect(all([settings], { skipped: [FLOW] }).unanswered).toBe(true);
    expect(all([flow(0.5), settings]).unanswered).toBe(false);
    const seenBy = (events: readonly CaseEvent[]) =>
      backSinceTrial(
        caseState({
          id: 1,
          complaint: 'noSuction',
          words: '',
          hazard: 'plain',
          school: 'swap',
          lastCollected: '',
          openedAt: '',
          by: '',
          events: events.map((event, id) => ({ id, at: '', by: '', event })),
        } as unknown as CaseRecord),
        { ...subject, traits: { ...subject.traits, hasBrush: false } },
      );
    const low: CaseEvent = {
      kind: 'saw',
      operation: FLOW,
      outcome: { kind: 'number', valueSi: 0.4 * SOUND },
      typed: '',
      note: '',
    };
    const fitted: CaseEvent = { kind: 'trialIn', position: 3 };
    expect(seenBy([low, fitted])).toBeNull();
    expect(seenBy([low, fitted, { kind: 'skipped', operation: FLOW }])).toBeNull();
    expect(seenBy([low, fitted, low])).toBe(false);
    // Put aside while the part is in, it is asked again: else there were no way out of the trial.
    expect(now([settings], { skipped: [FLOW] }).pending).toBeNull();
    expect(now([settings], { skipped: [FLOW], trialOn: true }).pending).toEqual(FLOW);
  });

  it('each complaint has measures of its own', () => {
    const plain = { ...subject.traits, hasBrush: false, hasLamp: false };
    expect(now([flow(1)], {}, plain)).toEqual({ back: true, pending: null });
    expect(now([flow(1)], { complaint: 'light' }, plain)).toEqual({ back: true, pending: null });
    expect(now([flow(1)], { complaint: 'light' }).pending).toEqual({ kind: 'lamp' });
    expect(now([flow(1)], { complaint: 'labours' }).pending).toEqual({ kind: 'listen' });
    expect(now([], { complaint: 'dust' }).pending).toEqual({ kind: 'particles' });
    // Flow is measured before any case closes, one of dust or smell too.
    const count = (said: string) => word({ kind: 'particles' }, said);
    expect(now([count('notShown')], { complaint: 'dust' })).toEqual({ back: false, pending: FLOW });
    expect(now([count('notShown'), flow(1)], { complaint: 'dust' }).back).toBe(true);
    expect(now([count('notShown'), flow(0.5)], { complaint: 'dust' }).back).toBe(false);
    expect(now([count('above'), flow(1)], { complaint: 'dust' }).back).toBe(false);
    expect(now([word({ kind: 'smell' }, 'none'), flow(1)], { complaint: 'smell' }).back).toBe(true);
    expect(now([flow(1)], { complaint: 'round' }).back).toBe(true);
  });
});

describe('how far one piece of evidence moves a fault (Good 1950: the logarithm of the likelihood ratio)', () => {
  const hose = model.stages.findIndex((s) => s.kind === 'hose');
  const blocked: Fault = { kind: 'blocked', position: hose, severity: 0.62 };
  const two = openCase(subject, [
    { faults: [], prior: 0.7 },
    { faults: [blocked], prior: 0.3 },
  ]);
  const ratio = (operation: Operation, outcome: Outcome) => {
    const of = (faults: readonly Fault[]) =>
      likelihood(outcome, expectedOf(operation, faults, { interventions: UNTOUCHED, subject }));
    return Math.log(of([blocked]) / of([]));
  };
  const weightOf = (evidence: Evidence, all: readonly Evidence[] = [evidence], cause = blocked) => {
    const p = weigh(two, all);
    if (!p.ok) throw new Error('not weighed');
    return weightOfEvidence(two, p.value, { evidence, cause });
  };

  it.each([
    ['a rod that stops', word({ kind: 'lookHose' }, 'blocked')],
    ['a clear hose', word({ kind: 'lookHose' }, 'clear')],
    ['four tenths of the flow', flow(0.4)],
    ['the whole flow', flow(1)],
  ])('%s: by its own likelihood ratio, whatever the prior', (_what, evidence) => {
    const wanted = ratio(evidence.operation, evidence.outcome);
    expect(Math.abs(wanted)).toBeGreaterThan(0.3);
    // Averaged over where the machine may leak and what its media hold, and over the meter's own bias: not to the digit.
    const off = evidence.outcome.kind === 'number' ? 0.6 : 0.02;
    expect(Math.abs(weightOf(evidence) - wanted)).toBeLessThan(off);
    // With something else known beside it, still its own.
    expect(Math.abs(weightOf(evidence, [evidence, flow(0.7)]) - wanted)).toBeLessThan(off);
  });

  it('speaks neither for nor against a fault the case does not hold', () => {
    expect(weightOf(flow(0.4), [flow(0.4)], { ...blocked, position: 99 })).toBe(0);
  });
});
