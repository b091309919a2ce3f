import type { Site } from '@/core/site/site';
import { WEEKDAY_WORDS } from '@/messages/settings';
import type { SetSite, Typed } from './typed';

const PercentField = ({
  label,
  value,
  usual,
  onValue,
}: {
  readonly label: string;
  readonly value: string;
  readonly usual: string;
  readonly onValue: (value: string) => void;
}) => (
  <div className="w-44">
    <label className="block">
      <span className="caption">{label}, %</span>
      <input
        className="field dial"
        inputMode="decimal"
        value={value}
        maxLength={6}
        onChange={(e) => onValue(e.target.value)}
      />
    </label>
    {value === usual ? (
      <p className="soft text-sm">The usual figure.</p>
    ) : (
      <button type="button" className="min-h-11 text-sm underline underline-offset-4" onClick={() => onValue(usual)}>
        Back to {usual} %
      </button>
    )}
  </div>
);

const FIGURES = [
  ['plain', 'Cost of a plain opening'],
  ['controlled', 'Cost of a controlled opening'],
  ['contained', 'Cost of a contained opening'],
  ['late', 'How much worse a late day is than a wasted day, times'],
  ['plainMinutes', 'Time of a plain opening, minutes'],
  ['controlledMinutes', 'Time of a controlled opening, minutes'],
  ['containedMinutes', 'Time of a contained opening, minutes'],
] as const;

/** Prices that the plan weighs, in the site's own currency. */
const PriceFields = ({ typed, setTyped, usual }: Pick<MoreProps, 'typed' | 'setTyped' | 'usual'>) => (
  <section className="grid gap-2" aria-labelledby="prices">
    <h2 id="prices" className="text-xl font-bold">
      Prices for the plan
    </h2>
    <div className="flex flex-wrap gap-4">
      <label className="block w-32">
        <span className="caption">Currency</span>
        <input
          className="field"
          value={typed.currency}
          maxLength={8}
          placeholder="none"
          onChange={(e) => setTyped({ currency: e.target.value })}
        />
      </label>
      {FIGURES.map(([key, label]) => (
        <div key={key} className="w-48">
          <label className="block">
            <span className="caption">{label}</span>
            <input
              className="field dial"
              inputMode="decimal"
              value={typed[key]}
              maxLength={8}
              onChange={(e) => setTyped({ [key]: e.target.value })}
            />
          </label>
          {typed[key] === usual[key] ? (
            <p className="soft text-sm">The usual figure.</p>
          ) : (
            <button
              type="button"
              className="min-h-11 text-sm underline underline-offset-4"
              onClick={() => setTyped({ [key]: usual[key] })}
            >
              Back to {usual[key]}
            </button>
          )}
        </div>
      ))}
    </div>
    <p className="soft text-sm">
      The cost of one opening: labour, mask and waste bag. Changing early wastes the part's price, spread over its life.
      Moorwind's defaults, a modelling choice.
    </p>
  </section>
);

interface MoreProps {
  readonly said: Site;
  readonly set: SetSite;
  readonly typed: Typed;
  readonly setTyped: (over: Partial<Typed>) => void;
  readonly usual: Typed;
}

const toggled = (days: readonly number[], day: number): readonly number[] =>
  days.includes(day) ? days.filter((d) => d !== day) : [...days, day];

/** When a loss counts, and when the work is done. */
export const More = ({ said, set, typed, setTyped, usual }: MoreProps) => (
  <>
    <section className="grid gap-2" aria-labelledby="limits">
      <h2 id="limits" className="text-xl font-bold">
        When a loss of airflow counts
      </h2>
      <div className="flex flex-wrap gap-4">
        <PercentField
          label="Warn at a loss of"
          value={typed.warn}
          usual={usual.warn}
          onValue={(warn) => setTyped({ warn })}
        />
        <PercentField
          label="Act at a loss of"
          value={typed.act}
          usual={usual.act}
          onValue={(act) => setTyped({ act })}
        />
      </div>
      <p className="soft text-sm">
        Compared with the machine's own baseline. Moorwind's defaults, from common practice; no published source. If the
        maker gives a figure, use that.
      </p>
    </section>
    <section className="grid gap-2" aria-labelledby="days">
      <h2 id="days" className="text-xl font-bold">
        When the work is done
      </h2>
      <fieldset>
        <legend className="caption">Working days</legend>
        <div className="flex flex-wrap gap-1">
          {[1, 2, 3, 4, 5, 6, 0].map((d) => (
            <button
              key={d}
              type="button"
              className="choice px-3 font-semibold"
              aria-pressed={said.working.weekdays.includes(d)}
              onClick={() => set({ working: { ...said.working, weekdays: toggled(said.working.weekdays, d) } })}
            >
              {WEEKDAY_WORDS[d]}
            </button>
          ))}
        </div>
      </fieldset>
      <div className="flex flex-wrap gap-4">
        <label className="block w-40">
          <span className="caption">Minutes a day for changes</span>
          <input
            className="field dial"
            inputMode="numeric"
            value={typed.minutes}
            maxLength={4}
            onChange={(e) => setTyped({ minutes: e.target.value })}
          />
        </label>
        <label className="block min-w-0 flex-1 basis-56">
          <span className="caption">Closed on, a day a line</span>
          <textarea
            className="field dial h-28"
            value={typed.closed}
            maxLength={2400}
            placeholder="2026-12-25"
            onChange={(e) => setTyped({ closed: e.target.value })}
          />
        </label>
      </div>
      <p className="soft text-sm">The plan puts no change on a day the site is closed.</p>
    </section>
    <PriceFields typed={typed} setTyped={setTyped} usual={usual} />
  </>
);
