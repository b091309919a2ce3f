import type { FindReply, FindRequest } from '@/contracts/find';
import { caseOfSetup } from '@/core/diagnose/case-setup';
import { caseFindings } from '@/core/diagnose/case-findings';
import { warm } from '@/core/diagnose/prediction-cache';
import type { Case } from '@/core/diagnose/posterior';
import { failure } from '@/core/failure/failure';

export const openHeld = ({ setup, complaint, words }: Extract<FindRequest, { ask: 'open' }>): Case =>
  caseOfSetup(setup, { complaint, words });

/** Plain arrays, for the message to the page. */
const asJson = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_, v: unknown) => (v instanceof Float64Array ? [...v] : v)));

/** The worker's answer: the findings of the case, with progress on the way. */
export const answerFind = (
  held: Case | null,
  { id, progress, school }: Extract<FindRequest, { ask: 'evaluate' }>,
  tell: (reply: FindReply) => void,
): FindReply => {
  if (!held) return { kind: 'failed', id, failures: [failure('path.empty')] };
  const findings = caseFindings({ c: held, progress, school }, (share) => tell({ kind: 'progress', id, share }));
  if (!findings.ok)
    return { kind: 'failed', id, failures: findings.failures.map((f) => ({ ...f, facts: { ...f.facts } })) };
  return { kind: 'found', id, findings: asJson(findings.value) as Extract<FindReply, { kind: 'found' }>['findings'] };
};

/** Computes the possible results of the proposed test in advance. */
export const workAhead = (
  held: Case | null,
  { progress }: Extract<FindRequest, { ask: 'evaluate' }>,
  reply: FindReply,
): void => {
  if (!held || reply.kind !== 'found') return;
  const { advice, schoolTest } = reply.findings;
  for (const test of [schoolTest, advice.kind === 'test' ? advice.test : null])
    if (test) warm(held, test.operation, progress.interventions);
};
