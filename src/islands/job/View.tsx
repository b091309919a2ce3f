import { useEffect, useState } from 'react';
import { OpenJobReply } from '@/contracts/job';
import type { PathView } from '@/core/calibrate/path-view';
import type { StageDue } from '@/core/interval/due';
import type { Machine } from '@/core/machine/machine';
import { doNotRun, type JobEvent, type JobRecord, jobState } from '@/core/procedure/job-log';
import type { UnitSystem } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { PROCEDURE_WORDS } from '@/messages/procedure';
import { AirPathStrip } from '@/ui/air-path/strip';
import { setChoice } from '@/ui/cookies';
import { usePostOnce } from '@/ui/use-post-once';
import { Player } from './Player';
import { Start } from './Start';

interface JobProps {
  readonly machine: Machine;
  readonly due: readonly StageDue[];
  readonly view: PathView;
  readonly units: UnitSystem;
  readonly by: string;
  readonly open: OpenJobReply;
  readonly stageId: number | null;
}

const JobBench = (p: JobProps & { readonly first: JobRecord }) => {
  const { machine } = p;
  const [record, setRecord] = useState<JobRecord>(p.first);
  const [by, setBy] = useState(p.by || p.first.by);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [sending, setSending] = useState(false);
  const post = usePostOnce();
  const base = `/api/machines/${encodeURIComponent(machine.tag)}/jobs`;
  useEffect(() => {
    document.documentElement.dataset['job'] = sending ? 'busy' : 'ready';
  }, [sending, record]);
  const act = async (event: JobEvent) => {
    const initials = by.trim().toUpperCase();
    setSending(true);
    const posted = await post(`${base}/deeds`, { by: initials, jobId: record.id, event });
    if (!posted) return;
    if (posted.ok) {
      setChoice('mw_by', initials);
      if (event.kind === 'finished' || event.kind === 'abandoned') {
        window.location.assign(`/m/${encodeURIComponent(machine.tag)}/file`);
        return;
      }
    }
    setProblems(posted.ok ? [] : posted.problems);
    const fresh = OpenJobReply.safeParse(await (await fetch(base)).json());
    if (fresh.success && fresh.data.record) setRecord(fresh.data.record);
    setSending(false);
  };
  const state = jobState(record);
  const stage = record.procedure.stage === null ? null : (machine.stages[record.procedure.stage]?.id ?? null);
  return (
    <div>
      <AirPathStrip compact view={p.view} units={p.units} machine={machine} due={p.due} openStageId={stage} />
      <p className="pt-2 font-bold">
        {PROCEDURE_WORDS[record.procedure.id]}
        <span className="soft font-normal"> · {record.lastCollected} · in hand: {state.holder}</span>
        {doNotRun(state) && <span className="bg-error text-error-content ml-2 px-2 py-0.5">open, do not run</span>}
      </p>
      <Player key={state.at} machine={machine} record={record} state={state} by={by} setBy={setBy} act={(e) => void act(e)} problems={problems} sending={sending} />
    </div>
  );
};

/** The step player of a guided change: the start behind the hazard question, then one step at a time. */
export const Job = (p: JobProps) => {
  if (p.open.record) return <JobBench {...p} first={p.open.record} />;
  return (
    <div>
      <AirPathStrip compact view={p.view} units={p.units} machine={p.machine} due={p.due} openStageId={p.stageId} />
      <Start machine={p.machine} by={p.by} stageId={p.stageId} />
    </div>
  );
};
