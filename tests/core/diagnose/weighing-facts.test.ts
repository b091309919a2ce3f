import { describe, expect, it } from 'vitest';
import { evaluateCase, type Progress } from '@/core/diagnose/evaluate-case';
import { expectedOf } from '@/core/diagnose/expected';
import { type Fault, type FaultKind, faultPlaces, type MachineTraits } from '@/core/diagnose/fault';
import { caseFindings } from '@/core/diagnose/case-findings';
import { hypothesesOf } from '@/core/diagnose/hypotheses';
import { lossesOf } from '@/core/diagnose/loss';
import { proposals } from '@/core/diagnose/next-test';
import { type Operation, priceOf } from '@/core/diagnose/operation';
import { type Case, type Evidence, openCase, weigh } from '@/core/diagnose/posterior';
import { NO_RECORD, recordFactor } from '@/core/diagnose/record-prior';
import { type Interventions, faultSimulatorOf, UNTOUCHED } from '@/core/diagnose/signature';
import type { MachineKind } from '@/core/machine/kinds';
import { templateParameters } from '@/core/path/pressure-profile';
import { CLEAN_STATE, modelOf, templateMachine } from '../../support/machines';

// Facts of the trade about what readings and looks can tell (common practice, no published source).

const TRAITS: MachineTraits = { hasLamp: false, hasBrush: false, selectorM: null, machineClass: null };
const FLOW: Operation = { kind: 'flow', place: 'toolEnd' };

const caseOf = (kind: MachineKind, baselines: Readonly<Record<string, number>> = {}): Case => {
  const model = modelOf(templateMachine(kind));
  const faultSimulator = faultSimulatorOf({ model, parameters: templateParameters(model, 12e-6), state: CLEAN_STATE });
  return openCase(
    { faultSimulator, traits: TRAITS, hoseM: model.hoseBoreM, nominalVolts: 230, calibrated: true, baselines },
    hypothesesOf(faultPlaces(model, TRAITS)),
  );
};
const at = (c: Case, kind: string) => c.subject.faultSimulator.suspect.model.stages.findIndex((s) => s.kind === kind);
const soundFlow = (c: Case) => c.subject.faultSimulator.sound.air.flowM3s('toolEnd');
const share = (c: Case, op: Operation, faults: readonly Fault[]) => {
  const e = expectedOf(op, faults, { interventions: UNTOUCHED, subject: c.subject });
  return e.kind === 'words' ? e.words : {};
};
const read = (valueSi: number, interventions: Interventions = UNTOUCHED): Evidence => ({
  operation: FLOW,
  outcome: { kind: 'number', valueSi },
  interventions,
  struck: false,
});
const progress = (over: Partial<Progress>): Progress => ({
  complaint: 'noSuction',
  hazard: 'plain',
  state: 'off',
  interventions: UNTOUCHED,
  evidence: [],
  skipped: [],
  ...over,
});
const advised = (c: Case, over: Partial<Progress>) => {
  const said = evaluateCase(c, progress(over));
  if (!said.ok) throw new Error(said.failures.map((f) => f.code).join());
  return said.value;
};

