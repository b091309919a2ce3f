import { type ReactNode, useState } from 'react';
import type { Problem } from '@/messages/failures';
import { setChoice } from './cookies';
import { FieldProblems } from './problems';
import { InitialsField } from './text-fields';
import { usePostOnce } from './use-post-once';

export interface Signed {
  readonly by: string;
  readonly setBy: (by: string) => void;
  readonly problems: readonly Problem[];
  readonly save: (url: string, body: object) => Promise<void>;
}

/** Who signs a form, and its sending: once, with the sentences of a refusal; `done` follows once it is on record. */
export const useSigned = (known: string, done: () => void): Signed => {
  const [by, setBy] = useState(known);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const save = async (url: string, body: object) => {
    const posted = await post(url, { by, ...body });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (!posted.ok) return;
    setChoice('mw_by', by.trim().toUpperCase());
    done();
  };
  return { by, setBy, problems, save };
};

/** The obstacle to saving a form: first its own reason, then missing initials. */
export const neededOr = (own: string, by: string): string =>
  own !== '' ? own : by.trim() === '' ? 'Your initials are needed.' : '';

interface SaveRowProps {
  readonly id: string;
  readonly signed: Signed;
  /** The missing input; '' when complete. */
  readonly needed: string;
  readonly children: ReactNode;
}

/** The foot of a form: the refusal, the initials, and the button with its missing input. */
export const SaveRow = ({ id, signed, needed, children }: SaveRowProps) => (
  <>
    <FieldProblems id={id} problems={signed.problems} />
    <div className="flex flex-wrap items-end gap-2">
      <InitialsField value={signed.by} onValue={signed.setBy} />
      <button className="go" disabled={needed !== ''}>
        {children}
      </button>
      {needed !== '' && <p className="soft text-sm">{needed}</p>}
    </div>
  </>
);

interface RetiredProps {
  readonly on: boolean;
  readonly onTick: (on: boolean) => void;
  readonly children: ReactNode;
}

/** Nothing with a history is deleted: it is retired. */
export const RetiredTick = ({ on, onTick, children }: RetiredProps) => (
  <label className="flex min-h-11 items-center gap-2">
    <input type="checkbox" className="checkbox" checked={on} onChange={(e) => onTick(e.target.checked)} />
    <span>{children}</span>
  </label>
);
