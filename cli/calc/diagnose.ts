import type { DiagnoseInput, DiagnoseOutput, NextTestOutput, TestInput } from '@/contracts/calc/diagnose';
import { AS_NEW } from '@/core/path/as-new';
import { complaintFactor } from '@/core/diagnose/complaint';
import { evaluateCase, type CaseEvaluation } from '@/core/diagnose/evaluate-case';
import { expectedOf } from '@/core/diagnose/expected';
import { faultPlaces } from '@/core/diagnose/fault';
import { assessDust, stated } from '@/core/dust/assess';
import { type DustHazard, worst } from '@/core/dust/level';
import { BUILT_IN_DUSTS } from '@/core/dust/register';
import { hypothesesOf } from '@/core/diagnose/hypotheses';
import { nextOfSchool, type Proposal } from '@/core/diagnose/next-test';
import { type Operation, operationKey, QUANTITY_OF, sameOperation } from '@/core/diagnose/operation';
import type { Outcome } from '@/core/diagnose/outcome';
import { type Case, type Evidence, openCase } from '@/core/diagnose/posterior';
import type { Repair } from '@/core/diagnose/repair';
import { faultSimulatorOf, UNTOUCHED } from '@/core/diagnose/signature';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import type { MachineModel } from '@/core/path/machine-path';
import { machineOf } from './path-input';
import { collect, readQuantity } from './quantities';

const positionOf = (model: MachineModel, stage: string): Result<number> => {
  const position = model.stages.findIndex((s) => s.kind === stage || s.name === stage);
  return position < 0 ? fail(failure('stage.unknown', 'stage', { tag: 'This kind of machine' })) : ok(position);
};

const operationOf = (test: TestInput, model: MachineModel): Result<Operation> => {
  if (!('stage' in test)) return ok(test);
  const position = positionOf(model, test.stage);
  return position.ok ? ok({ kind: test.kind, position: position.value }) : position;
};

const outcomeOf = (
  e: Pick<DiagnoseInput['evidence'][number], 'value' | 'word'>,
  kind: Operation['kind'],
): Result<Outcome> => {
  const quantity = QUANTITY_OF[kind];
  if (quantity === undefined)
    return e.word === undefined ? fail(failure('detail.word', 'word')) : ok({ kind: 'word', word: e.word });
  if (e.value === undefined) return fail(failure('readings.none', 'value'));
  const read = readQuantity(e.value, quantity, 'value');
  return read.ok ? ok({ kind: 'number', valueSi: quantity === 'pressure' ? Math.abs(read.value) : read.value }) : read;
};

const evidenceOf = (e: DiagnoseInput['evidence'][number], model: MachineModel): Result<Evidence> => {
  const operation = at('test', operationOf(e.test, model));
  if (!operation.ok) return operation;
  const places = (list: readonly string[], path: string) =>
    collect(list.map((s, i) => at(`${path}.${i}`, positionOf(model, s))));
  const [outcome, out, fresh] = [outcomeOf(e, operation.value.kind), places(e.out, 'out'), places(e.fresh, 'fresh')];
  if (!outcome.ok || !out.ok || !fresh.ok)
    return fail(...[outcome, out, fresh].flatMap((r) => (r.ok ? [] : r.failures)));
  const interventions = {
    out: out.value,
    repairs: fresh.value.map((position): Repair => ({ kind: 'newPart', position })),
  };
  return ok({ operation: operation.value, outcome: outcome.value, interventions, struck: e.struck });
};

const baselineOf = (b: DiagnoseInput['baselines'][number], model: MachineModel): Result<readonly [string, number]> => {
  const operation = at('test', operationOf(b.test, model));
  if (!operation.ok) return operation;
  const outcome = outcomeOf({ value: b.value, word: undefined }, operation.value.kind);
  if (!outcome.ok) return outcome;
  return outcome.value.kind === 'number'
    ? ok([operationKey(operation.value), outcome.value.valueSi])
    : fail(failure('readings.none', 'value'));
};

interface Opened {
  readonly held: Case;
  readonly said: CaseEvaluation;
  readonly hazard: DustHazard;
  readonly out: readonly number[];
  readonly not: readonly Operation[];
}

