import { ok, type Result } from '../failure/failure';
import type { Advice } from './closing';
import { evaluateCase, type Progress } from './evaluate-case';
import { expectedOf } from './expected';
import { nextOfSchool, type Proposal, type School } from './next-test';
import { type Operation, OPERATION_FACTS, operationKey, priceOf, sameOperation } from './operation';
import type { Outcome } from './outcome';
import { type Case, type FaultProbability, weightOfEvidence, type Posterior, weigh } from './posterior';
import { curedBy } from './repair';
import { UNTOUCHED } from './signature';

/** A cause with the pieces of evidence that speak most for and against it, by index. */
export interface PresentedCause extends FaultProbability {
  readonly speaksFor: readonly number[];
  readonly speaksAgainst: readonly number[];
}

/** A proposed test with its expected readings. */
export interface PresentedTest extends Proposal {
  /** 0 none to 3 high. */
  readonly exposure: number;
  /** Its reading on the sound machine, SI; null for words. */
  readonly soundSi: number | null;
  /** Words it may give; empty for a reading. */
  readonly words: readonly string[];
}

/** The effect of an outcome on the likeliest cause. */
export interface Meaning {
  readonly outcome: Outcome;
  readonly top: FaultProbability | null;
}

/** Everything a screen shows of the present case. Plain data. */
export interface CaseFindings {
  readonly causes: readonly PresentedCause[];
  readonly stages: readonly number[];
  readonly nothing: number;
  readonly pair: number;
  readonly contradiction: readonly [number, number] | null;
  readonly back: boolean;
  /** Repairs in a row that changed nothing. */
  readonly inVain: number;
  readonly advice:
    | Exclude<Advice, { kind: 'test' }>
    | { readonly kind: 'test'; readonly test: PresentedTest; readonly doubtMinutes: number };
  /** The next test of the chosen school, where it differs from the advice; null where the school has none left. */
  readonly schoolTest: PresentedTest | null;
  readonly others: readonly PresentedTest[];
  readonly meanings: readonly Meaning[];
}

const CAUSES_SHOWN = 6;
/** A piece of evidence that moves the odds by less than this, in nats, is not named. */
const SPEAKS = 0.35;
const NAMED = 3;
/** Share of the work that is done when the case is weighed; the rest is what each outcome would mean. */
const WEIGHED_AT = 0.8;

const presentCause = (
  { c, progress, posterior }: { readonly c: Case; readonly progress: Progress; readonly posterior: Posterior },
  cause: FaultProbability,
): PresentedCause => {
  const weights = progress.evidence.flatMap((evidence, index) =>
    evidence.struck ? [] : [{ index, by: weightOfEvidence(c, posterior, { evidence, cause }) }],
  );
  const strongest = (sign: 1 | -1) =>
    weights
      .filter((l) => sign * l.by > SPEAKS)
      .sort((a, b) => sign * (b.by - a.by))
      .slice(0, NAMED)
      .map((l) => l.index);
  return { ...cause, speaksFor: strongest(1), speaksAgainst: strongest(-1) };
};

export const presentTest = (c: Case, proposal: Proposal): PresentedTest => {
  const expected = expectedOf(proposal.operation, [], { interventions: UNTOUCHED, subject: c.subject });
  return {
    ...proposal,
    exposure: OPERATION_FACTS[proposal.operation.kind].exposure,
    soundSi: expected.kind === 'number' ? expected.mean : null,
    words: expected.kind === 'words' ? Object.keys(expected.words) : [],
  };
};

/** A reading as it should be, and one clearly off it: short, or for a pressure across a stage several times as high. */
const OFF = { short: 0.55, high: 6 } as const;

const outcomesOf = (test: PresentedTest): readonly Outcome[] =>
  test.soundSi === null
    ? test.words.map((word) => ({ kind: 'word', word }))
    : [
        { kind: 'number', valueSi: test.soundSi },
        { kind: 'number', valueSi: (test.operation.kind === 'stageDp' ? OFF.high : OFF.short) * test.soundSi },
      ];

/** Probability of a fault that nothing has taken away yet, at each stage. */
const suspected = (c: Case, { interventions }: Progress, { weights }: Posterior): readonly number[] => {
  const stages = c.subject.faultSimulator.suspect.model.stages.map(() => 0);
  c.hypotheses.forEach(({ faults }, i) => {
    const left = new Set(faults.filter((f) => !curedBy(interventions.repairs, f)).map((f) => f.position));
    for (const position of left) stages[position] = (stages[position] ?? 0) + (weights[i] ?? 0);
  });
  return stages;
};

/** What each outcome of a test would make of the causes. */
export const meaningsOf = (c: Case, progress: Progress, test: PresentedTest): readonly Meaning[] =>
  outcomesOf(test).map((outcome) => {
    const weighed = weigh(c, [
      ...progress.evidence,
      { operation: test.operation, outcome, interventions: progress.interventions, struck: false },
    ]);
    return {
      outcome,
      top: weighed.ok ? (weighed.value.faults.find((f) => !curedBy(progress.interventions.repairs, f)) ?? null) : null,
    };
  });

export interface Asked {
  readonly c: Case;
  readonly progress: Progress;
  readonly school: School;
}

const schoolOperation = ({ c, progress, school }: Asked): Operation | null => {
  if (school === 'best') return null;
  const not = [...progress.evidence.filter((e) => !e.struck).map((e) => e.operation), ...progress.skipped];
  return nextOfSchool(school, {
    model: c.subject.faultSimulator.suspect.model,
    traits: c.subject.traits,
    level: progress.hazard,
    out: progress.interventions.out,
    not,
  });
};

/** Weighs a case and puts it in the form a screen tells it. Errors as `evaluateCase`. */
export const caseFindings = (
  asked: Asked,
  onProgress: (share: number) => void = () => undefined,
): Result<CaseFindings> => {
  const { c, progress } = asked;
  const said = evaluateCase(c, progress, (share) => onProgress(WEIGHED_AT * share));
  if (!said.ok) return said;
  const { posterior, advice, ranked, back, inVain } = said.value;
  const of = (operation: Operation): PresentedTest =>
    presentTest(
      c,
      ranked.find((p) => sameOperation(p.operation, operation)) ?? {
        operation,
        bits: 0,
        saves: 0,
        minutes: priceOf(operation, progress),
      },
    );
  const wanted = schoolOperation(asked);
  const test = advice.kind === 'test' ? presentTest(c, advice.proposal) : null;
  const schoolTest = wanted ? of(wanted) : null;
  const shown = schoolTest ?? test;
  const taken = new Set([test, schoolTest].flatMap((t) => (t ? [operationKey(t.operation)] : [])));
  const findings: CaseFindings = {
    causes: posterior.faults.slice(0, CAUSES_SHOWN).map((f) => presentCause({ c, progress, posterior }, f)),
    stages: suspected(c, progress, posterior),
    nothing: posterior.nothing,
    pair: posterior.pair,
    contradiction: posterior.contradiction,
    back,
    inVain,
    advice:
      advice.kind === 'test'
        ? { kind: 'test', test: test ?? of(advice.proposal.operation), doubtMinutes: advice.doubtMinutes }
        : advice,
    schoolTest,
    others: ranked.filter((p) => !taken.has(operationKey(p.operation))).map((p) => presentTest(c, p)),
    meanings: shown ? meaningsOf(c, progress, shown) : [],
  };
  onProgress(1);
  return ok(findings);
};
