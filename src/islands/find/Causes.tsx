import { QUANTITY_OF } from '@/core/diagnose/operation';
import type { Fault } from '@/core/diagnose/fault';
import type { Evidence } from '@/core/diagnose/posterior';
import { curedBy } from '@/core/diagnose/repair';
import type { UnitSystem } from '@/core/units';
import { likelyWord, sayCause, sayOutcome } from '@/messages/find';
import { testTitle } from '@/messages/find-tests';
import { ToneMark } from '@/ui/tone-mark';
import type { BenchPart } from './parts';
import { sayProbability } from '@/messages/format';

const pieceText = (
  e: Evidence | undefined,
  p: { readonly stages: BenchPart['setup']['model']['stages']; readonly units: UnitSystem },
): string =>
  e
    ? `${testTitle(e.operation, p.stages)}: ${sayOutcome(e.operation, e.outcome, { kind: QUANTITY_OF[e.operation.kind], units: p.units })}`
    : '';

const LEAST_SHOWN = 0.03;

/** A cured cause is shown as found and repaired, not as a chance. */
const CURED_WORDS = {
  yes: 'Found and repaired',
  no: 'Repair done; this was not found',
  unseen: 'Taken care of by the repair',
} as const;

/** The finding when a cause was repaired; without a question nothing was seen. */
const foundOf = (record: BenchPart['record'], { kind, position }: Pick<Fault, 'kind' | 'position'>) =>
  record.events.reduce<keyof typeof CURED_WORDS>(
    (seen, { event }) =>
      event.kind === 'repaired' && event.fault.kind === kind && event.fault.position === position ? event.found : seen,
    'unseen',
  );

/** The likeliest causes as sentences, with what speaks for and against each. */
export const Causes = ({ findings, setup, state, units, record }: BenchPart) => {
  const { stages } = setup.model;
  const {
    evidence,
    interventions: { repairs },
  } = state.progress;
  const shown = findings.causes.filter((c) => c.probability >= LEAST_SHOWN);
  const list = (indexes: readonly number[]) => indexes.map((i) => pieceText(evidence[i], { stages, units })).join('; ');
  return (
    <section aria-labelledby="causes" className="min-w-0">
      <h3 id="causes" className="caption">
        Possible causes{record.events.length === 0 ? ', before any test' : ''}
      </h3>
      <ol>
        {shown.map((c) => (
          <li key={`${c.kind}${c.position}`} className="border-base-300 border-b py-2">
            <div className="flex items-baseline justify-between gap-3">
              <span className="leading-tight font-semibold">{sayCause(c, stages)}</span>
              {!curedBy(repairs, c) && (
                <span className="text-right whitespace-nowrap">
                  <span className="dial text-xl">{sayProbability(c.probability)}</span>
                  <span className="soft block text-xs">{likelyWord(c.probability)}</span>
                </span>
              )}
            </div>
            {curedBy(repairs, c) && <ToneMark tone="good" word={CURED_WORDS[foundOf(record, c)]} size={15} />}
            {c.speaksFor.length > 0 && (
              <p className="text-sm">
                <span className="tone-stop font-semibold">For it: </span>
                {list(c.speaksFor)}
              </p>
            )}
            {c.speaksAgainst.length > 0 && (
              <p className="text-sm">
                <span className="tone-good font-semibold">Against it: </span>
                {list(c.speaksAgainst)}
              </p>
            )}
          </li>
        ))}
      </ol>
      <p className="soft pt-1 text-sm">
        No fault: <span className="dial">{sayProbability(findings.nothing)}</span>. Two faults or more at once:{' '}
        <span className="dial">{sayProbability(findings.pair)}</span>.
      </p>
    </section>
  );
};

export const contradictionText = (
  findings: BenchPart['findings'],
  evidence: readonly Evidence[],
  p: { readonly stages: BenchPart['setup']['model']['stages']; readonly units: UnitSystem },
): string | null => {
  if (!findings.contradiction) return null;
  const [first, second] = findings.contradiction;
  return `These two cannot both be right: "${pieceText(evidence[first], p)}" and "${pieceText(evidence[second], p)}". Check the first again.`;
};
