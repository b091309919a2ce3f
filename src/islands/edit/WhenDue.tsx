import { offeredRules, type RuleTemplate } from '@/core/interval/rule-templates';
import { type RuleOf, usualRules } from '@/core/machine/usual-rules';
import { sayRule } from '@/messages/needs';
import { Tick } from './fields';
import type { DraftStage, EditAction } from './state';

interface WhenDueProps {
  readonly stage: DraftStage;
  readonly of: RuleOf;
  readonly dispatch: (action: EditAction) => void;
}

const same = (a: RuleTemplate, b: RuleTemplate): boolean => JSON.stringify(a.rule) === JSON.stringify(b.rule);

/** The rules of a new stage: the usual ones are ticked; with none ticked, a sentence says what that means. */
export const WhenDue = ({ stage, of, dispatch }: WhenDueProps) => {
  const offered = offeredRules(stage.kind);
  if (offered.length === 0) return null;
  const ticked = stage.rules ?? usualRules(stage.kind, of);
  const list = [...offered, ...ticked.filter((t) => !offered.some((o) => same(o, t)))];
  const turn = (rule: RuleTemplate, on: boolean) =>
    dispatch({
      type: 'stage',
      key: stage.key,
      change: { rules: list.filter((t) => (same(t, rule) ? on : ticked.some((x) => same(x, t)))) },
    });
  return (
    <fieldset>
      <legend className="font-bold">When is it due? The first rule reached counts.</legend>
      {ticked.length === 0 && (
        <p className="tone-watch text-sm font-semibold">
          Nothing ticked: it is never due by itself. Nobody will be told to look at it.
        </p>
      )}
      <div className="grid gap-x-4 sm:grid-cols-2">
        {list.map((t) => (
          <Tick
            key={JSON.stringify(t.rule)}
            label={sayRule(t.rule)}
            hint={t.school}
            on={ticked.some((x) => same(x, t))}
            onTick={(on) => turn(t, on)}
          />
        ))}
      </div>
    </fieldset>
  );
};