const opened = (input: DiagnoseInput): Result<Opened> => {
  const dust = input.lastCollected.trim() === '' ? null : assessDust(BUILT_IN_DUSTS, stated(input.lastCollected));
  if (dust?.refusal)
    return fail(failure('dust.refused', 'lastCollected', { what: dust.refusal.dust, instead: dust.refusal.instead }));
  const hazard = worst([input.hazard, ...(dust ? [dust.level] : [])]);
  const machine = machineOf(input.machine);
  if (!machine.ok) return machine;
  const { model, parameters } = machine.value;
  const sizes = collect([
    readQuantity(input.traits.selector ?? 0, 'length', 'traits.selector'),
    readQuantity(input.traits.nominalVolts, 'voltage', 'traits.nominalVolts'),
  ]);
  const evidence = collect(input.evidence.map((e, i) => at(`evidence.${i}`, evidenceOf(e, model))));
  const skipped = collect(input.skipped.map((t, i) => at(`skipped.${i}`, operationOf(t, model))));
  const baselines = collect(input.baselines.map((b, i) => at(`baselines.${i}`, baselineOf(b, model))));
  if (!sizes.ok || !evidence.ok || !skipped.ok || !baselines.ok)
    return fail(...[sizes, evidence, skipped, baselines].flatMap((r) => (r.ok ? [] : r.failures)));
  const [selector = 0, nominalVolts = 230] = sizes.value;
  const traits = {
    hasLamp: input.traits.lamp,
    hasBrush: input.traits.brush,
    selectorM: input.traits.selector === undefined ? null : selector,
    machineClass: input.traits.machineClass,
  };
  const faultSimulator = faultSimulatorOf({ model, parameters, state: AS_NEW });
  // Without baselines of its own the machine is known by typical figures only, and every reading counts for less.
  const subject = {
    faultSimulator,
    traits,
    hoseM: model.hoseBoreM,
    nominalVolts,
    calibrated: baselines.value.length > 0,
    baselines: Object.fromEntries(baselines.value),
  };
  const held = openCase(
    subject,
    hypothesesOf(faultPlaces(model, traits), { record: () => 1, complaint: complaintFactor(input.complaint, model) }),
  );
  const interventions = evidence.value.at(-1)?.interventions ?? UNTOUCHED;
  const said = evaluateCase(held, {
    complaint: input.complaint,
    hazard,
    state: input.state,
    interventions,
    evidence: evidence.value,
    skipped: skipped.value,
  });
  if (!said.ok) return said;
  return ok({
    held,
    said: said.value,
    hazard,
    out: interventions.out,
    not: [...evidence.value.map((e) => e.operation), ...skipped.value],
  });
};

const proposed = (p: Proposal, { held }: Opened) => {
  const { operation } = p;
  const expected = expectedOf(operation, [], { interventions: UNTOUCHED, subject: held.subject });
  return {
    test: operation.kind,
    stage:
      'position' in operation
        ? (held.subject.faultSimulator.suspect.model.stages[operation.position]?.name ?? null)
        : null,
    place: 'place' in operation ? operation.place : null,
    bits: p.bits,
    minutes: p.minutes,
    outcomes: expected.kind === 'words' ? Object.keys(expected.words) : ['a reading'],
  };
};

const MOST_FAULTS = 8;

/** `calc diagnose`: machine and evidence in, what is wrong with which probability, and what to do next out. */
export const diagnose = (input: DiagnoseInput): Result<DiagnoseOutput> => {
  const o = opened(input);
  if (!o.ok) return o;
  const { held, said } = o.value;
  const { posterior, advice } = said;
  const { stages } = held.subject.faultSimulator.suspect.model;
  return ok({
    faults: posterior.faults.slice(0, MOST_FAULTS).map((f) => ({
      fault: f.kind,
      stage: stages[f.position]?.name ?? '',
      probability: f.probability,
      severity: f.severity,
    })),
    stages: stages.map((s, i) => ({ stage: s.name, probability: posterior.stages[i] ?? 0 })),
    nothingWrong: posterior.nothing,
    twoFaults: posterior.pair,
    contradiction: posterior.contradiction ? [...posterior.contradiction] : null,
    back: said.back,
    advice: advice.kind,
    repair: advice.kind === 'repair' ? advice.repair.kind : null,
    doubtMinutes: advice.doubtMinutes,
    next: advice.kind === 'test' ? proposed(advice.proposal, o.value) : null,
  });
};

const MOST_OTHERS = 6;

/** `calc next-test`: the same in, the next test of a school and the best of the others out. */
export const nextTest = (input: DiagnoseInput): Result<NextTestOutput> => {
  const o = opened(input);
  if (!o.ok) return o;
  const { held, said, not, hazard, out } = o.value;
  const wanted =
    input.school === 'best'
      ? said.advice.kind === 'test'
        ? said.advice.proposal.operation
        : null
      : nextOfSchool(input.school, {
          model: held.subject.faultSimulator.suspect.model,
          traits: held.subject.traits,
          level: hazard,
          out,
          not,
        });
  const next = wanted ? (said.ranked.find((p) => sameOperation(p.operation, wanted)) ?? null) : null;
  return ok({
    school: input.school,
    next: next ? proposed(next, o.value) : null,
    others: said.ranked
      .filter((p) => p !== next)
      .slice(0, MOST_OTHERS)
      .map((p) => proposed(p, o.value)),
  });
};
