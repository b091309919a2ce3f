import { useCallback, useEffect, useState } from 'react';
import type { OpenJobReply } from '@/contracts/job';
import type { StageDue } from '@/core/interval/due';
import type { Machine } from '@/core/machine/machine';
import { airNow } from '@/core/procedure/air-now';
import { doNotRun, type JobEvent, type JobRecord, jobState } from '@/core/procedure/job-log';
import type { UnitSystem } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { sayAir, sayOpenings } from '@/messages/job';
import { PROCEDURE_WORDS } from '@/messages/procedure';
import { AirBand } from '@/ui/air-path/air-band';
import { AirPathStrip } from '@/ui/air-path/strip';
import { setChoice } from '@/ui/cookies';
import { shownIsOld } from '@/messages/failure-texts/no-answer';
import { loadAnew } from '@/ui/load-anew';
import { usePostOnce } from '@/ui/use-post-once';
import { Player } from './Player';
import type { ShownPath } from '@/ui/air-path/shown-path';

interface JobProps {
  readonly machine: Machine;
  readonly due: readonly StageDue[];
  readonly view: ShownPath;
  readonly units: UnitSystem;
  readonly by: string;
  readonly open: OpenJobReply;
  readonly keysOn: boolean;
}

/** The status shown by board and page head: when it changes, the whole page is reloaded. */
const saysOf = ({ record, changeIds, integrity }: OpenJobReply): string =>
  JSON.stringify([record ? doNotRun(jobState(record)) : null, changeIds, integrity]);

/** The job on the server, reloaded after each action; `reload` returns false when the page itself reloads. */
const useJob = (tag: string, first: OpenJobReply) => {
  const [reply, setReply] = useState(first);
  const base = `/api/machines/${encodeURIComponent(tag)}/jobs`;
  const says = saysOf(reply);
  /** Brings the page up to date; null when it could not, false when the whole page is being loaded again. */
  const reload = useCallback(async (): Promise<boolean | null> => {
    const fresh = await loadAnew(`${base}/open`, (await import('@/contracts/job')).OpenJobReply);
    if (!fresh?.record) return null;
    if (saysOf(fresh) !== says) {
      window.location.reload();
      return false;
    }
    setReply(fresh);
    return true;
  }, [base, says]);
  return { reply, base, reload };
};

/** The step player of a guided change: one step at a time. */
export const JobBench = (p: JobProps & { readonly first: JobRecord }) => {
  const { machine } = p;
  const { reply, base, reload } = useJob(machine.tag, p.open);
  const record: JobRecord = reply.record ?? p.first;
  const [by, setBy] = useState(p.by);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [sending, setSending] = useState(false);
  const post = usePostOnce();
  useEffect(() => {
    document.documentElement.dataset['job'] = sending ? 'busy' : 'ready';
  }, [sending, record]);
  const act = async (event: JobEvent, partCode = '') => {
    const initials = by.trim().toUpperCase();
    setSending(true);
    const posted = await post(`${base}/actions`, { by: initials, jobId: record.id, event, partCode });
    if (!posted) return;
    if (posted.ok) {
      setChoice('mw_by', initials);
      if (event.kind === 'finished' || event.kind === 'abandoned') {
        window.location.assign(`/m/${encodeURIComponent(machine.tag)}/jobs/${record.id}`);
        return;
      }
    }
    const fresh = await reload();
    setProblems([...(posted.ok ? [] : posted.problems), ...(fresh === null ? [shownIsOld()] : [])]);
    if (fresh !== false) setSending(false);
  };
  const state = jobState(record);
  const stage = record.procedure.stage === null ? null : (record.stages[record.procedure.stage]?.id ?? null);
  const position = machine.stages.findIndex((s) => s.id === stage);
  const step = state.steps[state.at];
  const run = step?.run ?? state.run;
  const stop = doNotRun(state);
  const openings = sayOpenings(state.open);
  return (
    <div>
      <AirPathStrip compact pathOnly view={p.view} units={p.units} machine={machine} due={p.due} openStageId={stage} />
      <AirBand
        air={airNow({ stages: machine.stages, run, open: state.open, at: position < 0 ? null : position })}
        names={machine.stages.map((s) => s.name)}
        sentence={`${sayAir(run, state.open)}${openings === '' ? '' : ` Open: ${openings}.`}`}
        stop={stop}
      />
      <p className="pt-2 font-bold">
        {PROCEDURE_WORDS[record.procedure.id]}
        <span className="soft font-normal">
          {' '}
          · {record.lastCollected} · in hand: {state.holder}
        </span>
        {stop && (
          <span className="bg-error text-error-content ml-2 px-2 py-0.5">
            {state.driesUntil !== null
              ? 'drying, do not run'
              : run === 'off'
                ? 'open, do not run'
                : 'open and running: stay with it'}
          </span>
        )}
      </p>
      <Player
        key={`${state.at}-${state.turnedAt}`}
        machine={machine}
        record={record}
        state={state}
        reply={reply}
        by={by}
        setBy={setBy}
        act={(e, code) => void act(e, code)}
        reload={() => void reload()}
        problems={problems}
        sending={sending}
        units={p.units}
        keysOn={p.keysOn}
      />
    </div>
  );
};
