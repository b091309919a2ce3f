import { CircleAlert } from 'lucide-react';
import type { Problem } from '@/messages/failures';

/** The sentences of one field, right under it. Fields refer to it by `aria-describedby`. */
export const FieldProblems = ({ id, problems }: { id: string; problems: readonly Problem[] }) =>
  problems.length === 0 ? null : (
    <div id={id} role="alert" className="tone-stop mt-1 flex gap-1.5 text-sm leading-snug">
      <CircleAlert size={16} aria-hidden="true" className="mt-0.5 shrink-0" />
      <div>
        {problems.map((p) => (
          <p key={`${p.code}${p.path}`}>
            <strong>{p.sentence}</strong> {p.hint}
          </p>
        ))}
      </div>
    </div>
  );

/** The problems of a field, or of a path below it. */
export const problemsAt = (problems: readonly Problem[], path: string): readonly Problem[] =>
  problems.filter((p) => p.path === path || p.path.startsWith(`${path}.`));
