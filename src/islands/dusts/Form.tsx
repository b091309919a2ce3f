import { useState } from 'react';
import {
  CLEANING_WAYS,
  type Dust,
  DUST_FAMILIES,
  DUST_QUESTIONS,
  NEEDED_CLASSES,
  type NeededClass,
  REFERRALS,
} from '@/core/dust/dust';
import { DUST_HAZARDS } from '@/core/dust/level';
import { builtIn } from '@/core/dust/register';
import { normalised } from '@/core/dust/text';
import { CLEANING_WORDS, FAMILY_WORDS, NEEDED_WORDS, QUESTION_WORDS } from '@/messages/dust';
import type { Problem } from '@/messages/failures';
import { capital, HAZARD_WORDS } from '@/messages/words';
import { setChoice } from '@/ui/cookies';
import { FieldProblems } from '@/ui/problems';
import { Choices, InitialsField, TextField } from '@/ui/text-fields';
import { usePostOnce } from '@/ui/use-post-once';

export const BLANK: Dust = {
  key: '',
  name: '',
  family: 'nuisance',
  synonyms: [],
  limits: [],
  properties: [],
  neededClass: { eu_uk: 'M', us: 'M' },
  level: 'controlled',
  refused: null,
  asks: [],
  cleanedBy: [],
  waste: '',
  note: '',
  retired: false,
};

const keyOf = (name: string): string =>
  `own${normalised(name).split(' ').map(capital).join('')}`.replace(/[^A-Za-z0-9]/g, '').slice(0, 40);

const Choose = <T extends string>({
  label,
  value,
  options,
  words,
  onChoose,
}: {
  readonly label: string;
  readonly value: T;
  readonly options: readonly T[];
  readonly words: Readonly<Record<T, string>>;
  readonly onChoose: (v: T) => void;
}) => (
  <label className="block min-w-0 flex-1 basis-40">
    <span className="caption">{label}</span>
    <select
      className="field"
      value={value}
      onChange={(e) => onChoose(options.find((o) => o === e.currentTarget.value) ?? value)}
    >
      {options.map((o) => (
        <option key={o} value={o}>
          {words[o]}
        </option>
      ))}
    </select>
  </label>
);

const REFUSALS = ['none', ...REFERRALS] as const;
const REFUSAL_WORDS: Readonly<Record<(typeof REFUSALS)[number], string>> = {
  none: 'not refused',
  licensedContractor: 'refused: licensed contractor',
  machineBuiltForIt: 'refused: machine built for it',
  fireSafety: 'refused: hot matter',
  flammableWaste: 'refused: flammable liquid',
  spillKit: 'refused: spill kit',
  whoIsResponsible: 'refused: ask who is responsible',
};

interface PartProps {
  readonly dust: Dust;
  readonly put: (over: Partial<Dust>) => void;
}

const Deciding = ({ dust: d, put, shipped }: PartProps & { readonly shipped: boolean }) => (
  <div className="flex flex-wrap gap-2">
    <TextField label="Name" value={d.name} maxLength={80} disabled={shipped} onValue={(name) => put({ name })} />
    <Choose
      label="Family"
      value={d.family}
      options={DUST_FAMILIES}
      words={FAMILY_WORDS}
      onChoose={(family) => put({ family })}
    />
    <Choose
      label="Opened as"
      value={d.level}
      options={DUST_HAZARDS}
      words={HAZARD_WORDS}
      onChoose={(level) => put({ level })}
    />
    <Choose
      label="Class, EU/UK"
      value={d.neededClass.eu_uk}
      options={NEEDED_CLASSES}
      words={NEEDED_WORDS}
      onChoose={(eu_uk: NeededClass) => put({ neededClass: { ...d.neededClass, eu_uk } })}
    />
    <Choose
      label="Class, US"
      value={d.neededClass.us}
      options={NEEDED_CLASSES}
      words={NEEDED_WORDS}
      onChoose={(us: NeededClass) => put({ neededClass: { ...d.neededClass, us } })}
    />
    <Choose
      label="Refused"
      value={d.refused ?? 'none'}
      options={REFUSALS}
      words={REFUSAL_WORDS}
      onChoose={(r) => put({ refused: r === 'none' ? null : r })}
    />
  </div>
);

const Following = ({ dust: d, put }: PartProps) => (
  <>
    <div className="flex flex-wrap gap-2">
      <TextField label="On the waste label" value={d.waste} maxLength={120} onValue={(waste) => put({ waste })} />
      <TextField label="Notes" value={d.note} maxLength={400} onValue={(note) => put({ note })} />
    </div>
    <Choices
      legend="A reusable filter may be cleaned after it"
      options={CLEANING_WAYS}
      words={CLEANING_WORDS}
      chosen={d.cleanedBy}
      onChosen={(cleanedBy) => put({ cleanedBy })}
    />
    <Choices
      legend="Always ask this; contained until answered"
      options={DUST_QUESTIONS}
      words={QUESTION_WORDS}
      chosen={d.asks}
      onChosen={(asks) => put({ asks })}
    />
  </>
);

const wordsIn = (typed: string): readonly string[] => [
  ...new Set(
    typed
      .split(',')
      .map(normalised)
      .filter((w) => w.length >= 2),
  ),
];

/** The entry to send: a shipped dust keeps its words, an own one gets a key from its name. */
const entryOf = (first: Dust, dust: Dust, typed: string): Dust => ({
  ...dust,
  key: dust.key === '' ? keyOf(dust.name) : dust.key,
  synonyms: builtIn(first.key) === null ? wordsIn(typed) : [...new Set([...first.synonyms, ...wordsIn(typed)])],
});

interface FormProps {
  readonly first: Dust;
  readonly by: string;
  readonly setBy: (by: string) => void;
  readonly onDone: () => void;
}

/** The fields of an own dust, or of the site's edit of a shipped one; a shipped one is never made less than it ships as. */
export const DustForm = ({ first, by, setBy, onDone }: FormProps) => {
  const [dust, setDust] = useState<Dust>(first);
  const [words, setWords] = useState(first.synonyms.join(', '));
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const shipped = builtIn(first.key) !== null;
  const put = (over: Partial<Dust>) => setDust((held) => ({ ...held, ...over }));
  const save = async () => {
    const upper = by.trim().toUpperCase();
    const posted = await post('/api/dusts', { by: upper, dust: entryOf(first, dust, words) });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (!posted.ok) return;
    setChoice('mw_by', upper);
    onDone();
  };
  return (
    <div className="panel space-y-2 p-3">
      <Deciding dust={dust} put={put} shipped={shipped} />
      <label className="block">
        <span className="caption">Words people type for it, separated by commas</span>
        <textarea
          className="field"
          rows={2}
          value={words}
          maxLength={4000}
          onChange={(e) => setWords(e.currentTarget.value)}
        />
      </label>
      <Following dust={dust} put={put} />
      <div className="flex flex-wrap items-end gap-1">
        <InitialsField value={by} onValue={setBy} />
        <button
          type="button"
          className="go"
          disabled={by.trim() === '' || dust.name.trim() === ''}
          onClick={() => void save()}
        >
          Save to the register
        </button>
        {!shipped && first.key !== '' && (
          <button
            type="button"
            className="choice"
            aria-pressed={dust.retired}
            onClick={() => put({ retired: !dust.retired })}
          >
            No longer offered
          </button>
        )}
        <button type="button" className="choice" onClick={onDone}>
          Cancel
        </button>
      </div>
      <FieldProblems id="dust-form" problems={problems} />
    </div>
  );
};
