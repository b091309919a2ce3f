import type { Dust, RuleSet } from '@/core/dust/dust';
import {
  FAMILY_WORDS,
  PROPERTY_WORDS,
  QUESTION_WORDS,
  REFERRAL_WORDS,
  RULE_SET_WORDS,
  sayLimit,
  sayNeededClass,
} from '@/messages/dust';
import { capital, HAZARD_WORDS } from '@/messages/words';

/** One dust of the register and what follows from it. */
export const Entry = ({
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
          <summary className="soft min-h-11 cursor-pointer py-2">Found by {dust.synonyms.length} words</summary>
          <p className="soft break-words">{dust.synonyms.join(', ')}</p>
        </details>
      </div>
      <button type="button" className="choice self-start text-sm font-semibold" onClick={onEdit}>
        Edit
      </button>
    </div>
  </li>
);
