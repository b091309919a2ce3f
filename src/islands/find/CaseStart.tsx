import { useEffect, useState } from 'react';
import { COMPLAINTS, type Complaint } from '@/core/diagnose/complaint';
import type { DustHazard } from '@/core/dust/level';
import { schoolAllowed, SCHOOLS, type School } from '@/core/diagnose/next-test';
import type { DustStatement } from '@/core/dust/assess';
import type { Dust } from '@/core/dust/dust';
import { lastStatement } from '@/core/dust/history';
import type { Machine } from '@/core/machine/machine';
import type { Problem } from '@/messages/failures';
import { COMPLAINT_WORDS, NO_TAKE_OUT, SCHOOL_WORDS } from '@/messages/find';
import { setChoice } from '@/ui/cookies';
import { DustQuestion, dustSaid, KEEP_REFUSAL } from '@/ui/dust/dust-question';
import { newClientId, postAction } from '@/ui/post-action';
import { FieldProblems, problemsAt } from '@/ui/problems';

interface CaseStartProps {
  readonly machine: Machine;
  readonly by: string;
  readonly ownDusts: readonly Dust[];
}

interface Entry {
  readonly complaint: Complaint | null;
  readonly words: string;
  readonly school: School;
  readonly by: string;
}

interface Part {
  readonly entry: Entry;
  readonly set: (over: Partial<Entry>) => void;
  readonly problems: readonly Problem[];
}

const ComplaintQuestion = ({ entry, set, problems }: Part) => (
  <fieldset className="min-w-0">
    <legend className="mb-1 font-bold">2. What is the complaint?</legend>
    <div className="grid grid-cols-2 gap-1 sm:grid-cols-3">
      {COMPLAINTS.map((c) => (
        <button
          key={c}
          type="button"
          className="choice"
          aria-pressed={entry.complaint === c}
          onClick={() => set({ complaint: c })}
        >
          <span className="block font-semibold">{COMPLAINT_WORDS[c][0]}</span>
          <span className="soft text-xs">{COMPLAINT_WORDS[c][1]}</span>
        </button>
      ))}
    </div>
    <FieldProblems id="complaint-problems" problems={problemsAt(problems, 'complaint')} />
    <label className="mt-1 block">
      <span className="caption">In their own words</span>
      <input
        className="field"
        value={entry.words}
        maxLength={300}
        onChange={(e) => set({ words: e.currentTarget.value })}
      />
    </label>
  </fieldset>
);

const SchoolQuestion = ({ entry, set, level }: Part & { readonly level: DustHazard }) => (
  <fieldset className="min-w-0">
    <legend className="mb-1 font-bold">3. Which order of tests?</legend>
    <div className="grid grid-cols-2 gap-1 sm:grid-cols-4">
      {SCHOOLS.map((s) => (
        <button
          key={s}
          type="button"
          className="choice disabled:opacity-50"
          disabled={!schoolAllowed(s, level)}
          aria-pressed={entry.school === s}
          onClick={() => set({ school: s })}
        >
          <span className="block font-semibold">{SCHOOL_WORDS[s][0]}</span>
          <span className="soft text-xs">{SCHOOL_WORDS[s][1]}</span>
        </button>
      ))}
    </div>
    {!schoolAllowed('takeOut', level) && (
      <p className="tone-open mt-1 text-sm font-semibold">
        {SCHOOL_WORDS.takeOut[0]}: {NO_TAKE_OUT}
      </p>
    )}
    <p className="soft mt-1 text-sm">Every order gives the same probabilities. You can change it at any time.</p>
  </fieldset>
);

/** The start of a case: the hazard first, then the complaint in one line. */
export const CaseStart = ({ machine, by, ownDusts }: CaseStartProps) => {
  const [entry, setEntry] = useState<Entry>({ complaint: null, words: '', school: 'best', by });
  const [dust, setDust] = useState<DustStatement>(() => lastStatement(machine.dust, machine.lastCollected));
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [sending, setSending] = useState(false);
  useEffect(() => {
    document.documentElement.dataset['find'] = 'ready';
  }, []);
  const set = (over: Partial<Entry>) => {
    setEntry((held) => ({ ...held, ...over }));
    setProblems([]);
  };
  const said = dustSaid({ statement: dust, dust: machine.dust, ownDusts });
  const start = async () => {
    setSending(true);
    const initials = entry.by.trim().toUpperCase();
    const posted = await postAction(`/api/machines/${encodeURIComponent(machine.tag)}/cases`, {
      clientId: newClientId(),
      ...entry,
      school: schoolAllowed(entry.school, said.level) ? entry.school : 'best',
      dust,
      by: initials,
    });
    setSending(false);
    if (!posted.ok) {
      setProblems(posted.problems);
      return;
    }
    setChoice('mw_by', initials);
    window.location.reload();
  };
  const part = { entry, set, problems };
  const shown = ['dust.text', 'dust.lowerBecause', 'complaint', 'by'];
  return (
    <div className="grid gap-4 py-3 lg:grid-cols-2">
      <div className="space-y-4">
        <DustQuestion
          legend="1. What has it been collecting?"
          statement={dust}
          set={(over) => {
            setDust((held) => ({ ...held, ...over }));
            setProblems([]);
          }}
          said={said}
          problems={problems}
        />
        <SchoolQuestion {...part} level={said.level} />
      </div>
      <div className="space-y-4">
        <ComplaintQuestion {...part} />
        <div className="flex items-end gap-2">
          <label className="block w-24 shrink-0">
            <span className="caption">Initials</span>
            <input
              className="field"
              value={entry.by}
              maxLength={12}
              autoComplete="off"
              onChange={(e) => set({ by: e.currentTarget.value })}
            />
          </label>
          <button
            type="button"
            className="go flex-1"
            disabled={sending || entry.complaint === null || said.own.toConfirm.length > 0}
            onClick={() => void start()}
          >
            {said.machine.standing.refusal ? KEEP_REFUSAL : sending ? 'Opening...' : 'Open the case'}
          </button>
        </div>
        <FieldProblems id="by-problems" problems={problemsAt(problems, 'by')} />
        {entry.complaint === null && (
          <p className="soft text-sm">Choose the complaint. The first test is the complaint reading, as found.</p>
        )}
        <FieldProblems id="case-problems" problems={problems.filter((p) => !shown.includes(p.path))} />
      </div>
    </div>
  );
};
