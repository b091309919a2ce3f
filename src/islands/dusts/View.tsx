import { useEffect, useMemo, useState } from 'react';
import { type Dust, RULE_SETS, type RuleSet } from '@/core/dust/dust';
import { matchDusts } from '@/core/dust/match';
import { registerOf } from '@/core/dust/register';
import { normalised } from '@/core/dust/text';
import { RULE_SET_WORDS } from '@/messages/dust';
import type { Problem } from '@/messages/failures';
import { FieldProblems } from '@/ui/problems';
import { InitialsField } from '@/ui/text-fields';
import { usePostOnce } from '@/ui/use-post-once';
import { Entry } from './Entry';
import { BLANK, DustForm } from './Form';

interface RegisterProps {
  readonly ownDusts: readonly Dust[];
  readonly ruleSet: RuleSet;
  readonly by: string;
}

/** The country whose limits the site uses; where they differ both are shown, and the stricter applies. */
const Rules = ({ ruleSet, by }: { readonly ruleSet: RuleSet; readonly by: string }) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const choose = async (wanted: RuleSet) => {
    const posted = await post('/api/rule-set', { by: by.trim().toUpperCase(), ruleSet: wanted });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (posted.ok) window.location.reload();
  };
  return (
    <div>
      <div role="group" aria-label="Rules this site works to" className="flex flex-wrap items-center gap-1">
        <span className="font-semibold">Rules this site works to:</span>
        {RULE_SETS.map((r) => (
          <button
            key={r}
            type="button"
            className="choice px-4 font-semibold"
            aria-pressed={r === ruleSet}
            disabled={by.trim() === '' && r !== ruleSet}
            onClick={() => void choose(r)}
          >
            {RULE_SET_WORDS[r]}
          </button>
        ))}
        <span className="soft text-sm">
          {by.trim() === ''
            ? 'Enter your initials first.'
            : 'Where they differ both are shown, and the stricter one applies.'}
        </span>
      </div>
      <FieldProblems id="rule-problems" problems={problems} />
    </div>
  );
};

/** The register of dusts: found by what people type, each with what follows from it; the site's own beside what ships. */
export const Register = ({ ownDusts, ruleSet, by: first }: RegisterProps) => {
  const register = useMemo(() => registerOf(ownDusts), [ownDusts]);
  const [typed, setTyped] = useState('');
  const [editing, setEditing] = useState<Dust | null>(null);
  const [by, setBy] = useState(first);
  useEffect(() => {
    document.documentElement.dataset['dusts'] = 'ready';
  }, []);
  const { matches } = useMemo(() => matchDusts(register, typed), [register, typed]);
  const wanted = normalised(typed);
  const shown =
    wanted === ''
      ? register
      : register.filter((d) => matches.some((m) => m.key === d.key) || normalised(d.name).includes(wanted));
  return (
    <div className="space-y-3 py-2">
      <div className="flex flex-wrap items-end gap-2">
        <label className="block min-w-0 flex-1 basis-72">
          <span className="caption">What would somebody type?</span>
          <input
            className="field"
            value={typed}
            maxLength={120}
            autoComplete="off"
            placeholder="Bleimennige, ash veneer, concrete..."
            onChange={(e) => setTyped(e.currentTarget.value)}
          />
        </label>
        <button type="button" className="go" onClick={() => setEditing({ ...BLANK, name: typed })}>
          Add a dust
        </button>
      </div>
      <div className="flex flex-wrap items-end gap-4">
        {!editing && <InitialsField value={by} onValue={setBy} />}
        <Rules ruleSet={ruleSet} by={by} />
      </div>
      {editing && (
        <DustForm key={editing.key} first={editing} by={by} setBy={setBy} onDone={() => window.location.reload()} />
      )}
      {shown.length === 0 && (
        <p className="py-4 font-semibold">
          The register has no dust of that name. A machine that collects it is opened as contained until the questions
          what it is; or add it.
        </p>
      )}
      <ul className="divide-base-300 border-base-300 divide-y border-y">
        {shown.map((d) => (
          <Entry key={d.key} dust={d} ruleSet={ruleSet} onEdit={() => setEditing(d)} />
        ))}
      </ul>
    </div>
  );
};
