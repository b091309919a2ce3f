import { useState } from 'react';
import type { SheetKind } from '@/core/sheet/fields';
import type { Problem } from '@/messages/failures';
import { FieldProblems } from '@/ui/problems';
import { usePostOnce } from '@/ui/use-post-once';

export interface RecentSheet {
  readonly id: number;
  readonly kind: string;
  readonly name: string;
  readonly rows: number;
  readonly at: string;
  readonly by: string;
  readonly undone: boolean;
}

/** Recent imports, each with an undo until later records use it. */
export const Recent = ({ sheets, by }: { readonly sheets: readonly RecentSheet[]; readonly by: string }) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [asked, setAsked] = useState<number | null>(null);
  const post = usePostOnce();
  const undo = async (id: number) => {
    const posted = await post('/api/sheets/undo', { by: by.trim().toUpperCase(), id });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    setAsked(null);
    if (posted.ok) window.location.reload();
  };
  if (sheets.length === 0) return null;
  return (
    <section aria-labelledby="sheet-recent" className="mt-8">
      <h2 id="sheet-recent" className="border-base-content/50 border-b-2 text-xl font-bold">
        Came in last
      </h2>
      <FieldProblems id="undo-problems" problems={problems} />
      <ul className="divide-base-300 divide-y">
        {sheets.map((s) => (
          <li key={s.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
            <span className="dial">{s.at.slice(0, 10)}</span>
            <span className="min-w-0 flex-1 break-words">
              <strong>
                {s.rows} rows of {s.kind as SheetKind}
              </strong>{' '}
              <span className="soft">
                {s.name}, {s.by}
              </span>
            </span>
            {s.undone ? (
              <span className="soft">undone</span>
            ) : asked === s.id ? (
              <button type="button" className="go" disabled={by.trim() === ''} onClick={() => void undo(s.id)}>
                {by.trim() === '' ? 'Enter your initials above' : `Yes, undo all ${s.rows} rows`}
              </button>
            ) : (
              <button type="button" className="choice" onClick={() => setAsked(s.id)}>
                Undo
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
};
