import type {
  CheckFindInput,
  CheckFindOutput,
  DustInput,
  DustOutput,
  IntegrityInput,
  IntegrityOutput,
} from '@/contracts/calc/dust';
import { traitsOf } from '@/core/diagnose/case-setup';
import { operationsOf } from '@/core/diagnose/next-test';
import { proveFinding } from '@/core/diagnose/prove-find';
import { notOffered } from '@/core/diagnose/within';
import { assessDust, type DustStatement, stated } from '@/core/dust/assess';
import { EQUIPMENT_OF, wasteOf } from '@/core/dust/equipment';
import { demandOf } from '@/core/for-work/demand';
import { aboutDust } from '@/core/for-work/question';
import { FORBIDDEN_WORDS } from '@/messages/work';
import { matchDusts } from '@/core/dust/match';
import { BUILT_IN_DUSTS, builtIn } from '@/core/dust/register';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { classLimit } from '@/core/machine/integrity';
import { judgeScreening } from '@/core/measure/penetration-ratio';
import {
  EQUIPMENT_WORDS,
  QUESTION_WORDS,
  sayDusts,
  sayLevel,
  sayLimit,
  sayNeededClass,
  sayRefusal,
} from '@/messages/dust';
import { sayScreening } from '@/messages/job';
import { readCount } from './counted';
import { templateMachine } from './template-machine';

/** `calc dust`: a text as somebody typed it in; what it is, how it is opened, who does it where it is refused, out. */
export const dustCalc = (input: DustInput): Result<DustOutput> => {
  const { text, confirmed, denied } = input;
  if (text.trim() === '') return fail(failure('text.missing', 'text'));
  const unknown = [...confirmed, ...denied].find((k) => builtIn(k) === null);
  if (unknown !== undefined) return fail(failure('dust.unknown', 'confirmed'));
  const statement: DustStatement = stated(text, {
    confirmed,
    denied,
    answers: input.answers,
  });
  const standing = assessDust(BUILT_IN_DUSTS, statement);
  const { refusal } = standing;
  return ok({
    matches: matchDusts(BUILT_IN_DUSTS, text).matches.flatMap((m) => {
      const dust = builtIn(m.key);
      return dust
        ? [
            {
              key: m.key,
              name: dust.name,
              words: m.words,
              chance: m.chance,
              family: dust.family,
              toConfirm: standing.toConfirm.some((x) => x.key === m.key),
            },
          ]
        : [];
    }),
    notUnderstood: [...standing.notUnderstood],
    level: standing.level,
    neededClass: standing.neededClass[input.ruleSet],
    bothRuleSets: standing.neededClass,
    refused: refusal ? { dust: refusal.dust, instead: refusal.instead, sentence: sayRefusal(refusal) } : null,
    questions: standing.questions.map((key) => ({ key, question: QUESTION_WORDS[key] })),
    // Refused dust is for licensed people: no equipment makes it allowed here.
    equipment: refusal ? [] : EQUIPMENT_OF[standing.level].map((e) => EQUIPMENT_WORDS[e]),
    limits: standing.dusts.flatMap((d) => d.limits.map(sayLimit)),
    forbidden: demandOf(aboutDust(statement), standing).forbidden.map((f) => FORBIDDEN_WORDS[f]),
    waste: [...wasteOf(standing)],
    sentences: [
      sayDusts(standing),
      ...(refusal ? [sayRefusal(refusal)] : [sayLevel(standing), sayNeededClass(standing)]),
      'Check your local limit and rules.',
    ],
  });
};

const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);

/** `calc integrity`: counts behind a filter and in the challenge in; the ratio with its limits, what it screens and what it could show, out. */
export const integrityCalc = (input: IntegrityInput): Result<IntegrityOutput> => {
  const [through, challenge] = [readCount(input.through, 'through'), readCount(input.challenge, 'challenge')];
  if (!through.ok || !challenge.ok) return fail(...[through, challenge].flatMap((r) => (r.ok ? [] : r.failures)));
  const v = judgeScreening(
    { through: through.value, challenge: challenge.value },
    { limit: classLimit(input.machineClass), ...(input.figure === undefined ? {} : { figure: input.figure }) },
  );
  return ok({
    ratio: finite(v.ratio),
    low: v.low,
    high: finite(v.high),
    bestSuchACountCouldShow: finite(v.best),
    classLimit: v.limit,
    figure: v.figure,
    outcome: v.outcome,
    provesLimit: v.provesLimit,
    method:
      'One-sided 95 % limits of the ratio of two Poisson rates: conditional binomial, Clopper-Pearson. A class is proven by a penetration test of a competent person only.',
    sentence: sayScreening(v),
  });
};

/** `calc check-find`: a machine and a level in; every order that finding could give, proven, or those that run it unfiltered, out. */
export const checkFind = (input: CheckFindInput): Result<CheckFindOutput> => {
  const { kind, machineClass, missing } = input.machine;
  const made = templateMachine({ kind, machineClass, hazard: input.level, lastCollected: '', missing });
  if (!made.ok) return made;
  const strange = missing.find((m) => !made.value.stages.some((s) => s.kind === m));
  if (strange !== undefined) return fail(failure('stage.unknown', 'machine.missing', { tag: 'This kind of machine' }));
  const traits = traitsOf(made.value);
  const model = { stages: made.value.stages, hoseBoreM: 0.036, hoseLengthM: 4 };
  const { states, looked, violations } = proveFinding({ model, traits, level: input.level });
  const name = (i: number) => made.value.stages[i]?.name ?? 'stage';
  const within = { stages: model.stages, traits, level: input.level, out: [] };
  return ok({
    proven: violations.length === 0,
    states,
    looked,
    violations: violations.map((v) => ({ school: v.school, after: [...v.after], test: v.test, out: v.out.map(name) })),
    takeOutOffered: operationsOf(model, traits).some((op) => op.kind === 'takeOut' && notOffered(op, within) === null),
  });
};
