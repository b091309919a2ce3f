import { dayAt } from '@/core/calendar/calendar-date';
import { boreAreaM2 } from '@/core/measure/bore-flow';
import { METHODS } from '@/core/measure/methods';
import type { ReducedTest } from '@/core/measure/reduce-test';
import type { CurvePoint, SuctionCurve } from '@/core/measure/suction-curve';
import type { RigPart } from '@/core/measure/series-values';
import type { TestRecord } from '@/core/record/records';
import { showFine, type UnitSystem, fixed, significant } from '@/core/units';

interface WorkingStep {
  readonly what: string;
  readonly figure: string;
  readonly source: string;
}

const RIG_WORDS: Record<RigPart, string> = {
  bore: 'bore of the rig',
  profileFactor: 'profile factor',
  traverse: 'traverse rule',
  plate: 'plate coefficient',
  density: 'air density',
};

const spreadSteps = ({ repeats, method, rigParts }: ReducedTest, units: UnitSystem): readonly WorkingStep[] => {
  const kind = METHODS[method].result;
  const steps: WorkingStep[] = [
    { what: `mean of ${repeats.n}`, figure: showFine(kind, repeats.mean, units), source: 'GUM 4.2.1' },
  ];
  if (repeats.deviation !== null)
    steps.push({ what: 'standard deviation s', figure: showFine(kind, repeats.deviation, units), source: 'GUM 4.2.2' });
  if (repeats.repeatUncertainty !== null) {
    const from = repeats.displayLimited ? 'all alike: display step / √12' : 's / √n';
    steps.push({
      what: `of the mean, ${from}`,
      figure: showFine(kind, repeats.repeatUncertainty, units),
      source: 'GUM 4.2.3',
    });
  }
  steps.push({
    what: 'instrument, standard uncertainty',
    figure:
      repeats.instrumentUncertainty === null
        ? 'not known, left out'
        : showFine(kind, repeats.instrumentUncertainty, units),
    source: 'GUM 4.3.7',
  });
  for (const { name, relative } of rigParts) {
    steps.push({
      what: `${RIG_WORDS[name]}, standard uncertainty`,
      figure: showFine(kind, relative * Math.abs(repeats.mean), units),
      source: 'limits / √3, GUM 4.3.7',
    });
  }
  if (repeats.studentFactor !== null && repeats.degreesOfFreedom !== null && repeats.expanded !== null) {
    const dof = repeats.degreesOfFreedom < 1000 ? fixed(repeats.degreesOfFreedom, 1) : 'over 1000';
    steps.push({
      what: `Student's factor, ${dof} degrees of freedom`,
      figure: fixed(repeats.studentFactor, 3),
      source: 'GUM G.4',
    });
    steps.push({ what: 'half the 95 % interval', figure: showFine(kind, repeats.expanded, units), source: 'GUM G.3' });
  }
  return steps;
};

const airSteps = (reduced: ReducedTest, units: UnitSystem): readonly WorkingStep[] => {
  const steps: WorkingStep[] = [
    { what: 'air density', figure: showFine('density', reduced.densityKgM3, units), source: 'CIPM-2007, ideal gas' },
  ];
  if (reduced.standardFlowM3s !== null) {
    steps.push({
      what: 'flow × density / 1.2 kg/m³',
      figure: showFine('flow', reduced.standardFlowM3s, units),
      source: 'standard air, 1.2 kg/m³',
    });
  }
  if (reduced.hoseBoreM !== null && reduced.hoseVelocityMs !== null) {
    const area = showFine('area', boreAreaM2(reduced.hoseBoreM), units);
    steps.push({
      what: `flow / hose area ${area}`,
      figure: showFine('velocity', reduced.hoseVelocityMs, units),
      source: 'continuity',
    });
  }
  return steps;
};

interface WorkingProps {
  readonly reduced: ReducedTest;
  readonly units: UnitSystem;
  readonly baselineRecord: TestRecord | null;
  /** Where the days are counted. */
  readonly timeZone: string;
}

/** How the number was reached, step by step, with the source of each. */
export const Working = ({ reduced, units, baselineRecord, timeZone }: WorkingProps) => (
  <details className="border-base-300 border-t">
    <summary className="flex min-h-11 cursor-pointer items-center font-semibold underline underline-offset-4">
      How was this reached?
    </summary>
    <dl className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 gap-y-1 pb-2 text-sm">
      {[...spreadSteps(reduced, units), ...airSteps(reduced, units)].map((s) => (
        <div key={s.what} className="contents">
          <dt>
            {s.what} <span className="soft text-xs">({s.source})</span>
          </dt>
          <dd className="dial text-right font-medium">{s.figure}</dd>
        </div>
      ))}
    </dl>
    <p className="soft pb-2 text-sm">
      {baselineRecord
        ? `Baseline: ${dayAt(baselineRecord.performedAt, timeZone)}, ${baselineRecord.test.readingsSi.length} readings, by ${baselineRecord.by}. Compared as actual volume flow; one instrument on both sides cancels its own error.`
        : 'No baseline of this place and method is on record.'}
    </p>
  </details>
);

interface CurveWorkingProps {
  readonly curve: SuctionCurve;
  readonly points: readonly CurvePoint[];
  readonly units: UnitSystem;
}

/** The points behind a suction curve, what the curve misses them by, and its coefficients. */
export const CurveWorking = ({ curve, points, units }: CurveWorkingProps) => (
  <details className="border-base-300 border-t">
    <summary className="flex min-h-11 cursor-pointer items-center font-semibold underline underline-offset-4">
      How was this reached?
    </summary>
    <table className="w-full text-sm">
      <thead>
        <tr className="text-left">
          <th>flow (C e A √(2 dp / rho))</th>
          <th>suction</th>
          <th>off the curve</th>
        </tr>
      </thead>
      <tbody className="dial">
        {points.map((p, i) => (
          <tr key={i}>
            <td>{showFine('flow', p.flowM3s, units)}</td>
            <td>{showFine('pressure', p.suctionPa, units)}</td>
            <td>{showFine('pressure', curve.residualsPa[i] ?? 0, units)}</td>
          </tr>
        ))}
      </tbody>
    </table>
    <p className="soft py-2 text-sm">
      Suction = {fixed(curve.p0Pa, 0)} Pa - {significant(curve.bPaSM3, 4)} Q - {significant(curve.cPaS2M6, 4)} Q² (Q in
      m³/s), least squares, bounded to falling curves. Expansibility by ISO 5167-2; air power is suction times flow, as
      in ASTM F558 but in SI.
    </p>
  </details>
);
