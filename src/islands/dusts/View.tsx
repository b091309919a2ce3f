import { useEffect, useMemo, useState } from 'react';
import {
  CLEANING_WAYS,
  type Dust,
  DUST_FAMILIES,
  DUST_QUESTIONS,
  NEEDED_CLASSES,
  type NeededClass,
  REFERRALS,
  RULE_SETS,
  type RuleSet,
} from '@/core/dust/dust';
import { DUST_HAZARDS } from '@/core/dust/level';
import { matchDusts } from '@/core/dust/match';
import { builtIn, registerOf } from '@/core/dust/register';
import { normalised } from '@/core/dust/text';
import {
  CLEANING_WORDS,
  FAMILY_WORDS,
  NEEDED_WORDS,
  PROPERTY_WORDS,
  QUESTION_WORDS,
  REFERRAL_WORDS,
  RULE_SET_WORDS,
  sayLimit,
  sayNeededClass,
} from '@/messages/dust';
import type { Problem } from '@/messages/failures';
import { capital, HAZARD_WORDS } from '@/messages/words';
import { setChoice } from '@/ui/cookies';
import { FieldProblems } from '@/ui/problems';
import { usePostOnce } from '@/ui/use-post-once';

interface RegisterProps {
  readonly ownDusts: readonly Dust[];
  readonly ruleSet: RuleSet;
  readonly by: string;
}

const BLANK: Dust = {
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
};

/** The fields of an own dust, or of the site's edit of a shipped one; a shipped one is never made less than it ships as. */
const Form = ({
  first,
  by,
  setBy,
  onDone,
}: {
  readonly first: Dust;
  readonly by: string;
  readonly setBy: (by: string) => void;
  readonly onDone: () => void;
}) => {
  const [d, setD] = useState<Dust>(first);
  const [words, setWords] = useState(first.synonyms.join(', '));
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const shipped = builtIn(first.key) !== null;
  const put = (over: Partial<Dust>) => setD((held) => ({ ...held, ...over }));
  const save = async () => {
    const upper = by.trim().toUpperCase();
    const synonyms = [
      ...new Set(
        words
          .split(',')
          .map(normalised)
          .filter((w) => w.length >= 2),
      ),
    ];
    const posted = await post('/api/dusts', {
      by: upper,
      dust: {
        ...d,
        key: d.key === '' ? keyOf(d.name) : d.key,
        synonyms: shipped ? [...new Set([...first.synonyms, ...synonyms])] : synonyms,
      },
    });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (!posted.ok) return;
    setChoice('mw_by', upper);
    onDone();
  };
  return (
    <div className="panel space-y-2 p-3">
      <div className="flex flex-wrap gap-2">
        <label className="block min-w-0 flex-1 basis-56">
          <span className="caption">Name</span>
          <input
            className="field"
            value={d.name}
            maxLength={80}
            disabled={shipped}
            onChange={(e) => put({ name: e.currentTarget.value })}
          />
        </label>
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
      <label className="block">
        <span className="caption">Words people type for it, apart by commas</span>
        <textarea
          className="field"
          rows={2}
          value={words}
          maxLength={4000}
          onChange={(e) => setWords(e.currentTarget.value)}
        />
      </label>
      <div className="flex flex-wrap gap-2">
        <label className="block min-w-0 flex-1 basis-56">
          <span className="caption">On the waste label</span>
          <input
            className="field"
            value={d.waste}
            maxLength={120}
            onChange={(e) => put({ waste: e.currentTarget.value })}
          />
        </label>
        <label className="block min-w-0 flex-1 basis-56">
          <span className="caption">What else to know</span>
          <input
            className="field"
            value={d.note}
            maxLength={400}
            onChange={(e) => put({ note: e.currentTarget.value })}
          />
        </label>
      </div>
      <fieldset>
        <legend className="caption">A reusable filter may be cleaned after it</legend>
        <div className="flex flex-wrap gap-1">
          {CLEANING_WAYS.map((w) => (
            <button
              key={w}
              type="button"
              className="choice text-sm"
              aria-pressed={d.cleanedBy.includes(w)}
              onClick={() =>
                put({ cleanedBy: d.cleanedBy.includes(w) ? d.cleanedBy.filter((x) => x !== w) : [...d.cleanedBy, w] })
              }
            >
              {CLEANING_WORDS[w]}
            </button>
          ))}
        </div>
      </fieldset>
      <fieldset>
        <legend className="caption">Asked whenever it is named; contained until it is answered</legend>
        <div className="flex flex-wrap gap-1">
          {DUST_QUESTIONS.map((q) => (
            <button
              key={q}
              type="button"
              className="choice text-sm"
              aria-pressed={d.asks.includes(q)}
              onClick={() => put({ asks: d.asks.includes(q) ? d.asks.filter((x) => x !== q) : [...d.asks, q] })}
            >
              {QUESTION_WORDS[q]}
            </button>
          ))}
        </div>
      </fieldset>
      <div className="flex flex-wrap items-end gap-1">
        <label className="block w-20">
          <span className="caption">Initials</span>
          <input
            className="field"
            value={by}
            maxLength={12}
            autoComplete="off"
            onChange={(e) => setBy(e.currentTarget.value)}
          />
        </label>
        <button
          type="button"
          className="go"
          disabled={by.trim() === '' || d.name.trim() === ''}
          onClick={() => void save()}
        >
          Keep it in the register
        </button>
        {!shipped && first.key !== '' && (
          <button
            type="button"
            className="choice"
            aria-pressed={d.retired}
            onClick={() => put({ retired: !d.retired })}
          >
            No longer offered
          </button>
        )}
        <button type="button" className="choice" onClick={onDone}>
          Leave it
        </button>
      </div>
      <FieldProblems id="dust-form" problems={problems} />
    </div>
  );
};

