import { explainPlan } from '@/core/plan/explain';
import type { PlanDays } from '@/core/plan/problem';
import type { PlanInput } from '@/core/plan/yard-problem';
import { sayReason } from '@/messages/plan';
import { capital } from '@/messages/words';
import type { ChipProps } from './Lanes';
import { dayText } from './openings';

interface DetailProps extends Omit<ChipProps, 'chosen' | 'choose'> {
  readonly days: PlanDays;
  readonly free: () => void;
  readonly words: Parameters<typeof sayReason>[1];
  readonly input: PlanInput;
}

/** One opening: its work, and the reason for its day. */
export const Detail = ({ opening, made, today, days, shift, free, words, input }: DetailProps) => {
  const reasons = explainPlan(made.problem, days);
  const movable = opening.tasks.some((i) => made.stages[i]?.turn === 1);
  return (
    <section className="panel p-3" aria-labelledby="opening">
      <h2 id="opening" className="text-lg leading-tight font-bold">
        {opening.tag}, {dayText(today, opening.day)}: {opening.minutes} minutes, one opening
      </h2>
      <ul>
        {opening.tasks.map((i) => {
          const stage = made.stages[i];
          const reason = reasons[i];
          const part = stage?.part === null || !stage ? null : input.parts[stage.part];
          return stage ? (
            <li key={made.problem.tasks[i]?.id} className="border-base-300 border-b py-1 text-sm">
              <strong>{capital(stage.name)}</strong>
              {part ? ` · ${part.name}, bin ${part.bin}` : ''}
              {reason && <span className="soft block">{sayReason(reason, words)}</span>}
            </li>
          ) : null;
        })}
      </ul>
      {!movable && (
        <p className="soft mt-2 text-sm">
          Each of these follows the change before it, and moves when that one is made.
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-1">
        {movable && (
          <>
            <button type="button" className="choice font-semibold" onClick={() => shift(-1)}>
              A day sooner
            </button>
            <button type="button" className="choice font-semibold" onClick={() => shift(1)}>
              A day later
            </button>
          </>
        )}
        {opening.locked && (
          <button type="button" className="choice font-semibold" onClick={free}>
            Unfix
          </button>
        )}
        <a
          className="choice inline-flex items-center font-semibold"
          href={`/m/${encodeURIComponent(opening.tag)}/job?stage=${made.stages[opening.tasks[0] ?? -1]?.stageId ?? ''}`}
        >
          Go to the change
        </a>
      </div>
    </section>
  );
};