describe('what readings and looks can tell', () => {
  it('a slow fan moves little air without labouring; a plug makes it labour', () => {
    const c = caseOf('shopVacuum');
    const heard = (kind: FaultKind, position: number) =>
      share(c, { kind: 'listen' }, [{ kind, position, severity: 0.7 }])['blocked'] ?? 0;
    expect(heard('blocked', at(c, 'hose'))).toBeGreaterThan(0.5);
    expect(heard('weakFan', at(c, 'fan'))).toBeLessThan(0.3);
  });

  it('dust at the exhaust speaks of the finest filter: a torn bag in front of a sound HEPA does not show there', () => {
    const c = caseOf('hepaTank');
    const above = (kind: string) =>
      share(c, { kind: 'particles' }, [{ kind: 'torn', position: at(c, kind), severity: 0.8 }])['above'] ?? 0;
    expect(above('bag')).toBeLessThan(0.1);
    expect(above('hepa')).toBeGreaterThan(0.7);
  });

  it("the model is brought to the machine's own baseline: sound is what it read when it was sound", () => {
    const own = 0.8 * soundFlow(caseOf('shopVacuum'));
    const c = caseOf('shopVacuum', { 'flow toolEnd': own });
    const e = expectedOf(FLOW, [], { interventions: UNTOUCHED, subject: c.subject });
    expect(e.kind === 'number' ? e.mean : 0).toBeCloseTo(own, 9);
    expect(advised(c, { evidence: [read(0.95 * own)] }).back).toBe(true);
    expect(advised(c, { evidence: [read(0.7 * own)] }).back).toBe(false);
  });

  it('two faults at once are a third of the thought before any test; wet work speaks for a blocked medium', () => {
    const c = caseOf('shopVacuum');
    const p = weigh(c, []);
    expect(p.ok ? p.value.pair : 0).toBeGreaterThan(0.25);
    expect(p.ok ? p.value.pair : 1).toBeLessThan(0.45);
    const bag = faultPlaces(c.subject.faultSimulator.suspect.model, TRAITS).find(
      (x) => x.kind === 'blocked' && x.position === at(c, 'bag'),
    );
    if (!bag) throw new Error('no bag');
    expect(recordFactor({ ...NO_RECORD, wet: true }, () => true)(bag)).toBeGreaterThan(
      1.5 * recordFactor(NO_RECORD, () => true)(bag),
    );
  });
});

describe('what comes next', () => {
  it('a look into a machine that stands open costs less than opening it for the look', () => {
    const look: Operation = { kind: 'lookBag', position: 3 };
    expect(priceOf(look, { hazard: 'contained', state: 'open' })).toBeLessThan(
      priceOf(look, { hazard: 'contained', state: 'off' }) - 3,
    );
  });

  it('a pre-filter found blocked: the open bag compartment is looked into before the machine is closed and measured', () => {
    const c = caseOf('hepaTank');
    const prefilter = at(c, 'prefilter');
    const interventions: Interventions = { out: [], repairs: [{ kind: 'newPart', position: prefilter }] };
    const found: Evidence = {
      operation: { kind: 'found', fault: 'blocked', position: prefilter },
      outcome: { kind: 'word', word: 'yes' },
      interventions: UNTOUCHED,
      struck: false,
    };
    const dp: Evidence = {
      operation: { kind: 'stageDp', position: prefilter },
      outcome: { kind: 'number', valueSi: 9000 },
      interventions: UNTOUCHED,
      struck: false,
    };
    const evidence = [read(0.5 * soundFlow(c)), dp, found];
    const next = (state: Progress['state']) => {
      const { advice } = advised(c, { interventions, evidence, state });
      return advice.kind === 'test' ? advice.proposal.operation : null;
    };
    expect(next('open')).toEqual({ kind: 'lookBag', position: at(c, 'bag') });
    expect(next('off')).toEqual(FLOW);
  });

  it('nothing is asked of a stage that is out of the machine', () => {
    const c = caseOf('hepaTank');
    const p = weigh(c, [read(0.5 * soundFlow(c))]);
    if (!p.ok) throw new Error('not weighed');
    const interventions: Interventions = { out: [at(c, 'bag')], repairs: [] };
    const losses = lossesOf(c, { complaint: 'noSuction', hazard: 'plain', repairs: [], back: false });
    const asked = proposals(c, p.value, { asking: { hazard: 'plain', state: 'open', interventions, not: [] }, losses });
    expect(asked.length).toBeGreaterThan(10);
    expect(asked.some((x) => 'position' in x.operation && x.operation.position === at(c, 'bag'))).toBe(false);
  });

  it('a stage that was put right is no longer suspected, and stays the cause that was found', () => {
    const c = caseOf('shopVacuum');
    const bag = at(c, 'bag');
    const interventions: Interventions = { out: [], repairs: [{ kind: 'newPart', position: bag }] };
    const told = caseFindings({
      c,
      school: 'best',
      progress: progress({
        interventions,
        evidence: [read(0.45 * soundFlow(c)), read(0.98 * soundFlow(c), interventions)],
      }),
    });
    if (!told.ok) throw new Error('nothing found');
    expect(told.value.causes[0]).toMatchObject({ kind: 'blocked', position: bag });
    expect(told.value.causes[0]?.probability).toBeGreaterThan(0.9);
    expect(told.value.stages[bag]).toBeLessThan(0.1);
  });
});
