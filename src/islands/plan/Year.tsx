import { useEffect, useState } from 'react';
import { YearReply } from '@/contracts/plan';
import type { PlanInput, PlanOptions } from '@/core/plan/yard-problem';
import { sayFullestWeek, sayRangeOf, sayYear, sayYearPast } from '@/messages/year';

interface YearProps {
  readonly input: PlanInput;
  readonly options: PlanOptions;
  readonly today: string;
  readonly currency: string;
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const WEEK = 7;

/** The year ahead of a yard, from a worker of its own; null until it is there. */
const useYear = (input: PlanInput, options: PlanOptions): YearReply | null => {
  const [year, setYear] = useState<YearReply | null>(null);
  useEffect(() => {
    const worker = new Worker(new URL('../../workers/year.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = (event: MessageEvent<unknown>) => {
      const reply = YearReply.safeParse(event.data);
      if (reply.success) setYear(reply.data);
      worker.terminate();
    };
    worker.postMessage(structuredClone({ ask: 'year', input, options }));
    return () => worker.terminate();
  }, [input, options]);
  return year;
};

const PartsByMonth = ({ year, input, today }: { readonly year: YearReply } & Pick<YearProps, 'input' | 'today'>) => {
  const first = Number(today.slice(5, 7)) - 1;
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">Parts by month</summary>
      <div className="overflow-x-auto">
        <table className="w-full text-sm">
          <thead>
            <tr className="caption text-left">
              <th scope="col">Part</th>
              <th scope="col">Year</th>
              {MONTHS.map((_, i) => (
                <th key={i} scope="col" className="px-1">
                  {MONTHS[(first + i) % MONTHS.length]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {year.parts.map(({ part, year: whole, months }) => (
              <tr key={part} className="border-base-300 border-t">
                <th scope="row" className="py-1 pr-2 text-left font-semibold">
                  {input.parts[part]?.name ?? ''}
                </th>
                <td className="dial pr-2 whitespace-nowrap">{sayRangeOf(whole)}</td>
                {months.map((m, i) => (
                  <td key={i} className="dial px-1 whitespace-nowrap">
                    {m[2] === 0 ? '' : sayRangeOf(m)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="soft text-sm">Pieces; in 8 of 10 ways the year may go it is within the range.</p>
    </details>
  );
};

/** Minutes there are in a week, as a mean over the year ahead. */
const minutesAWeek = ({ works, crew }: PlanInput, { minutesADay }: PlanOptions): number =>
  works.slice(0, 52 * WEEK).reduce((sum, open, day) => sum + (open ? (crew?.minutes[day] ?? minutesADay) : 0), 0) / 52;

/** The year's demand: openings, hours, money, parts, and days past a limit. */
export const Year = ({ input, options, today, currency }: YearProps) => {
  const year = useYear(input, options);
  const week = year && sayFullestWeek(year, minutesAWeek(input, options));
  return (
    <section aria-labelledby="year" className="mt-4">
      <h2 id="year" className="caption">
        The year ahead
      </h2>
      {year && week ? (
        <>
          <p className="text-lg leading-tight font-bold">{sayYear(year, currency)}</p>
          <p className="text-sm">{sayYearPast(year)}</p>
          <p className={`text-sm ${week.full ? 'tone-watch font-semibold' : ''}`}>{week.sentence}</p>
          <PartsByMonth year={year} input={input} today={today} />
        </>
      ) : (
        <p className="soft text-sm" role="status">
          Going through the year...
        </p>
      )}
    </section>
  );
};
