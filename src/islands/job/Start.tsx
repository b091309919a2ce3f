import { ShieldAlert } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { DustHazard, Machine } from '@/core/machine/machine';
import { offersOf } from '@/core/procedure/choose';
import type { ChangeSchool } from '@/core/procedure/step';
import type { Problem } from '@/messages/failures';
import { PROCEDURE_WORDS, RUN_WORDS } from '@/messages/procedure';
import { capital, HAZARD_CAUTIONS, HAZARD_WORDS } from '@/messages/words';
import { setChoice } from '@/ui/cookies';
import { FieldProblems, problemsAt } from '@/ui/problems';
import { usePostOnce } from '@/ui/use-post-once';

interface StartProps {
  readonly machine: Machine;
  readonly by: string;
  readonly stageId: number | null;
}

const HAZARDS: readonly DustHazard[] = ['plain', 'controlled', 'contained'];

const offersAt = (machine: Machine, position: number) => {
  const stage = machine.stages[position];
  const offers = stage ? offersOf(machine, stage) : {};
  return (Object.keys(offers) as readonly ChangeSchool[]).map((school) => ({ school, id: offers[school] }));
};

/** The start of a guided change: the stage, the hazard, and the way the maker built it for. */
export const Start = ({ machine, by, stageId }: StartProps) => {
  const [position, setPosition] = useState(() => machine.stages.findIndex((s) => s.id === stageId));
  const [school, setSchool] = useState<ChangeSchool | null>(null);
  const [hazard, setHazard] = useState<DustHazard>(machine.hazard);
  const [lastCollected, setLastCollected] = useState(machine.lastCollected);
  const [initials, setInitials] = useState(by);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  useEffect(() => {
    document.documentElement.dataset['job'] = 'ready';
  }, []);
  const offers = offersAt(machine, position);
  const chosen = school ?? offers[0]?.school ?? null;
  const start = async () => {
    if (chosen === null) return;
    const upper = initials.trim().toUpperCase();
    const posted = await post(`/api/machines/${encodeURIComponent(machine.tag)}/jobs`, { by: upper, hazard, lastCollected, job: { kind: 'change', stage: position, school: chosen } });
    if (!posted) return;
    if (!posted.ok) {
      setProblems(posted.problems);
      return;
    }
    setChoice('mw_by', upper);
    window.location.reload();
  };
  return (
    <div className="grid gap-4 py-3 lg:grid-cols-2">
      <div className="space-y-4">
        <fieldset>
          <legend className="mb-1 font-bold">1. What has it been collecting?</legend>
          <input className="field" aria-label="Last collected" value={lastCollected} maxLength={120} onChange={(e) => setLastCollected(e.currentTarget.value)} />
          <FieldProblems id="collected-problems" problems={problemsAt(problems, 'lastCollected')} />
          <div className="mt-1 grid grid-cols-3 gap-1">
            {HAZARDS.map((h) => (
              <button key={h} type="button" className="choice text-center font-semibold" aria-pressed={hazard === h} onClick={() => setHazard(h)}>{HAZARD_WORDS[h]}</button>
            ))}
          </div>
          <p className="tone-watch mt-1 flex items-start gap-2 text-sm font-semibold"><ShieldAlert size={18} aria-hidden="true" className="mt-0.5 shrink-0" /> <span>{HAZARD_CAUTIONS[hazard]}</span></p>
        </fieldset>
      </div>
      <div className="space-y-4">
        <fieldset>
          <legend className="mb-1 font-bold">2. What is changed?</legend>
          <div className="grid grid-cols-2 gap-1">
            {machine.stages.map((s, i) =>
              offersAt(machine, i).length === 0 ? null : (
                <button key={s.id} type="button" className="choice font-semibold" aria-pressed={position === i} onClick={() => { setPosition(i); setSchool(null); }}>{capital(s.name)}</button>
              ),
            )}
          </div>
        </fieldset>
        {offers.length > 0 && (
          <fieldset>
            <legend className="mb-1 font-bold">3. Which way?</legend>
            <div className="grid gap-1">
              {offers.map(({ school: s, id }) => (
                <button key={s} type="button" className="choice" aria-pressed={chosen === s} onClick={() => setSchool(s)}>
                  <span className="block font-semibold">{id ? PROCEDURE_WORDS[id] : ''}</span>
                  <span className="soft text-xs">machine {RUN_WORDS[s]}</span>
                </button>
              ))}
            </div>
          </fieldset>
        )}
        <div className="flex items-end gap-2">
          <label className="block w-24 shrink-0">
            <span className="caption">Initials</span>
            <input className="field" value={initials} maxLength={12} autoComplete="off" onChange={(e) => setInitials(e.currentTarget.value)} />
          </label>
          <button type="button" className="go flex-1" disabled={chosen === null} onClick={() => void start()}>Begin</button>
        </div>
        <FieldProblems id="start-problems" problems={problems.filter((x) => x.path !== 'lastCollected')} />
      </div>
    </div>
  );
};
