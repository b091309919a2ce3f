import { useState } from 'react';
import { daysBetween } from '@/core/calendar/calendar-date';
import { examinationOutcome } from '@/core/plan/examination-plan';
import type { PlanDays } from '@/core/plan/problem';
import type { PlanInput, YardProblem } from '@/core/plan/yard-problem';
import { sayBooking, sayExamination } from '@/messages/plan-examinations';
import { dayText } from './openings';

interface ExaminationsProps {
  readonly input: PlanInput;
  readonly made: YardProblem;
  readonly days: PlanDays;
  readonly today: string;
  /** Fixes the examinations of these stages on one day. */
  readonly fixOn: (stageIds: readonly number[], day: number) => void;
}

/** The examinations of these weeks: when each is due, when the examiner is called, and one visit for several machines. */
export const Examinations = ({ input, made, days, today, fixOn }: ExaminationsProps) => {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [visit, setVisit] = useState('');
  const planned = input.machines.flatMap((m) =>
    m.stages.flatMap((s) => {
      const i = made.stages.findIndex((x) => x.stageId === s.stageId && x.turn === 1);
      if (s.latest === null || i < 0) return [];
      const of = { latest: s.latest, day: s.lockedDay ?? days[i] ?? null, fixed: s.lockedDay !== null };
      return [{ stageId: s.stageId, tag: m.tag, ...of, ...examinationOutcome(of) }];
    }),
  );
  if (planned.length === 0) return null;
  const dateOf = (day: number): string => dayText(today, day);
  const toggle = (id: number) =>
    setChosen((old) => new Set(old.has(id) ? [...old].filter((x) => x !== id) : [...old, id]));
  return (
    <section aria-labelledby="examinations" className="panel mt-2 p-3 text-sm">
      <h2 id="examinations" className="font-bold">
        Examinations
      </h2>
      <p className="soft">Tick the machines of one visit to fix its day.</p>
      <ul>
        {planned.map((e) => (
          <li key={e.stageId} className="border-base-300 border-b py-1">
            <label className="flex min-h-11 items-center gap-2">
              <input type="checkbox" checked={chosen.has(e.stageId)} onChange={() => toggle(e.stageId)} />
              <span className={e.late ? 'tone-stop font-semibold' : ''}>
                {sayExamination(e, dateOf)} {sayBooking(e, dateOf)}
              </span>
            </label>
          </li>
        ))}
      </ul>
      {chosen.size > 0 && (
        <div className="mt-2 flex flex-wrap items-end gap-2">
          <label className="block">
            <span className="caption">Day of the visit</span>
            <input
              className="field"
              type="date"
              min={today}
              value={visit}
              onChange={(e) => setVisit(e.currentTarget.value)}
            />
          </label>
          <button
            type="button"
            className="choice px-3 font-semibold"
            disabled={visit === ''}
            onClick={() => fixOn([...chosen], daysBetween({ from: today, to: visit }))}
          >
            Fix one visit for the ticked machines
          </button>
        </div>
      )}
    </section>
  );
};
