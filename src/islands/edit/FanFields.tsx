import { type FanCurve, fanCoefficients, fanPeak, NOMINAL_DRIVE } from '@/core/path/model/fan';
import { REFERENCE_AIR } from '@/core/path/model/air';
import { show, type UnitSystem, fixed } from '@/core/units';
import { QuantityField } from '@/ui/quantity-field';
import { Choose, Grid } from './fields';
import type { AirProps } from './air-props';
import { FanPoints } from './FanPoints';

const asKind = (curve: FanCurve, kind: string): FanCurve => {
  const qMaxM3s = curve.kind === 'points' ? curve.rangeM3s[1] : curve.qMaxM3s;
  const base = { p0Pa: curve.p0Pa, qMaxM3s };
  if (kind === 'centrifugal') return { kind: 'centrifugal', ...base };
  if (kind === 'pneumatic') return { kind: 'pneumatic', ...base, nominalSupplyPa: 6.2e5 };
  return { kind: 'universal', ...base, a: 0.85 };
};

/** Peak air power of the curve, to compare with the air watts the maker prints. */
const Peak = ({ curve, units }: { curve: FanCurve; units: UnitSystem }) => {
  const fan = fanCoefficients(curve, NOMINAL_DRIVE, REFERENCE_AIR);
  if (!fan.ok) return null;
  const peak = fanPeak(fan.value);
  return (
    <p className="soft text-sm">
      {peak.inside
        ? `At most ${fixed(peak.airPowerW, 0)} W of air power, at ${show('flow', peak.flowM3s, units)}.`
        : `${fixed(peak.airPowerW, 0)} W of air power at the last point measured, and still rising.`}
    </p>
  );
};

/** The curve of a fan. */
export const FanFields = ({ stage, units, air, set, onBad }: AirProps<'fan'>) => {
  const { curve } = air;
  const put = (next: FanCurve) => set({ ...air, curve: next });
  return (
    <>
      <Grid>
        <Choose
          label="Kind"
          value={curve.kind}
          options={[
            ['universal', 'universal motor'],
            ['centrifugal', 'induction motor and wheel'],
            ['pneumatic', 'compressed-air generator'],
            ...(curve.kind === 'points' ? [['points', 'fitted to a suction curve'] as const] : []),
          ]}
          onChoose={(kind) => kind !== curve.kind && put(asKind(curve, kind))}
        />
        {curve.kind !== 'points' && (
          <>
            <QuantityField
              id={`${stage.key}-p0`}
              label="Sealed suction"
              kind="pressure"
              units={units}
              valueSi={curve.p0Pa}
              low={100}
              high={90_000}
              onBad={onBad}
              onValue={(v) => v !== null && put({ ...curve, p0Pa: v })}
            />
            <QuantityField
              id={`${stage.key}-q`}
              label="Free flow of the bare fan"
              kind="flow"
              units={units}
              valueSi={curve.qMaxM3s}
              low={0.001}
              high={20}
              onBad={onBad}
              onValue={(v) => v !== null && put({ ...curve, qMaxM3s: v })}
            />
          </>
        )}
        {curve.kind === 'pneumatic' && (
          <QuantityField
            id={`${stage.key}-supply`}
            label="Nominal supply pressure"
            kind="pressure"
            units={units}
            unit={units === 'us' ? 'psi' : 'kPa'}
            valueSi={curve.nominalSupplyPa}
            low={5e4}
            high={1.5e6}
            onBad={onBad}
            onValue={(v) => v !== null && put({ ...curve, nominalSupplyPa: v })}
          />
        )}
      </Grid>
      <Peak curve={curve} units={units} />
      <FanPoints id={stage.key} units={units} onBad={onBad} use={put} />
    </>
  );
};
