import type { PlanPageJson } from '@/contracts/plan';
import { sayMove } from '@/messages/plan-moves';

/** Moves that are shown at once; the others are one click away. */
const SHOWN = 4;

/** Promised days that moved within the last week, each with its reason. */
export const Moves = ({ moves }: Pick<PlanPageJson, 'moves'>) =>
  moves.length > 0 && (
    <section aria-labelledby="moves" className="mt-2 text-sm">
      <h2 id="moves" className="caption">
        Moved in the last week
      </h2>
      <ul>
        {moves.slice(0, SHOWN).map((m) => (
          <li key={`${m.tag} ${m.stage} ${m.to}`}>{sayMove(m)}</li>
        ))}
      </ul>
      {moves.length > SHOWN && (
        <details>
          <summary className="min-h-11 cursor-pointer py-2 font-semibold">{moves.length - SHOWN} more</summary>
          <ul>
            {moves.slice(SHOWN).map((m) => (
              <li key={`${m.tag} ${m.stage} ${m.to}`}>{sayMove(m)}</li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
