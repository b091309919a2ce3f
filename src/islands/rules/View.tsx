import { X } from 'lucide-react';
import { useState } from 'react';
import { offeredRules, type RuleTemplate } from '@/core/interval/rule-templates';
import { figureOf } from '@/core/interval/rules';
import type { Machine, Stage, MachineAirPath } from '@/core/machine/machine';
import type { Problem } from '@/messages/failures';
import { sayRule } from '@/messages/needs';
import { capital } from '@/messages/words';
import { setChoice } from '@/ui/cookies';
import { FieldProblems } from '@/ui/problems';
import { InitialsField } from '@/ui/text-fields';
import { usePostOnce } from '@/ui/use-post-once';

interface RulesProps {
  readonly machine: Machine;
  readonly by: string;
}

/** Counts of, and company with, the other stages of this machine. */
const companyOf = (machine: MachineAirPath, stage: Stage): readonly RuleTemplate[] =>
  machine.stages
    .filter((s) => s.id !== stage.id && s.rules.length > 0)
    .flatMap((s): readonly RuleTemplate[] => [
      {
        rule: { kind: 'countOfChanges', countedStageId: s.id, countedStageName: s.name, count: 5 },
        school: `by the ${s.name}`,
      },
      {
        rule: { kind: 'together', stageId: s.id, stageName: s.name, how: 'rightAfter' },
        school: `right after the ${s.name}`,
      },
    ]);

interface RuleLineProps {
  readonly line: RuleTemplate;
  readonly setRule: (rule: RuleTemplate['rule']) => void;
  readonly takeOut: () => void;
}

const RuleLine = ({ line: { rule, school }, setRule, takeOut }: RuleLineProps) => {
  const figure = figureOf(rule);
  return (
    <li className="flex flex-wrap items-center gap-2">
      {figure && (
        <label className="flex items-center gap-1">
          <span className="sr-only">
            {figure.unit} of: {sayRule(rule)}
          </span>
          <input
            className="field w-20"
            inputMode="decimal"
            defaultValue={figure.value}
            onChange={(e) => {
              const n = Number(e.currentTarget.value.replace(',', '.'));
              if (Number.isFinite(n)) setRule(figure.with(n));
            }}
          />
          {figure.unit}
        </label>
      )}
      <span className="min-w-0 flex-1">
        <strong>{capital(sayRule(rule))}</strong> <span className="soft text-sm">{school}</span>
      </span>
      <button type="button" className="choice" aria-label={`Remove: ${sayRule(rule)}`} onClick={takeOut}>
        <X size={16} aria-hidden="true" />
      </button>
    </li>
  );
};

const StageRules = ({
  machine,
  stage,
  by,
  onSaved,
}: RulesProps & { readonly stage: Stage; readonly onSaved: () => void }) => {
  const [rules, setRules] = useState<readonly RuleTemplate[]>(
    stage.rules.map(({ rule, school }) => ({ rule, school })),
  );
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [initials, setInitials] = useState(by);
  const post = usePostOnce();
  const offered = [...offeredRules(stage.kind), ...companyOf(machine, stage)];
  const changed = JSON.stringify(rules) !== JSON.stringify(stage.rules.map(({ rule, school }) => ({ rule, school })));
  const save = async () => {
    const upper = initials.trim().toUpperCase();
    const posted = await post(`/api/machines/${encodeURIComponent(machine.tag)}/rules`, {
      by: upper,
      stageId: stage.id,
      rules,
    });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (!posted.ok) return;
    setChoice('mw_by', upper);
    onSaved();
  };
  return (
    <div className="space-y-1 pb-3">
      <ul>
        {rules.map((r, i) => (
          <RuleLine
            key={`${i}-${r.rule.kind}`}
            line={r}
            setRule={(rule) => setRules(rules.map((x, k) => (k === i ? { ...x, rule } : x)))}
            takeOut={() => setRules(rules.filter((_, k) => k !== i))}
          />
        ))}
        {rules.length === 0 && <li className="soft">No rule: never due by itself.</li>}
      </ul>
      <div className="flex flex-wrap items-end gap-1">
        <select
          className="field max-w-72"
          aria-label={`Add a rule to the ${stage.name}`}
          value=""
          onChange={(e) => {
            const t = offered[Number(e.currentTarget.value)];
            if (t) setRules([...rules, t]);
          }}
        >
          <option value="">Add a rule...</option>
          {offered.map((t, i) => (
            <option key={`${i}-${t.school}`} value={i}>
              {sayRule(t.rule)} ({t.school})
            </option>
          ))}
        </select>
        <InitialsField value={initials} onValue={setInitials} />
        <button type="button" className="choice font-semibold" disabled={!changed} onClick={() => void save()}>
          Save these rules
        </button>
      </div>
      <FieldProblems id={`rules-${stage.id}`} problems={problems} />
    </div>
  );
};

/** The rules of each stage, from the schools of the trade; the first one binds. */
export const Rules = ({ machine, by }: RulesProps) => (
  <div>
    {machine.stages
      .filter((s) => s.rules.length > 0 || offeredRules(s.kind).length > 0)
      .map((stage) => (
        <details key={stage.id}>
          <summary className="min-h-11 cursor-pointer py-2 font-semibold">
            {capital(stage.name)}:{' '}
            {stage.rules.length === 0 ? 'no rule' : stage.rules.map((r) => sayRule(r.rule)).join('; ')}
          </summary>
          <StageRules machine={machine} stage={stage} by={by} onSaved={() => window.location.reload()} />
        </details>
      ))}
  </div>
);
