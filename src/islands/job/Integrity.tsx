import { useState } from 'react';
import type { OpenJobReply } from '@/contracts/job';
import type { Machine } from '@/core/machine/machine';
import type { Problem } from '@/messages/failures';
import { INTEGRITY_WORDS } from '@/messages/job';
import { capital } from '@/messages/words';
import { FieldProblems } from '@/ui/problems';
import { usePostOnce } from '@/ui/use-post-once';

interface IntegrityProps {
  readonly machine: Machine;
  readonly standing: OpenJobReply['integrity'][number];
  readonly by: string;
  readonly onDone: () => void;
}

type Due = OpenJobReply['integrity'][number]['due'][number];

const One = ({ test, failed, machine, stageId, by, onDone }: { readonly test: Due; readonly failed: boolean; readonly stageId: number } & Pick<IntegrityProps, 'machine' | 'by' | 'onDone'>) => {
  const [note, setNote] = useState('');
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const words = INTEGRITY_WORDS[test];
  const base = `/m/${encodeURIComponent(machine.tag)}`;
  const say = async (passed: boolean) => {
    const posted = await post(`/api/machines/${encodeURIComponent(machine.tag)}/integrity`, { by: by.trim().toUpperCase(), stageId, test, passed, note });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (posted.ok) onDone();
  };
  return (
    <li className="border-base-300 border-b py-2" data-integrity={test}>
      <p className="font-bold">{words.name}{failed && <span className="tone-stop"> · failed when last tried</span>}</p>
      <p className="soft text-sm">{words.how}</p>
      <div className="mt-1 grid grid-cols-2 gap-1 sm:grid-cols-[1fr_1fr_2fr]">
        <button type="button" className="choice text-center font-bold" disabled={by.trim() === ''} onClick={() => void say(true)}>{words.passed}</button>
        <button type="button" className="choice text-center font-bold" disabled={by.trim() === ''} onClick={() => void say(false)}>{words.failed}</button>
        {test === 'particles' && (
          <span className="col-span-2 flex gap-1 sm:col-span-1">
            <a className="choice inline-flex shrink-0 items-center font-semibold" href={`${base}/measure?method=particles`}>Count</a>
            <input className="field" aria-label="Who counted, and how" placeholder="or: who counted, how" value={note} maxLength={200} onChange={(e) => setNote(e.currentTarget.value)} />
          </span>
        )}
      </div>
      <FieldProblems id={`integrity-${test}`} problems={problems} />
    </li>
  );
};

/** The tests that are due of a fine filter since it was changed: until they are passed its class is not said. */
export const Integrity = ({ machine, standing, by, onDone }: IntegrityProps) => (
  <section aria-labelledby="integrity">
    <h3 id="integrity" className="text-lg font-bold">{capital(machine.stages.find((s) => s.id === standing.stageId)?.name ?? 'filter')}: to be proven</h3>
    <p className="tone-stop font-semibold">The {machine.machineClass} class is suspended until this is passed.</p>
    <ul>
      {standing.due.map((test) => (
        <One key={test} test={test} failed={standing.failed.includes(test)} machine={machine} stageId={standing.stageId} by={by} onDone={onDone} />
      ))}
    </ul>
    <p className="soft mt-1 text-xs">A field test of the seat, not a class test: that stays with those authorised.</p>
  </section>
);