const Entry = ({
  dust,
  ruleSet,
  onEdit,
}: {
  readonly dust: Dust;
  readonly ruleSet: RuleSet;
  readonly onEdit: () => void;
}) => (
  <li className="py-2" data-dust={dust.key}>
    <div className="grid gap-x-6 gap-y-1 sm:grid-cols-[minmax(0,3fr)_minmax(0,4fr)_auto]">
      <div>
        <p className="font-bold">
          {capital(dust.name)}
          {dust.retired && <span className="soft font-normal"> (no longer offered)</span>}
        </p>
        <p className="soft text-sm">
          {FAMILY_WORDS[dust.family]}
          {dust.properties.length > 0 && `: ${dust.properties.map((p) => PROPERTY_WORDS[p]).join(', ')}`}
        </p>
      </div>
      <div className="text-sm">
        <p className={dust.refused ? 'tone-stop font-bold' : 'font-semibold'}>
          {dust.refused
            ? `Refused. ${REFERRAL_WORDS[dust.refused]}`
            : `${capital(HAZARD_WORDS[dust.level])}. ${sayNeededClass(dust)}`}
        </p>
        {dust.limits.length > 0 && (
          <p className="soft">
            {dust.limits.map(sayLimit).join('; ')}. {RULE_SET_WORDS[ruleSet]} rules here: check your local limit.
          </p>
        )}
        {dust.asks.length > 0 && (
          <p className="tone-watch">Asks: {dust.asks.map((q) => QUESTION_WORDS[q]).join(' ')}</p>
        )}
        {dust.note && <p className="soft">{dust.note}</p>}
        <details>
          <summary className="soft min-h-11 cursor-pointer py-2">{dust.synonyms.length} words lead to it</summary>
          <p className="soft break-words">{dust.synonyms.join(', ')}</p>
        </details>
      </div>
      <button type="button" className="choice self-start text-sm font-semibold" onClick={onEdit}>
        Edit
      </button>
    </div>
  </li>
);

/** Whose limits the site works to; where they disagree both are shown, and the stricter governs. */
const Rules = ({ ruleSet, by }: { readonly ruleSet: RuleSet; readonly by: string }) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const choose = async (wanted: RuleSet) => {
    const posted = await post('/api/rule-set', { by: by.trim().toUpperCase(), ruleSet: wanted });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (posted.ok) window.location.reload();
  };
  return (
    <div>
      <div role="group" aria-label="Rules this site works to" className="flex flex-wrap items-center gap-1">
        <span className="font-semibold">Rules this site works to:</span>
        {RULE_SETS.map((r) => (
          <button
            key={r}
            type="button"
            className="choice px-4 font-semibold"
            aria-pressed={r === ruleSet}
            disabled={by.trim() === '' && r !== ruleSet}
            onClick={() => void choose(r)}
          >
            {RULE_SET_WORDS[r]}
          </button>
        ))}
        <span className="soft text-sm">
          {by.trim() === '' ? 'Initials first.' : 'Where they disagree both are shown, and the stricter governs.'}
        </span>
      </div>
      <FieldProblems id="rule-problems" problems={problems} />
    </div>
  );
};

/** The register of dusts: found by what people type, each with what follows from it; the site's own beside what ships. */
export const Register = ({ ownDusts, ruleSet, by: first }: RegisterProps) => {
  const register = useMemo(() => registerOf(ownDusts), [ownDusts]);
  const [typed, setTyped] = useState('');
  const [editing, setEditing] = useState<Dust | null>(null);
  const [by, setBy] = useState(first);
  useEffect(() => {
    document.documentElement.dataset['dusts'] = 'ready';
  }, []);
  const { matches } = useMemo(() => matchDusts(register, typed), [register, typed]);
  const wanted = normalised(typed);
  const shown =
    wanted === ''
      ? register
      : register.filter((d) => matches.some((m) => m.key === d.key) || normalised(d.name).includes(wanted));
  return (
    <div className="space-y-3 py-2">
      <div className="flex flex-wrap items-end gap-2">
        <label className="block min-w-0 flex-1 basis-72">
          <span className="caption">What would somebody type?</span>
          <input
            className="field"
            value={typed}
            maxLength={120}
            autoComplete="off"
            placeholder="Bleimennige, ash veneer, concrete..."
            onChange={(e) => setTyped(e.currentTarget.value)}
          />
        </label>
        <button type="button" className="go" onClick={() => setEditing({ ...BLANK, name: typed })}>
          Add a dust
        </button>
      </div>
      <div className="flex flex-wrap items-end gap-4">
        {!editing && (
          <label className="block w-20">
            <span className="caption">Initials</span>
            <input
              className="field"
              value={by}
              maxLength={12}
              autoComplete="off"
              onChange={(e) => setBy(e.currentTarget.value)}
            />
          </label>
        )}
        <Rules ruleSet={ruleSet} by={by} />
      </div>
      {editing && (
        <Form key={editing.key} first={editing} by={by} setBy={setBy} onDone={() => window.location.reload()} />
      )}
      {shown.length === 0 && (
        <p className="py-4 font-semibold">
          Nothing in the register is called that. A machine that collects it is opened contained until it is answered
          what it is; or add it.
        </p>
      )}
      <ul className="divide-base-300 border-base-300 divide-y border-y">
        {shown.map((d) => (
          <Entry key={d.key} dust={d} ruleSet={ruleSet} onEdit={() => setEditing(d)} />
        ))}
      </ul>
    </div>
  );
};
