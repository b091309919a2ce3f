import { shortParts, type waysOut } from '@/core/plan/explain';
import type { PlanProblem } from '@/core/plan/problem';
import { sayShortPart, sayWayOut } from '@/messages/plan';

interface CannotProps {
  readonly problem: PlanProblem;
  readonly ways: ReturnType<typeof waysOut>;
  readonly words: Parameters<typeof sayWayOut>[1];
}

/** Tasks that cannot be done: a part that many of them need is named once. */
export const CannotBeDone = ({ problem, ways, words }: CannotProps) =>
  ways.length > 0 && (
    <ul className="tone-stop mt-2 text-sm font-semibold">
      {shortParts(problem, ways).map((short) => (
        <li key={short.part}>
          {sayShortPart(short, words)}{' '}
          <a className="underline" href="/stock">
            Stock
          </a>
        </li>
      ))}
      {ways
        .filter((w) => w.kind !== 'part')
        .map((w) => (
          <li key={w.task}>{sayWayOut(w, words)}</li>
        ))}
    </ul>
  );
