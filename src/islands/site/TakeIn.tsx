import { useRef, useState } from 'react';
import { BUNDLE_TABLE_NAMES } from '@/contracts/bundle';
import { ImportReport } from '@/contracts/bundle-report';
import { ProblemReply } from '@/contracts/responses';
import { TABLE_WORDS } from '@/messages/bundle';
import { noAnswer } from '@/messages/failure-texts/no-answer';
import type { Problem } from '@/messages/problem';
import { newClientId } from '@/ui/post-action';
import { FieldProblems } from '@/ui/problems';
import { InitialsField } from '@/ui/text-fields';

type Answer =
  { readonly ok: true; readonly report: ImportReport } | { readonly ok: false; readonly problems: readonly Problem[] };

const send = async (file: File, ask: { clientId: string; by: string; dryRun: boolean }): Promise<Answer> => {
  try {
    const query = new URLSearchParams({ ...ask, dryRun: ask.dryRun ? 'yes' : 'no' });
    const response = await fetch(`/api/bundle?${query.toString()}`, {
      method: 'POST',
      headers: { 'content-type': 'application/zip' },
      body: file,
    });
    const data: unknown = await response.json();
    return response.ok
      ? { ok: true, report: ImportReport.parse(data) }
      : { ok: false, problems: ProblemReply.parse(data).problems };
  } catch {
    return { ok: false, problems: [noAnswer()] };
  }
};

const Report = ({ report, done }: { readonly report: ImportReport; readonly done: boolean }) => {
  const lines = BUNDLE_TABLE_NAMES.flatMap((t) => {
    const n = report.added[t] ?? 0;
    return n > 0 ? [`${n} ${TABLE_WORDS[t][n === 1 ? 0 : 1]}`] : [];
  });
  return (
    <div role="status" className="space-y-1">
      <p className="font-bold">
        {lines.length === 0 && report.taken.length === 0
          ? 'Everything in it is here already.'
          : done
            ? 'Imported:'
            : 'It would add:'}
      </p>
      {lines.length > 0 && <p>{lines.join(', ')}.</p>}
      {report.taken.length > 0 && (
        <p>
          <strong>{report.taken.join(', ')}</strong>: edited where the file comes from;{' '}
          {done ? 'updated here' : 'would be updated here'}.
        </p>
      )}
      {report.kept.length > 0 && (
        <p>
          Differs here and was not changed:{' '}
          {report.kept
            .slice(0, 12)
            .map((k) => `${TABLE_WORDS[k.table][0]} ${k.name}`)
            .join(', ')}
          {report.kept.length > 12 && ` and ${report.kept.length - 12} more`}.
        </p>
      )}
    </div>
  );
};

/** Imports a bundle: first reports its effect, then writes on request. */
export const TakeIn = ({ by: known }: { readonly by: string }) => {
  const [by, setBy] = useState(known);
  const [file, setFile] = useState<File | null>(null);
  const [report, setReport] = useState<ImportReport | null>(null);
  const [state, setState] = useState<'open' | 'working' | 'done'>('open');
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const clientId = useRef(newClientId());
  const run = async (dryRun: boolean) => {
    if (!file || state === 'working') return;
    setState('working');
    const answer = await send(file, { clientId: clientId.current, by: by.trim().toUpperCase(), dryRun });
    setProblems(answer.ok ? [] : answer.problems);
    setReport(answer.ok ? answer.report : null);
    setState(answer.ok && !dryRun ? 'done' : 'open');
  };
  const needed = !file ? 'Choose an export file.' : by.trim() === '' ? 'Your initials are needed.' : '';
  return (
    <div className="space-y-2">
      <label className="block">
        <span className="caption">Export file (.zip)</span>
        <input
          type="file"
          accept=".zip,application/zip"
          className="file-input w-full"
          onChange={(e) => {
            setFile(e.currentTarget.files?.[0] ?? null);
            setReport(null);
            setProblems([]);
            setState('open');
            clientId.current = newClientId();
          }}
        />
      </label>
      <FieldProblems id="bundle-problems" problems={problems} />
      {report && <Report report={report} done={state === 'done'} />}
      {state !== 'done' && (
        <div className="flex flex-wrap items-end gap-2">
          <InitialsField value={by} onValue={setBy} />
          <button
            type="button"
            className={report ? 'choice' : 'go'}
            disabled={needed !== '' || state === 'working'}
            onClick={() => void run(true)}
          >
            {state === 'working' ? 'Reading it...' : 'Check it first'}
          </button>
          {report && (
            <button type="button" className="go" disabled={state === 'working'} onClick={() => void run(false)}>
              Import it
            </button>
          )}
          {needed !== '' && <p className="soft text-sm">{needed}</p>}
        </div>
      )}
      {state === 'done' && (
        <p>
          <a className="font-semibold underline" href="/">
            To the board
          </a>
        </p>
      )}
    </div>
  );
};
