import type { Machine } from '@/core/machine/machine';
import { METHODS } from '@/core/measure/methods';
import type { ReducedTest } from '@/core/measure/reduce-test';
import type { JudgedSeries } from '@/core/status/judge-test';
import { show, showParts, type UnitSystem } from '@/core/units';
import { sayFinding } from '@/messages/findings';
import { sayMass } from '@/messages/outcomes';
import { pressingFirst, type Statement, sayBaseline, sayHose } from '@/messages/verdicts';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import { lineWord } from '@/messages/words';
import { BigNumber } from './big-number';
import { ToneMark } from './tone-mark';
import { Working } from './working';

/** A verdict: its mark, its sentence, and its basis. */
export const Sentence = ({ said, lead }: { said: Statement; lead: boolean }) => (
  <div>
    <ToneMark tone={said.tone} word={said.mark} />
    <p className={lead ? 'text-lg leading-snug font-bold' : 'leading-snug font-semibold'}>{said.sentence}</p>
    <p className="soft text-sm leading-snug">{said.detail}</p>
  </div>
);

const Numbers = ({ reduced, units, line }: { reduced: ReducedTest; units: UnitSystem; line: string }) => {
  const kind = METHODS[reduced.method].result;
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
          plusMinus={
            reduced.hoseVelocityExpandedMs === null
              ? undefined
              : show('velocity', reduced.hoseVelocityExpandedMs, units)
          }
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

interface SeriesProps {
  readonly judged: JudgedSeries;
  readonly units: UnitSystem;
  readonly machine: Pick<Machine, 'kind' | 'timeZone'>;
  /** Mass of a new part, for a filter on the scale, kg. */
  readonly newMassKg: number | null;
}

/** A series test with its verdict: the same card while typing and in the record. */
export const SeriesResult = ({ judged, units, machine, newMassKg }: SeriesProps) => {
  const { reduced, baseline, hose, findings } = judged;
  const saidHose = sayHose(hose, units);
  const first =
    newMassKg === null ? sayBaseline(baseline, reduced.measurand) : sayMass(reduced.repeats.mean, newMassKg);
  const said = [first, ...(saidHose ? [saidHose] : []), ...findings.map((f) => sayFinding(f, units))];
  const ordered = pressingFirst(said);
  return (
    <>
      {ordered.slice(0, 2).map((s, i) => (
        <Sentence key={s.mark + s.sentence} said={s} lead={i === 0} />
      ))}
      <Numbers reduced={reduced} units={units} line={lineWord(MACHINE_KINDS[machine.kind].line)} />
      {ordered.slice(2).map((s) => (
        <Sentence key={s.mark + s.sentence} said={s} lead={false} />
      ))}
      <Working reduced={reduced} units={units} baselineRecord={judged.baselineRecord} timeZone={machine.timeZone} />
    </>
  );
};
