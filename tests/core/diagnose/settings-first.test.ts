import { describe, expect, it } from 'vitest';
import { adviceOf, MOST_DOUBT_MINUTES } from '@/core/diagnose/closing';
import { evaluateCase, type Progress } from '@/core/diagnose/evaluate-case';
import { expectedOf } from '@/core/diagnose/expected';
import { type Fault, faultPlaces, type MachineTraits } from '@/core/diagnose/fault';
import { hypothesesOf } from '@/core/diagnose/hypotheses';
import { VAIN_REPAIRS } from '@/core/diagnose/in-vain';
import { lossesOf } from '@/core/diagnose/loss';
import { type Operation, OPERATION_FACTS } from '@/core/diagnose/operation';
import { type Case, type Evidence, openCase } from '@/core/diagnose/posterior';
import { faultSimulatorOf, UNTOUCHED } from '@/core/diagnose/signature';
import type { MachineKind } from '@/core/machine/kinds';
import { templateParameters } from '@/core/path/pressure-profile';
import { CLEAN_STATE, modelOf, templateMachine } from '../../support/machines';

const TRAITS: MachineTraits = { hasLamp: false, hasBrush: false, selectorM: null, machineClass: null };
const caseOf = (kind: MachineKind): Case => {
  const model = modelOf(templateMachine(kind));
  return openCase(
    {
      faultSimulator: faultSimulatorOf({ model, parameters: templateParameters(model, 12e-6), state: CLEAN_STATE }),
      traits: TRAITS,
      hoseM: model.hoseBoreM,
      nominalVolts: 230,
      calibrated: true,
      baselines: {},
    },
    hypothesesOf(faultPlaces(model, TRAITS)),
  );
};
const at = (c: Case, kind: string) => c.subject.faultSimulator.suspect.model.stages.findIndex((s) => s.kind === kind);

const START: Progress = {
  complaint: 'noSuction',
  hazard: 'controlled',
  state: 'running',
  interventions: UNTOUCHED,
  evidence: [],
  skipped: [],
};
const FLOW: Operation = { kind: 'flow', place: 'toolEnd' };
const asked = (c: Case, over: Partial<Progress>) => {
  const said = evaluateCase(c, { ...START, ...over });
  if (!said.ok) throw new Error(said.failures.map((f) => f.code).join());
  return said.value;
};

/** What a test shows on this machine with these faults: the likeliest word, or the reading. */
const shown = (c: Case, operation: Operation, faults: readonly Fault[]): Evidence => {
  const e = expectedOf(operation, faults, { interventions: UNTOUCHED, subject: c.subject });
  const word = e.kind === 'words' ? (Object.entries(e.words).sort((a, b) => b[1] - a[1])[0]?.[0] ?? '') : '';
  const outcome =
    e.kind === 'number' ? ({ kind: 'number', valueSi: e.mean } as const) : ({ kind: 'word', word } as const);
  return { operation, outcome, interventions: UNTOUCHED, struck: false };
};

/** The tests that are advised up to the first repair or the first look into the machine, and that step. */
const upToOpening = (c: Case, faults: readonly Fault[], skipped: readonly Operation[] = []) => {
  const evidence: Evidence[] = [];
  for (let i = 0; i < 20; i += 1) {
    const { advice } = asked(c, { evidence, skipped });
    if (advice.kind !== 'test') return { advice: advice.kind, evidence };
    const { operation } = advice.proposal;
    if (OPERATION_FACTS[operation.kind].state === 'open') return { advice: 'opens', evidence };
    evidence.push(shown(c, operation, faults));
  }
  return { advice: 'never', evidence };
};

// Speed, selector, bleed and slide gate take half a minute and open nothing. Common practice, no published source.
describe('the settings come before the first repair', () => {
  it.each(['hepaTank', 'shopVacuum', 'singleStageCollector'] as const)(
    'of a %s that lacks air, whatever is wrong with it; put aside, they are not asked for',
    (kind) => {
      const c = caseOf(kind);
      const lacking = (fault: Fault) => {
        const { outcome } = shown(c, FLOW, [fault]);
        return (
          outcome.kind === 'number' && outcome.valueSi < 0.7 * c.subject.faultSimulator.sound.air.flowM3s('toolEnd')
        );
      };
      const faults = ['bag', 'hose', 'duct', 'mainFilter', 'canister']
        .map((stage): Fault => ({ kind: 'blocked', position: at(c, stage), severity: 0.8 }))
        .filter((fault) => fault.position >= 0 && lacking(fault));
      expect(faults.length).toBeGreaterThan(1);
      for (const fault of faults) {
        const { advice, evidence } = upToOpening(c, [fault]);
        expect(['repair', 'opens']).toContain(advice);
        expect(evidence.map((e) => e.operation.kind)).toContain('settings');
        const without = upToOpening(c, [fault], [{ kind: 'settings' }]);
        expect(without.evidence.map((e) => e.operation.kind)).not.toContain('settings');
      }
    },
  );
});

describe('after repairs in vain, and with much doubt', () => {
  const c = caseOf('hepaTank');
  const bag = at(c, 'bag');
  const { posterior, ranked } = asked(c, {
    evidence: [shown(c, FLOW, [{ kind: 'blocked', position: bag, severity: 0.53 }])],
  });
  const losses = lossesOf(c, { complaint: 'noSuction', hazard: 'plain', repairs: [], back: false });
  const input = { c, posterior, losses, ranked: [], tests: 3 };

  it('a third repair is not proposed on a guess; the case is handed on', () => {
    expect(adviceOf({ ...input, back: false, inVain: VAIN_REPAIRS - 1 }).kind).toBe('repair');
    expect(adviceOf({ ...input, back: false, inVain: VAIN_REPAIRS }).kind).toBe('escalate');
  });

  it('a case with more than ten minutes of doubt is tested on while a test is left; with little doubt it is closed', () => {
    const leaks = asked(c, {
      complaint: 'dust',
      evidence: [shown(c, { kind: 'particles' }, [{ kind: 'torn', position: at(c, 'hepa'), severity: 0.3 }])],
    });
    // Nothing can be done about it in this case, and no test pays.
    const bare = { ...lossesOf(c, { complaint: 'dust', hazard: 'plain', repairs: [], back: true }), stages: [] };
    const open = { c, posterior: leaks.posterior, losses: bare, back: true, tests: 3, inVain: 0 };
    const dear = ranked.map((p) => ({ ...p, bits: 0.1, saves: 1, minutes: 5 })).slice(0, 1);
    expect(adviceOf({ ...open, ranked: dear }).doubtMinutes).toBeGreaterThan(MOST_DOUBT_MINUTES);
    expect(adviceOf({ ...open, ranked: dear }).kind).toBe('test');
    expect(adviceOf({ ...open, ranked: [] }).kind).toBe('close');
    const settled = { ...leaks.posterior, faults: [] };
    expect(adviceOf({ ...open, posterior: settled, ranked: dear }).kind).toBe('close');
  });
});
