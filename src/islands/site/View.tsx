import { type SyntheticEvent, useEffect, useState } from 'react';
import { RULE_SETS, type RuleSet } from '@/core/dust/dust';
import type { Site } from '@/core/site/site';
import type { UnitSystem } from '@/core/units';
import { RULE_SET_WORDS } from '@/messages/dust';
import { setChoice } from '@/ui/cookies';
import { QuantityField } from '@/ui/quantity-field';
import { neededOr, SaveRow, useSigned } from '@/ui/save-row';
import { TextField } from '@/ui/text-fields';
import { More } from './More';
import { daysOf, lossesOf, pricesOf, type SetSite, type Typed, typedOf, unreadable } from './typed';
import { useGuessedZone, useZones } from './zones';

interface SiteProps {
  readonly site: Site;
  /** Settings of a new installation, to return to. */
  readonly defaults: Site;
  readonly units: UnitSystem;
  readonly by: string;
  /** The first start: asks only for the needed settings. */
  readonly first: boolean;
}

const ZoneField = ({ value, onValue }: { readonly value: string; readonly onValue: (zone: string) => void }) => (
  <label className="block min-w-0 flex-1 basis-56">
    <span className="caption">Time zone</span>
    <input className="field" list="zones" value={value} maxLength={60} onChange={(e) => onValue(e.target.value)} />
    <datalist id="zones">
      {useZones().map((zone) => (
        <option key={zone} value={zone} />
      ))}
    </datalist>
  </label>
);

const Rules = ({ ruleSet, set }: { readonly ruleSet: RuleSet; readonly set: SetSite }) => (
  <fieldset>
    <legend className="caption">Rules this site works to</legend>
    <div className="flex flex-wrap gap-1">
      {RULE_SETS.map((r) => (
        <button
          key={r}
          type="button"
          className="choice px-4 font-semibold"
          aria-pressed={r === ruleSet}
          onClick={() => set({ ruleSet: r })}
        >
          {RULE_SET_WORDS[r]}
        </button>
      ))}
    </div>
    <p className="soft text-sm">Where they differ both are shown, and the stricter one applies.</p>
  </fieldset>
);

const Units = ({ units, onUnits }: { readonly units: UnitSystem; readonly onUnits: (u: UnitSystem) => void }) => (
  <fieldset>
    <legend className="caption">Units shown here</legend>
    <div className="flex gap-1">
      {(['metric', 'us'] as const).map((u) => (
        <button
          key={u}
          type="button"
          className="choice px-4 font-semibold"
          aria-pressed={u === units}
          onClick={() => onUnits(u)}
        >
          {u === 'metric' ? 'L/s, Pa, mm' : 'cfm, inH2O, in'}
        </button>
      ))}
    </div>
    <p className="soft text-sm">A field takes any unit you type; this is what is shown.</p>
  </fieldset>
);

const neededOf = (said: Site, { bad, wrong }: { readonly bad: boolean; readonly wrong: string }): string => {
  if (said.name.trim() === '') return 'Give the site a name.';
  if (said.working.weekdays.length === 0) return 'Choose the days somebody works.';
  return bad ? 'The altitude cannot be read. Type it with a unit, such as 120 m.' : wrong;
};

const bodyOf = (said: Site, typed: Typed): object => ({
  name: said.name,
  altitudeM: said.altitudeM,
  ruleSet: said.ruleSet,
  thresholds: lossesOf(typed),
  weekdays: said.working.weekdays,
  closed: daysOf(typed.closed),
  minutesADay: Number(typed.minutes),
  prices: pricesOf(typed),
});

/** The site settings: at the first start only the needed ones, later all that decide something. */
export const SiteForm = ({ site, defaults, units: shown, by, first }: SiteProps) => {
  const [said, setSaid] = useState(site);
  // Until a zone is chosen the browser's own is taken: at the first start it is a good guess.
  const [zone, setZone] = useState<string | null>(first ? null : site.timeZone);
  const guessed = useGuessedZone(site.timeZone);
  const [typed, setTyped] = useState(() => typedOf(site));
  const [units, setUnits] = useState(shown);
  const [bad, setBad] = useState(false);
  const signed = useSigned(by, () => {
    setChoice('mw_units', units);
    window.location.assign(first ? '/' : '/site?saved');
  });
  const set: SetSite = (over) => setSaid((held) => ({ ...held, ...over }));
  useEffect(() => {
    document.documentElement.dataset['site'] = 'ready';
  }, []);
  const needed = neededOr(neededOf(said, { bad, wrong: unreadable(typed) }), signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '') void signed.save('/api/site', { ...bodyOf(said, typed), timeZone: zone ?? guessed });
  };
  return (
    <form className="grid gap-5" onSubmit={send}>
      <div className="flex flex-wrap gap-3">
        <TextField label="Name of the site" value={said.name} maxLength={80} onValue={(name) => set({ name })} />
        <ZoneField value={zone ?? guessed} onValue={setZone} />
        <div className="w-44">
          <QuantityField
            key={units}
            id="altitude"
            label="Height above the sea"
            kind="length"
            valueSi={said.altitudeM}
            units={units}
            unit={units === 'us' ? 'ft' : 'm'}
            low={-430}
            high={5100}
            hint="Air is thinner higher up. To the nearest 100 m is enough."
            onValue={(v) => set({ altitudeM: v ?? 0 })}
            onBad={(_, is) => setBad(is)}
          />
        </div>
      </div>
      <div className="flex flex-wrap gap-x-8 gap-y-4">
        <Rules ruleSet={said.ruleSet} set={set} />
        <Units units={units} onUnits={setUnits} />
      </div>
      {!first && (
        <More
          said={said}
          set={set}
          typed={typed}
          setTyped={(over) => setTyped((held) => ({ ...held, ...over }))}
          usual={typedOf(defaults)}
        />
      )}
      <SaveRow id="site-problems" signed={signed} needed={needed}>
        {first ? 'Start this yard' : 'Save the settings'}
      </SaveRow>
    </form>
  );
};
