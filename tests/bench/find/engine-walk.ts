import { complaintFactor } from '@/core/diagnose/complaint';
import { evaluateCase, type Progress } from '@/core/diagnose/evaluate-case';
import { faultPlaces } from '@/core/diagnose/fault';
import { hypothesesOf } from '@/core/diagnose/hypotheses';
import { type Operation, OPERATION_FACTS, type TestState } from '@/core/diagnose/operation';
import { openCase, type Case, type Evidence } from '@/core/diagnose/posterior';
import { cures, leavesOpen, type Repair } from '@/core/diagnose/repair';
import { recordFactor } from '@/core/diagnose/record-prior';
import { faultSimulatorOf, UNTOUCHED, type Interventions } from '@/core/diagnose/signature';
import { priceOf } from '@/core/diagnose/operation';
import { CLEAN_STATE } from '../../support/machines';
import type { WalkCase } from './walk-case';

/** How one case went, in one school. */
export interface Walk {
  /** Tests, and repairs that cured nothing. */
  readonly price: number;
  /** Repairs that did. */
  readonly needed: number;
  readonly tests: number;
  readonly repairs: readonly Repair[];
  readonly firstRepair: Repair | null;
  readonly escalated: boolean;
  /** Probability of the top fault at every step, and whether it was one of the true ones. */
  readonly sure: readonly (readonly [probability: number, right: boolean])[];
  /** Places of the true faults in the order of the posterior at the end. */
  readonly ranks: readonly number[];
  /** The top fault when the first repair was made, or at the end. */
  readonly first: { readonly exact: boolean; readonly stage: boolean };
  readonly trace: readonly string[];
  /** Milliseconds of each consultation, the opening apart. */
  readonly ms: readonly number[];
  readonly openMs: number;
}

export const caseOf = (c: WalkCase): Case => {
  const { model, parameters, calibrated, baselines } = c.known;
  const faultSimulator = faultSimulatorOf({ model, parameters, state: CLEAN_STATE });
  const [said, recorded] = [
    complaintFactor(c.complaint, model),
    recordFactor(c.record, (i) => model.stages[i]?.spec.air.form === 'medium'),
  ];
  const places = faultPlaces(model, c.traits);
  return openCase(
    { faultSimulator, traits: c.traits, hoseM: model.hoseBoreM, nominalVolts: 230, calibrated, baselines },
    hypothesesOf(places, { record: recorded, complaint: said }),
  );
};

const MOST_STEPS = 60;

const shown = (c: WalkCase, op: Operation) =>
  `${op.kind}${'place' in op ? ` ${op.place}` : ''}${'position' in op ? ` ${c.known.model.stages[op.position]?.kind ?? ''}` : ''}`;

/** Walks a case by the engine's own advice. */
export const engineWalk = (c: WalkCase): Walk => {
  const opened = performance.now();
  const held = caseOf(c);
  let [price, needed, tests, state] = [0, 0, 0, 'off' as TestState];
  let interventions: Interventions = UNTOUCHED;
  let evidence: readonly Evidence[] = [];
  let escalated = false;
  let first: Walk['first'] | null = null;
  const repairs: Repair[] = [];
  const sure: (readonly [number, boolean])[] = [];
  const trace: string[] = [];
  const ms: number[] = [];
  const isTrue = (f: { kind: string; position: number } | undefined) =>
    f !== undefined && c.faults.some((t) => t.kind === f.kind && t.position === f.position);
  const nothingTrue = c.faults.length === 0;
  let openMs = 0;
  let last = null as ReturnType<typeof evaluateCase> | null;
  for (let i = 0; i < MOST_STEPS; i += 1) {
    const progress: Progress = {
      complaint: c.complaint,
      hazard: c.hazard,
      state,
      interventions,
      evidence,
      skipped: [],
    };
    const began = performance.now();
    last = evaluateCase(held, progress);
    if (!last.ok) throw new Error(last.failures.map((f) => f.code).join());
    if (i === 0) openMs = performance.now() - opened;
    else ms.push(performance.now() - began);
    const { posterior, advice } = last.value;
    const [top] = posterior.faults;
    if (repairs.length === 0) sure.push([top?.probability ?? 0, isTrue(top)]);
    if (advice.kind === 'close' || advice.kind === 'escalate') {
      escalated = advice.kind === 'escalate';
      first ??= nothingTrue
        ? { exact: (top?.probability ?? 0) < 0.5, stage: true }
        : { exact: isTrue(top), stage: c.faults.some((t) => t.position === top?.position) };
      trace.push(
        `${advice.kind} ${posterior.faults
          .slice(0, 3)
          .map((f) => `${f.kind} ${c.known.model.stages[f.position]?.kind ?? ''} ${f.probability.toFixed(2)}`)
          .join(', ')}`,
      );
      break;
    }
    if (advice.kind === 'test') {
      const { operation } = advice.proposal;
      price += priceOf(operation, { hazard: c.hazard, state });
      tests += 1;
      state = OPERATION_FACTS[operation.kind].state;
      const outcome = c.watch(operation, interventions);
      evidence = [...evidence, { operation, outcome, interventions, struck: false }];
      trace.push(
        `${shown(c, operation)} = ${outcome.kind === 'word' ? outcome.word : outcome.valueSi.toPrecision(3)}  [${posterior.faults
          .slice(0, 2)
          .map((f) => `${f.kind} ${c.known.model.stages[f.position]?.kind ?? ''} ${f.probability.toFixed(2)}`)
          .join(', ')}]`,
      );
      continue;
    }
    if (advice.kind === 'fitFirst') throw new Error('a made-up machine lacks its essential filter');
    const { fault, repair } = advice;
    first ??= { exact: isTrue(fault), stage: c.faults.some((t) => t.position === fault.position) };
    const needful = c.left(repairs).some((f) => cures(repair, f));
    if (needful) needed += c.repairMinutes(repair);
    else price += c.repairMinutes(repair);
    const seen: Operation = { kind: 'found', fault: fault.kind, position: fault.position };
    const outcome = c.watch(seen, interventions);
    evidence = [...evidence, { operation: seen, outcome, interventions, struck: false }];
    repairs.push(repair);
    interventions = { ...interventions, repairs: [...repairs] };
    state = leavesOpen(repair) ? 'open' : 'off';
    trace.push(
      `REPAIR ${repair.kind} ${c.known.model.stages[repair.position]?.kind ?? ''} for ${fault.kind} ${fault.probability.toFixed(2)} ${needful ? '' : 'NEEDLESS'} found ${outcome.kind === 'word' ? outcome.word : ''}`,
    );
  }
  const faults = last?.ok ? last.value.posterior.faults : [];
  return {
    price,
    needed,
    tests,
    repairs,
    firstRepair: repairs[0] ?? null,
    escalated,
    sure,
    ranks: c.faults.map((t) => faults.findIndex((f) => f.kind === t.kind && f.position === t.position)),
    first: first ?? { exact: false, stage: false },
    trace,
    ms,
    openMs,
  };
};
