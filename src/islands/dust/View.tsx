import { useEffect, useState } from 'react';
import type { DustStatement } from '@/core/dust/assess';
import type { Dust } from '@/core/dust/dust';
import { lastStatement } from '@/core/dust/history';
import { integrityStanding } from '@/core/machine/integrity';
import type { Machine } from '@/core/machine/machine';
import type { Problem } from '@/messages/failures';
import { setChoice } from '@/ui/cookies';
import { DustQuestion, dustSaid } from '@/ui/dust/dust-question';
import { DayField } from '@/ui/day-field';
import { FieldProblems } from '@/ui/problems';
import { InitialsField } from '@/ui/text-fields';
import { usePostOnce } from '@/ui/use-post-once';

interface DustPageProps {
  readonly machine: Machine;
  readonly ownDusts: readonly Dust[];
  readonly today: string;
  readonly by: string;
}

/** Posts one action at a time to an address of this machine; reloads the page when it was recorded. */
const useRecord = (tag: string) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const record = async (what: string, by: string, body: object) => {
    const upper = by.trim().toUpperCase();
    const posted = await post(`/api/machines/${encodeURIComponent(tag)}/${what}`, { by: upper, ...body });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (!posted.ok) return;
    setChoice('mw_by', upper);
    window.location.reload();
  };
  return { problems, record };
};

interface TextProps {
  readonly label: string;
  readonly value: string;
  readonly onText: (value: string) => void;
  readonly wide?: boolean;
}

const Text = ({ label, value, onText, wide = false }: TextProps) => (
  <label className={`block min-w-0 ${wide ? 'flex-1 basis-56' : 'w-40'}`}>
    <span className="caption">{label}</span>
    <input
      className="field"
      value={value}
      maxLength={400}
      autoComplete="off"
      onChange={(e) => onText(e.currentTarget.value)}
    />
  </label>
);

const Cleared = ({ machine, today, by }: DustPageProps) => {
  const { problems, record } = useRecord(machine.tag);
  const [open, setOpen] = useState(false);
  const [e, setE] = useState({ on: today, who: '', paper: '' });
  const refused = machine.dust.standing.refusal !== null;
  return (
    <section aria-labelledby="clear" className="space-y-2">
      <h2 id="clear" className="text-xl font-bold">
        Clear it
      </h2>
      <p className="soft text-sm">
        Only a recorded decontamination clears what a machine has collected. Time does not clear it, and neither does
        other dust after it.
      </p>
      <p className="flex flex-wrap gap-1">
        {!refused && (
          <a
            className="choice inline-flex items-center font-semibold"
            href={`/m/${encodeURIComponent(machine.tag)}/job?job=decontamination`}
          >
            Guide me through it
          </a>
        )}
        <button type="button" className="choice font-semibold" aria-expanded={open} onClick={() => setOpen(!open)}>
          Done by a contractor
        </button>
      </p>
      {open && (
        <div className="flex flex-wrap items-end gap-1">
          <div className="w-40">
            <DayField label="On" value={e.on} onValue={(on) => setE({ ...e, on })} />
          </div>
          <Text label="Contractor" wide value={e.who} onText={(who) => setE({ ...e, who })} />
          <Text label="Certificate number" value={e.paper} onText={(paper) => setE({ ...e, paper })} />
          <button
            type="button"
            className="go"
            disabled={by.trim() === '' || e.who.trim() === '' || e.paper.trim() === ''}
            onClick={() => void record('decontaminated', by, e)}
          >
            Record it
          </button>
        </div>
      )}
      <FieldProblems id="clear-problems" problems={problems} />
    </section>
  );
};

const Examination = ({ machine, today, by }: DustPageProps) => {
  const { problems, record } = useRecord(machine.tag);
  const [e, setE] = useState({ on: today, examiner: '', found: '' });
  return (
    <section aria-labelledby="examination" className="space-y-2">
      <h2 id="examination" className="text-xl font-bold">
        Log an examination
      </h2>
      <p className="soft text-sm">
        By a competent person: makers ask for it once a year on M and H machines, UK COSHH reg. 9 at least every 14
        months. Its rule is under Plan, at the fan.
      </p>
      <div className="flex flex-wrap items-end gap-1">
        <div className="w-40">
          <DayField label="On" value={e.on} onValue={(on) => setE({ ...e, on })} />
        </div>
        <Text label="Examined by" wide value={e.examiner} onText={(examiner) => setE({ ...e, examiner })} />
        <Text label="Finding" wide value={e.found} onText={(found) => setE({ ...e, found })} />
        <button
          type="button"
          className="go"
          disabled={by.trim() === '' || e.examiner.trim() === '' || e.found.trim() === ''}
          onClick={() => void record('examinations', by, e)}
        >
          Record it
        </button>
      </div>
      <FieldProblems id="examination-problems" problems={problems} />
    </section>
  );
};

/** The dust page of a machine: statements, answers, decontamination; and examinations by others. */
export const DustPage = (props: DustPageProps) => {
  const { machine, ownDusts, today } = props;
  const [by, setBy] = useState(props.by);
  const [statement, setStatement] = useState<DustStatement>(() => lastStatement(machine.dust, machine.lastCollected));
  const [since, setSince] = useState(today);
  const { problems, record } = useRecord(machine.tag);
  useEffect(() => {
    document.documentElement.dataset['dust'] = 'ready';
  }, []);
  const said = dustSaid({ statement, dust: machine.dust, ownDusts });
  const suspended = machine.stages.filter((s) => integrityStanding(machine, s) !== null);
  const p = { ...props, by };
  return (
    <div className="grid gap-x-8 gap-y-5 py-3 lg:grid-cols-2">
      <div className="space-y-3">
        <DustQuestion
          legend="What has it collected now?"
          statement={statement}
          set={(over) => setStatement((held) => ({ ...held, ...over }))}
          said={said}
          problems={problems}
        />
        <div className="flex flex-wrap items-end gap-1">
          <div className="w-40">
            <DayField label="Since, if known" value={since} onValue={setSince} />
          </div>
          <InitialsField value={by} onValue={setBy} />
          <button
            type="button"
            className="go flex-1"
            disabled={by.trim() === '' || statement.text.trim() === '' || said.own.toConfirm.length > 0}
            onClick={() => void record('dust', by, { dust: statement, since: since === '' ? null : since })}
          >
            Save it
          </button>
        </div>
        <FieldProblems id="dust-problems" problems={problems.filter((x) => !x.path.startsWith('dust'))} />
      </div>
      <div className="space-y-5">
        <Cleared {...p} />
        {suspended.length > 0 && (
          <p>
            <a
              className="choice inline-flex items-center font-semibold"
              href={`/m/${encodeURIComponent(machine.tag)}/job`}
            >
              Screening and tests of the {suspended.map((s) => s.name).join(', ')}
            </a>
          </p>
        )}
        <Examination {...p} />
      </div>
    </div>
  );
};
