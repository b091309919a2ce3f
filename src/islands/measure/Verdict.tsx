import type { MachineKind } from '@/core/machine/kinds';
import { METHODS } from '@/core/measure/methods';
import type { ReducedTest } from '@/core/measure/reduce-test';
import { show, showParts, type UnitSystem } from '@/core/units';
import { sayFinding } from '@/messages/findings';
import type { Problem } from '@/messages/failures';
import { sayMass, sayOther } from '@/messages/outcomes';
import { pressingFirst, type Said, sayBaseline, sayHose } from '@/messages/verdicts';
import { sayQuestion } from '@/messages/warnings';
import { lineWord } from '@/messages/words';
import { BigNumber } from '@/ui/big-number';
import { ToneMark } from '@/ui/tone-mark';
import type { Judged, Live } from './live';
import { CurveWorking, Working } from './Working';

const Sentence = ({ said, lead }: { said: Said; lead: boolean }) => (
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
  readonly judged: Judged;
  readonly units: UnitSystem;
  readonly kind: MachineKind;
  readonly newMassKg: number | null;
}

const Series = ({ judged, units, kind, newMassKg }: SeriesProps) => {
  const { reduced, baseline, hose, findings } = judged;
  const saidHose = sayHose(hose, units);
  const first =
    newMassKg === null ? sayBaseline(baseline, reduced.measurand) : sayMass(reduced.repeats.mean, newMassKg);
  const said = [first, ...(saidHose ? [saidHose] : []), ...findings.map((f) => sayFinding(f, units))];
  const ordered = pressingFirst(said);
  return (
    <>
      {judged.question && (
        <p className="tone-watch border-l-4 pl-2 font-bold" style={{ borderColor: 'var(--color-warning)' }}>
          {sayQuestion(judged.question)}
        </p>
      )}
      {ordered.slice(0, 2).map((s, i) => (
        <Sentence key={s.mark + s.sentence} said={s} lead={i === 0} />
      ))}
      <Numbers reduced={reduced} units={units} line={lineWord(kind)} />
      {ordered.slice(2).map((s) => (
        <Sentence key={s.mark + s.sentence} said={s} lead={false} />
      ))}
      <Working reduced={reduced} units={units} baselineRecord={judged.baselineRecord} />
    </>
  );
};

interface VerdictProps {
  readonly live: Live;
  /** What is not whole yet. */
  readonly waiting: readonly Problem[];
  readonly units: UnitSystem;
  readonly kind: MachineKind;
  readonly stageName: string;
  readonly newMassKg: number | null;
  /** Preconditions are still to be ticked: what is shown holds once they are. */
  readonly unticked: boolean;
}

/** The sentence first, the number second, the working one tap away. */
export const Verdict = ({ live, waiting, units, kind, stageName, newMassKg, unticked }: VerdictProps) => {
  if (live.form === 'nothing') {
    return (
      <div className="soft p-2">
        {waiting.length > 0 ? (
          waiting.map((p) => (
            <div key={p.code}>
              <p className="text-lg font-bold">{p.sentence}</p>
              <p className="text-sm">{p.hint}</p>
            </div>
          ))
        ) : (
          <>
            <p className="text-lg font-bold">The verdict appears here as you type.</p>
            <p className="text-sm">
              Mean, spread, 95 % interval, velocity in the hose, against this machine's own baseline.
            </p>
          </>
        )}
      </div>
    );
  }
  return (
    <div className="space-y-3" aria-live="polite">
      {unticked && (
        <p className="tone-watch text-sm font-bold">
          Recorded like this it is kept and never used: tick what was seen to.
        </p>
      )}
      {live.form === 'series' ? (
        <Series judged={live.judged} units={units} kind={kind} newMassKg={newMassKg} />
      ) : (
        <>
          <Sentence said={sayOther(live.reduced, units, stageName)} lead />
          {live.reduced.form === 'curve' && (
            <BigNumber
              number={live.reduced.curve.peak.airPowerW.toFixed(0)}
              unit="W"
              label="peak air power"
              plusMinus={
                live.reduced.curve.peak.expandedW === null
                  ? undefined
                  : `${live.reduced.curve.peak.expandedW.toFixed(0)} W at 95 %`
              }
            />
          )}
          {live.reduced.form === 'curve' && (
            <CurveWorking curve={live.reduced.curve} points={live.reduced.points} units={units} />
          )}
        </>
      )}
    </div>
  );
};
