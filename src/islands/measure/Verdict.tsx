import type { MeasuredMachine } from '@/core/machine/machine';
import { type UnitSystem, fixed } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { sayOther } from '@/messages/outcomes';
import { sayQuestion } from '@/messages/warnings';
import { BigNumber } from '@/ui/big-number';
import { Sentence, SeriesResult } from '@/ui/series-result';
import { CurveWorking } from '@/ui/working';
import type { LiveNow } from './use-judge';

interface VerdictProps {
  readonly live: LiveNow;
  /** Incomplete inputs. */
  readonly waiting: readonly Problem[];
  readonly units: UnitSystem;
  readonly machine: Pick<MeasuredMachine, 'kind' | 'timeZone'>;
  readonly stageName: string;
  readonly newMassKg: number | null;
  /** Checks are still open: the shown result is valid once they are made. */
  readonly unticked: boolean;
}

/** The sentence first, the number second, the working one tap away. */
export const Verdict = ({ live, waiting, units, machine, stageName, newMassKg, unticked }: VerdictProps) => {
  if (live.form === 'loading') return <p className="soft p-2">Loading the verdict...</p>;
  if (live.form === 'notLoaded')
    return (
      <p className="tone-watch p-2 font-bold" role="status">
        The verdict could not be loaded. The readings can be recorded all the same: the record shows the verdict.
      </p>
    );
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
      {unticked && <p className="tone-watch text-sm font-bold">Will not count: tick the conditions.</p>}
      {live.form === 'series' ? (
        <>
          {live.judged.question && (
            <p className="tone-watch border-l-4 pl-2 font-bold" style={{ borderColor: 'var(--color-warning)' }}>
              {sayQuestion(live.judged.question)}
            </p>
          )}
          <SeriesResult judged={live.judged} units={units} machine={machine} newMassKg={newMassKg} />
        </>
      ) : (
        <>
          <Sentence said={sayOther(live.reduced, units, stageName)} lead />
          {live.reduced.form === 'curve' && (
            <BigNumber
              number={fixed(live.reduced.curve.peak.airPowerW, 0)}
              unit="W"
              label="peak air power"
              plusMinus={
                live.reduced.curve.peak.expandedW === null
                  ? undefined
                  : `${fixed(live.reduced.curve.peak.expandedW, 0)} W at 95 %`
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
