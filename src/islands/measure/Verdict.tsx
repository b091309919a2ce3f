import type { MachineKind } from '@/core/machine/kinds';
import type { Measurand } from '@/core/machine/plausible';
import type { ReducedTest } from '@/core/measure/reduce-test';
import { show, showParts, type UnitSystem } from '@/core/units';
import { type Said, sayBaseline, sayHose } from '@/messages/verdicts';
import { sayQuestion } from '@/messages/warnings';
import { lineWord } from '@/messages/words';
import { BigNumber } from '@/ui/big-number';
import { ToneMark } from '@/ui/tone-mark';
import type { Live } from './live';
import { Working } from './Working';

const Sentence = ({ said, lead }: { said: Said; lead: boolean }) => (
  <div>
    <ToneMark tone={said.tone} word={said.mark} />
    <p className={lead ? 'text-lg leading-snug font-bold' : 'leading-snug font-semibold'}>{said.sentence}</p>
    <p className="soft text-sm leading-snug">{said.detail}</p>
  </div>
);

const kindOf = (measurand: Measurand) => (measurand === 'flow' ? 'flow' : 'pressure');

const Numbers = ({ reduced, units, line }: { reduced: ReducedTest; units: UnitSystem; line: string }) => {
  const kind = kindOf(reduced.measurand);
  const { repeats } = reduced;
  const shown = showParts(kind, repeats.mean, units);
  const velocity = reduced.hoseVelocityMs === null ? null : showParts('velocity', reduced.hoseVelocityMs, units);
  const standard = reduced.standardFlowM3s === null ? null : showParts('flow', reduced.standardFlowM3s, units);
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-2">
      <BigNumber
        number={shown.number}
        unit={shown.unit}
        label={`mean of ${repeats.n}${reduced.measurand === 'flow' ? ', actual flow' : ''}`}
        plusMinus={repeats.expanded === null ? undefined : `${show(kind, repeats.expanded, units)} at 95 %`}
      />
      {velocity && (
        <BigNumber
          number={velocity.number}
          unit={velocity.unit}
          label={`in the ${line}`}
          plusMinus={reduced.hoseVelocityExpandedMs === null ? undefined : show('velocity', reduced.hoseVelocityExpandedMs, units)}
        />
      )}
      <BigNumber
        size="small"
        number={repeats.deviation === null ? '-' : showParts(kind, repeats.deviation, units).number}
        unit={shown.unit}
        label={repeats.displayLimited ? 'spread: none, the display limits it' : 'spread (s)'}
      />
      {standard && <BigNumber size="small" number={standard.number} unit={standard.unit} label="flow at 1.2 kg/m³" />}
    </div>
  );
};

interface VerdictProps {
  readonly live: Live;
  readonly units: UnitSystem;
  readonly kind: MachineKind;
  /** Preconditions are still to be ticked: what is shown holds once they are. */
  readonly unticked: boolean;
}

/** The sentence first, the number second, the working one tap away. */
export const Verdict = ({ live, units, kind, unticked }: VerdictProps) => {
  const { reduced, baseline, hose } = live;
  if (!reduced || !baseline || !hose) {
    return (
      <div className="soft flex h-full flex-col justify-center p-2">
        <p className="text-lg font-bold">The verdict appears here as you type.</p>
        <p className="text-sm">Mean, spread, 95 % interval, velocity in the hose, against this machine's own baseline.</p>
      </div>
    );
  }
  const saidHose = sayHose(hose, units);
  const saidBaseline = sayBaseline(baseline, reduced.measurand);
  const both = [saidBaseline, ...(saidHose ? [saidHose] : [])];
  const ordered = saidHose?.tone === 'stop' && saidBaseline.tone !== 'stop' ? [...both].reverse() : both;
  return (
    <div className="space-y-3" aria-live="polite">
      {live.question && (
        <p className="tone-watch border-l-4 pl-2 font-bold" style={{ borderColor: 'var(--color-warning)' }}>
          {sayQuestion(live.question)}
        </p>
      )}
      {unticked && <p className="tone-watch text-sm font-bold">Recorded like this it is kept and never used: tick what was seen to.</p>}
      {ordered.map((said, i) => (
        <Sentence key={said.mark + said.sentence} said={said} lead={i === 0} />
      ))}
      <Numbers reduced={reduced} units={units} line={lineWord(kind)} />
      <Working reduced={reduced} units={units} baselineRecord={live.baselineRecord} />
    </div>
  );
};
