import { stockByDay } from '@/core/plan/cost';
import type { PlanDays } from '@/core/plan/problem';
import type { YardProblem } from '@/core/plan/yard-problem';

const leftWord = (left: number): string => (left < 0 ? `order ${-left}` : String(left));

/** Remaining stock of each part the plan uses, day by day; the scarcest first. */
export const StockLines = ({ made, days }: { readonly made: YardProblem; readonly days: PlanDays }) => {
  const horizon = made.problem.minutes.length;
  const lines = made.problem.parts
    .map((p, i) => ({
      part: p,
      line: stockByDay(made.problem, days, i),
      uses: made.problem.tasks.some((t) => (t.part ?? t.orders)?.index === i),
    }))
    .filter((l) => l.uses)
    .sort((a, b) => Math.min(...a.line) - Math.min(...b.line))
    .slice(0, 5);
  return (
    <div role="group" aria-label="Stock under the plan">
      {lines.map(({ part, line }) => {
        const shown = line.map((v) => Math.max(0, v));
        const top = Math.max(1, ...shown);
        const path = shown
          .map((v, day) => `${day === 0 ? 'M' : 'H'}${(100 * day) / horizon} V${20 - (18 * v) / top}`)
          .join(' ')
          .replace(/^M([\d.]+) V/, 'M$1 ');
        return (
          <div key={part.id} className="grid grid-cols-[6.5rem_minmax(0,1fr)] items-center">
            <span className="truncate pr-1 text-xs font-semibold">
              <span className="dial">{part.onHand}</span> →{' '}
              <span className={`dial ${(line.at(-1) ?? 0) <= 0 ? 'tone-stop' : ''}`}>{leftWord(line.at(-1) ?? 0)}</span>{' '}
              {part.id}
            </span>
            <svg
              viewBox="0 0 100 22"
              preserveAspectRatio="none"
              className="border-base-300 h-5 w-full border-b"
              aria-hidden="true"
            >
              <path
                d={`${path} H100`}
                fill="none"
                stroke="currentColor"
                strokeWidth="1.5"
                vectorEffect="non-scaling-stroke"
              />
            </svg>
          </div>
        );
      })}
    </div>
  );
};
