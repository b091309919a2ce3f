import { DayField } from '@/ui/day-field';
import { useState } from 'react';
import type { OpenJobReply } from '@/contracts/job';
import { classLimit } from '@/core/machine/integrity';
import type { Machine } from '@/core/machine/machine';
import type { Problem } from '@/messages/failures';
import { INTEGRITY_WORDS } from '@/messages/integrity';
import { sayPercent } from '@/messages/job';
import { capital, CLASS_WORDS } from '@/messages/words';
import { FieldProblems } from '@/ui/problems';
import { usePostOnce } from '@/ui/use-post-once';

interface IntegrityProps {
  readonly machine: Machine;
  readonly standing: OpenJobReply['integrity'][number];
  readonly by: string;
  readonly onDone: () => void;
}

type Due = OpenJobReply['integrity'][number]['due'][number];
type Sending = Pick<IntegrityProps, 'machine' | 'by' | 'onDone'> & { readonly stageId: number };

const useSend = ({ machine, by, onDone, stageId }: Sending) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const send = async (body: object) => {
    const posted = await post(`/api/machines/${encodeURIComponent(machine.tag)}/integrity`, {
      by: by.trim().toUpperCase(),
      stageId,
      ...body,
    });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (posted.ok) onDone();
  };
  return { problems, send };
};

const One = ({ test, failed, ...p }: { readonly test: Due; readonly failed: boolean } & Sending) => {
  const { problems, send } = useSend(p);
  const words = INTEGRITY_WORDS[test];
  const base = `/m/${encodeURIComponent(p.machine.tag)}`;
  const off = p.by.trim() === '';
  return (
    <li className="border-base-300 border-b py-2" data-integrity={test}>
      <p className="font-bold">
        {words.name}
        {failed && <span className="tone-stop"> · failed when last tried</span>}
      </p>
      <p className="soft text-sm">{words.how}</p>
      <div className="mt-1 grid grid-cols-2 gap-1">
        {test === 'particles' ? (
          <>
            <a
              className="choice inline-flex items-center justify-center font-semibold"
              href={`${base}/measure?method=particles`}
            >
              Count
            </a>
            <button
              type="button"
              className="choice text-center font-bold"
              disabled={off}
              onClick={() => void send({ test, note: '' })}
            >
              {words.passed}
            </button>
          </>
        ) : (
          <>
            <button
              type="button"
              className="choice text-center font-bold"
              disabled={off}
              onClick={() => void send({ test, passed: true, note: '' })}
            >
              {words.passed}
            </button>
            <button
              type="button"
              className="choice text-center font-bold"
              disabled={off}
              onClick={() => void send({ test, passed: false, note: '' })}
            >
              {words.failed}
            </button>
          </>
        )}
      </div>
      <FieldProblems id={`integrity-${test}`} problems={problems} />
    </li>
  );
};

/** The penetration test of a competent person: what its paper says. */
const Penetration = ({ failed, ...p }: { readonly failed: boolean } & Sending) => {
  const { problems, send } = useSend(p);
  const [open, setOpen] = useState(false);
  const [e, setE] = useState({ testedOn: '', tester: '', method: '', certificate: '', percent: '', nextDueOn: '' });
  const percent = Number(e.percent.replace(',', '.').replace('%', ''));
  const whole =
    e.testedOn !== '' &&
    e.tester.trim() !== '' &&
    e.method.trim() !== '' &&
    e.certificate.trim() !== '' &&
    e.percent.trim() !== '' &&
    Number.isFinite(percent) &&
    p.by.trim() !== '';
  const text = (field: keyof typeof e, label: string) => (
    <label className="block min-w-0 flex-1 basis-40">
      <span className="caption">{label}</span>
      <input
        className="field"
        value={e[field]}
        maxLength={120}
        autoComplete="off"
        onChange={(x) => setE({ ...e, [field]: x.currentTarget.value })}
      />
    </label>
  );
  const { machineClass } = p.machine;
  return (
    <li className="py-2" data-integrity="penetration">
      <p className="font-bold">
        Penetration test by a competent person{failed && <span className="tone-stop"> · failed when last tried</span>}
      </p>
      <p className="soft text-sm">
        Aerosol test of the whole machine;{' '}
        {machineClass === null ? '' : `${CLASS_WORDS[machineClass]} allows ${sayPercent(classLimit(machineClass))}.`}{' '}
        Screening does not replace it.
      </p>
      {!open && (
        <button type="button" className="choice mt-1 font-semibold" onClick={() => setOpen(true)}>
          Enter the certificate
        </button>
      )}
      {open && (
        <div className="mt-1 flex flex-wrap items-end gap-1">
          <DayField label="Tested on" value={e.testedOn} onValue={(testedOn) => setE({ ...e, testedOn })} />
          {text('tester', 'Tested by')}
          {text('method', 'Method')}
          {text('certificate', 'Certificate number')}
          {text('percent', 'Penetration, %')}
          <DayField
            label="Next due, if stated"
            value={e.nextDueOn}
            onValue={(nextDueOn) => setE({ ...e, nextDueOn })}
          />
          <button
            type="button"
            className="go"
            disabled={!whole}
            onClick={() =>
              void send({
                test: 'penetration',
                testedOn: e.testedOn,
                tester: e.tester,
                method: e.method,
                certificate: e.certificate,
                percent,
                nextDueOn: e.nextDueOn === '' ? null : e.nextDueOn,
              })
            }
          >
            Record it
          </button>
        </div>
      )}
      <FieldProblems id="integrity-penetration" problems={problems} />
    </li>
  );
};

/** Tests that are due for a filter since its seat was opened: the screening on site, and the proof by others. */
export const Integrity = ({ machine, standing, by, onDone }: IntegrityProps) => {
  const { due, failed, penetration, stageId } = standing;
  const p = { machine, by, onDone, stageId };
  return (
    <section aria-labelledby="integrity">
      <h3 id="integrity" className="text-lg font-bold">
        {capital(machine.stages.find((s) => s.id === stageId)?.name ?? 'filter')}:{' '}
        {due.length > 0 ? 'to be screened' : 'screened, to be proven'}
      </h3>
      <p className="tone-stop font-semibold">
        The {machine.machineClass === null ? 'rated' : CLASS_WORDS[machine.machineClass]} wording is suspended{' '}
        {penetration === 'notNeeded'
          ? 'until the screening is passed.'
          : 'until a penetration test is passed. Screening can fail it, never prove it.'}
      </p>
      <ul>
        {due.map((test) => (
          <One key={test} {...p} test={test} failed={failed.includes(test)} />
        ))}
        {penetration !== 'notNeeded' && <Penetration {...p} failed={penetration === 'failed'} />}
      </ul>
    </section>
  );
};
