import { useState } from 'react';
import { type CurvePoint, fitSuctionCurve } from '@/core/measure/suction-curve';
import { type FanCurve, fanOfPoints } from '@/core/path/model/fan';
import { show, type UnitSystem, fixed } from '@/core/units';
import { problemsOf } from '@/messages/failures';
import { FieldProblems } from '@/ui/problems';
import { QuantityField } from '@/ui/quantity-field';

interface FanPointsProps {
  readonly id: string;
  readonly units: UnitSystem;
  readonly onBad: (field: string, bad: boolean) => void;
  readonly use: (curve: FanCurve) => void;
}

interface Row {
  readonly flowM3s: number | null;
  readonly suctionPa: number | null;
}

const EMPTY: Row = { flowM3s: null, suctionPa: null };
const MOST_ROWS = 12;

const pointOf = ({ flowM3s, suctionPa }: Row): readonly CurvePoint[] =>
  flowM3s === null || suctionPa === null ? [] : [{ flowM3s, suctionPa }];

/** Suction at several flows, taken at the fan itself, and the curve through them. */
export const FanPoints = ({ id, units, onBad, use }: FanPointsProps) => {
  const [rows, setRows] = useState<readonly Row[]>([EMPTY, EMPTY, EMPTY, EMPTY]);
  const set = (at: number, change: Partial<Row>) =>
    setRows((now) => now.map((row, i) => (i === at ? { ...row, ...change } : row)));
  const points = rows.flatMap(pointOf);
  const fit = fitSuctionCurve(points);
  return (
    <details className="mt-3">
      <summary className="min-h-11 cursor-pointer py-2 font-bold">Fit it to a suction curve</summary>
      <p className="soft mb-2 text-sm">
        Suction at three or more flows at the fan itself: from the maker's sheet, or from a clean fan on the bench. No
        flow is sealed. Never run a machine that has held dust without its filters to get them.
      </p>
      <ol className="space-y-2">
        {rows.map((row, i) => (
          <li key={i} className="grid grid-cols-2 gap-2">
            <QuantityField
              id={`${id}-point-flow-${i}`}
              label={`Flow ${i + 1}`}
              kind="flow"
              units={units}
              valueSi={row.flowM3s}
              low={0}
              high={20}
              mayBeEmpty
              onBad={onBad}
              onValue={(flowM3s) => set(i, { flowM3s })}
            />
            <QuantityField
              id={`${id}-point-suction-${i}`}
              label={`Suction ${i + 1}`}
              kind="pressure"
              units={units}
              valueSi={row.suctionPa}
              low={0}
              high={90_000}
              mayBeEmpty
              onBad={onBad}
              onValue={(suctionPa) => set(i, { suctionPa })}
            />
          </li>
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        {rows.length < MOST_ROWS && (
          <button type="button" className="choice px-4 font-semibold" onClick={() => setRows([...rows, EMPTY])}>
            Another point
          </button>
        )}
        {fit.ok && (
          <button type="button" className="go" onClick={() => use(fanOfPoints(fit.value))}>
            Use this curve
          </button>
        )}
      </div>
      {fit.ok ? (
        <p className="mt-2 text-sm" role="status">
          {show('pressure', fit.value.p0Pa, units)} sealed; at most {fixed(fit.value.peak.airPowerW, 0)} W at{' '}
          {show('flow', fit.value.peak.flowM3s, units)}. The furthest point lies{' '}
          {show('pressure', Math.max(...fit.value.residualsPa.map(Math.abs)), units)} off the curve.
        </p>
      ) : (
        points.length >= 3 && <FieldProblems id={`${id}-points`} problems={problemsOf(fit.failures)} />
      )}
    </details>
  );
};
