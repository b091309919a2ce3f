import type { DiagnoseInput, DiagnoseOutput, NextTestOutput, TestInput } from '@/contracts/calc/diagnose';
import { AS_NEW } from '@/core/calibrate/today';
import { adviceOf } from '@/core/diagnose/closing';
import { faultPlaces } from '@/core/diagnose/fault';
import { hazardGate } from '@/core/diagnose/hazard-gate';
import { hypothesesOf } from '@/core/diagnose/hypotheses';
import { type Asking, nextOf, type Proposal, proposals } from '@/core/diagnose/next-test';
import type { Operation } from '@/core/diagnose/operation';
import { expectedOf, type Outcome } from '@/core/diagnose/outcome';
import { type Case, type Evidence, openCase, type Posterior, weigh } from '@/core/diagnose/posterior';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import type { MachineModel } from '@/core/path/machine-path';
import type { QuantityKind } from '@/core/units';
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

const QUANTITY: Partial<Record<Operation['kind'], QuantityKind>> = { flow: 'flow', sealed: 'pressure', stageDp: 'pressure', takeOut: 'flow', swap: 'flow', voltage: 'voltage', supply: 'pressure' };

const outcomeOf = (e: DiagnoseInput['evidence'][number], kind: Operation['kind']): Result<Outcome> => {
  const quantity = QUANTITY[kind];
  if (quantity === undefined) return e.word === undefined ? fail(failure('detail.word', 'word')) : ok({ kind: 'word', word: e.word });
  if (e.value === undefined) return fail(failure('readings.none', 'value'));
  const read = readQuantity(e.value, quantity, 'value');
  return read.ok ? ok({ kind: 'number', valueSi: quantity === 'pressure' ? Math.abs(read.value) : read.value }) : read;
};

const evidenceOf = (e: DiagnoseInput['evidence'][number], model: MachineModel): Result<Evidence> => {
  const operation = at('test', operationOf(e.test, model));
  if (!operation.ok) return operation;
  const places = (list: readonly string[], path: string) => collect(list.map((s, i) => at(`${path}.${i}`, positionOf(model, s))));
  const [outcome, out, fresh] = [outcomeOf(e, operation.value.kind), places(e.out, 'out'), places(e.fresh, 'fresh')];
  if (!outcome.ok || !out.ok || !fresh.ok) return fail(...[outcome, out, fresh].flatMap((r) => (r.ok ? [] : r.failures)));
  return ok({ operation: operation.value, outcome: outcome.value, out: out.value, fresh: fresh.value, struck: e.struck });
};

interface Opened {
  readonly held: Case;
  readonly posterior: Posterior;
  readonly asking: Asking;
}

const opened = (input: DiagnoseInput): Result<Opened> => {
  const gate = hazardGate(input.lastCollected);
  if (!gate.ok) return gate;
  const machine = machineOf(input.machine);
  if (!machine.ok) return machine;
  const { model, parameters } = machine.value;
  const sizes = collect([readQuantity(input.traits.selector ?? 0, 'length', 'traits.selector'), readQuantity(input.traits.nominalVolts, 'voltage', 'traits.nominalVolts')]);
  const evidence = collect(input.evidence.map((e, i) => at(`evidence.${i}`, evidenceOf(e, model))));
  const skipped = collect(input.skipped.map((t, i) => at(`skipped.${i}`, operationOf(t, model))));
  if (!sizes.ok || !evidence.ok || !skipped.ok) return fail(...[sizes, evidence, skipped].flatMap((r) => (r.ok ? [] : r.failures)));
  const [selector = 0, nominalVolts = 230] = sizes.value;
  const traits = { hasLamp: input.traits.lamp, hasBrush: input.traits.brush, selectorM: input.traits.selector === undefined ? null : selector };
  const held = openCase({ suspect: { model, parameters, state: AS_NEW }, traits, hoseM: model.hoseBoreM, nominalVolts }, hypothesesOf(faultPlaces(model, traits)));
  const posterior = weigh(held, evidence.value);
  if (!posterior.ok) return posterior;
  const { out, fresh } = evidence.value.at(-1) ?? { out: [], fresh: [] };
  // After a new part the same test is a new question: only what was asked of the machine as it stands is done.
  const asked = evidence.value.filter((e) => !e.struck && e.fresh.join() === fresh.join());
  const not = [...asked.map((e) => e.operation), ...skipped.value];
  return ok({ held, posterior: posterior.value, asking: { hazard: input.hazard, state: input.state, out, fresh, not } });
};

const proposed = (p: Proposal, { held }: Opened) => {
  const { operation } = p;
  const expected = expectedOf(operation, held.bench.sound, held.bench);
  return {
    test: operation.kind,
    stage: 'position' in operation ? (held.bench.suspect.model.stages[operation.position]?.name ?? null) : null,
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
  const { held, posterior, asking } = o.value;
  const { stages } = held.bench.suspect.model;
  const best = proposals(held, posterior, asking)[0] ?? null;
  const advice = adviceOf({ posterior, cured: [], best });
  return ok({
    faults: posterior.faults.slice(0, MOST_FAULTS).map((f) => ({ fault: f.kind, stage: stages[f.position]?.name ?? '', probability: f.probability, severity: f.severity })),
    stages: stages.map((s, i) => ({ stage: s.name, probability: posterior.stages[i] ?? 0 })),
    nothingWrong: posterior.nothing,
    twoFaults: posterior.pair,
    contradiction: posterior.contradiction ? [...posterior.contradiction] : null,
    advice: advice.kind,
    doubtMinutes: advice.doubtMinutes,
    next: best ? proposed(best, o.value) : null,
  });
};

const MOST_OTHERS = 6;

/** `calc next-test`: the same in, the next test of a school and the best of the others out. */
export const nextTest = (input: DiagnoseInput): Result<NextTestOutput> => {
  const o = opened(input);
  if (!o.ok) return o;
  const { held, posterior, asking } = o.value;
  const ranked = proposals(held, posterior, asking);
  const wanted = nextOf(input.school, held, { posterior, asking });
  const next = wanted ? (ranked.find((p) => JSON.stringify(p.operation) === JSON.stringify(wanted)) ?? null) : null;
  return ok({ school: input.school, next: next ? proposed(next, o.value) : null, others: ranked.filter((p) => p !== next).slice(0, MOST_OTHERS).map((p) => proposed(p, o.value)) });
};
