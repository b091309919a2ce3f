import { MEDIA, type Medium } from '@/core/constants/media';
import type { FanCurve } from '@/core/path/model/fan';
import type { StageAir } from '@/core/path/stage-spec';
import { QuantityField } from '@/ui/quantity-field';
import { Choose, Grid, NumberField, type StageFieldProps, Tick } from './fields';
import { withAir } from './state';

type Of<F extends StageAir['form']> = Extract<StageAir, { form: F }>;

interface AirProps<F extends StageAir['form']> extends StageFieldProps {
  readonly air: Of<F>;
  readonly set: (air: StageAir) => void;
  readonly onBad: (field: string, bad: boolean) => void;
}

const MEDIUM_OPTIONS = (Object.keys(MEDIA) as Medium[]).map((m) => [m, MEDIA[m].label] as const);

const MediumFields = ({ stage, units, air, set, onBad }: AirProps<'medium'>) => (
  <Grid>
    <Choose
      label="Medium"
      value={air.medium}
      options={MEDIUM_OPTIONS}
      onChoose={(m) => set({ ...air, medium: MEDIUM_OPTIONS.find(([k]) => k === m)?.[0] ?? air.medium })}
    />
    <QuantityField
      id={`${stage.key}-area`}
      label="Area of one, unfolded"
      kind="area"
      units={units}
      valueSi={air.areaM2}
      low={1e-4}
      high={1000}
      onBad={onBad}
      onValue={(v) => v !== null && set({ ...air, areaM2: v })}
    />
    <NumberField
      label="Side by side"
      value={air.inParallel}
      low={1}
      high={12}
      step={1}
      onValue={(n) => set({ ...air, inParallel: Math.round(n) })}
    />
  </Grid>
);

const WallFields = ({ stage, units, air, set, onBad }: Omit<AirProps<'line'>, 'dispatch'>) => (
  <>
    <Choose
      label="Wall"
      value={air.friction.by}
      options={[
        ['factor', 'corrugated: a friction factor'],
        ['roughness', 'smooth or metal: a roughness'],
      ]}
      onChoose={(by) =>
        set({
          ...air,
          friction: by === 'factor' ? { by: 'factor', factor: 0.045 } : { by: 'roughness', roughnessM: 1.5e-4 },
        })
      }
    />
    {air.friction.by === 'factor' ? (
      <NumberField
        label="Darcy factor"
        value={air.friction.factor}
        low={0.005}
        high={1}
        step={0.005}
        onValue={(factor) => set({ ...air, friction: { by: 'factor', factor } })}
      />
    ) : (
      <QuantityField
        id={`${stage.key}-rough`}
        label="Roughness"
        kind="length"
        units={units}
        unit="mm"
        valueSi={air.friction.roughnessM}
        low={0}
        high={0.005}
        onBad={onBad}
        onValue={(v) => v !== null && set({ ...air, friction: { by: 'roughness', roughnessM: v } })}
      />
    )}
  </>
);

const LineFields = ({ stage, units, air, set, onBad }: AirProps<'line'>) => {
  const own = air.boreM !== null && air.lengthM !== null;
  return (
    <div className="space-y-2">
      <Tick
        label="Has a bore and length of its own"
        hint="Otherwise it is the machine's own hose or duct, entered with the machine."
        on={own}
        onTick={(on) => set({ ...air, boreM: on ? 0.036 : null, lengthM: on ? 2 : null })}
      />
      <Grid>
        {own && (
          <QuantityField
            id={`${stage.key}-bore`}
            label="Bore"
            kind="length"
            units={units}
            valueSi={air.boreM}
            low={0.005}
            high={2}
            onBad={onBad}
            onValue={(boreM) => set({ ...air, boreM })}
          />
        )}
        {own && (
          <QuantityField
            id={`${stage.key}-length`}
            label="Length"
            kind="length"
            units={units}
            unit={units === 'us' ? 'ft' : 'm'}
            valueSi={air.lengthM}
            low={0.05}
            high={200}
            onBad={onBad}
            onValue={(lengthM) => set({ ...air, lengthM })}
          />
        )}
        <WallFields stage={stage} units={units} air={air} set={set} onBad={onBad} />
        <NumberField
          label="Loss at its entry, velocity pressures"
          value={air.entryK}
          low={0}
          high={20}
          step={0.1}
          onValue={(entryK) => set({ ...air, entryK })}
        />
        <NumberField
          label="Loss at its exit, velocity pressures"
          value={air.exitK}
          low={0}
          high={20}
          step={0.1}
          onValue={(exitK) => set({ ...air, exitK })}
        />
      </Grid>
    </div>
  );
};

const acrossOf = (areaM2: number): number => Math.sqrt((4 * areaM2) / Math.PI);
const areaOf = (acrossM: number): number => (Math.PI * acrossM ** 2) / 4;

const NozzleFields = ({ stage, units, air, set, onBad }: AirProps<'nozzle'>) => (
  <Grid>
    <QuantityField
      id={`${stage.key}-mouth`}
      label="Free opening, as a round hole"
      kind="length"
      units={units}
      valueSi={acrossOf(air.areaM2)}
      low={0.003}
      high={2}
      onBad={onBad}
      onValue={(v) => v !== null && set({ ...air, areaM2: areaOf(v) })}
    />
    <NumberField
      label="Discharge coefficient"
      value={air.coefficient}
      low={0.3}
      high={1}
      step={0.05}
      onValue={(coefficient) => set({ ...air, coefficient })}
    />
  </Grid>
);

const FittingFields = ({ stage, units, air, set, onBad }: AirProps<'fitting'> | AirProps<'wye'>) => (
  <Grid>
    <NumberField
      label="Loss, velocity pressures"
      value={air.lossK}
      low={0}
      high={100}
      step={0.1}
      onValue={(lossK) => set({ ...air, lossK })}
    />
    <QuantityField
      id={`${stage.key}-bore`}
      label="Bore"
      kind="length"
      units={units}
      valueSi={air.boreM}
      low={0.005}
      high={2}
      onBad={onBad}
      onValue={(v) => v !== null && set({ ...air, boreM: v })}
    />
    {air.form === 'wye' && (
      <NumberField
        label="Tools it joins"
        value={air.ways}
        low={2}
        high={6}
        step={1}
        onValue={(n) => set({ ...air, ways: Math.round(n) })}
      />
    )}
  </Grid>
);

const CycloneFields = ({ stage, units, air, set, onBad }: AirProps<'cyclone'>) => (
  <Grid>
    <NumberField
      label="Loss, velocity pressures in its inlet"
      value={air.lossK}
      low={0}
      high={50}
      step={0.5}
      onValue={(lossK) => set({ ...air, lossK })}
    />
    <QuantityField
      id={`${stage.key}-inlet`}
      label="Inlet, as a round hole"
      kind="length"
      units={units}
      valueSi={acrossOf(air.inletAreaM2)}
      low={0.01}
      high={1}
      onBad={onBad}
      onValue={(v) => v !== null && set({ ...air, inletAreaM2: areaOf(v) })}
    />
  </Grid>
);

const asKind = (curve: FanCurve, kind: string): FanCurve => {
  const qMaxM3s = curve.kind === 'points' ? curve.rangeM3s[1] : curve.qMaxM3s;
  const base = { p0Pa: curve.p0Pa, qMaxM3s };
  if (kind === 'centrifugal') return { kind: 'centrifugal', ...base };
  if (kind === 'pneumatic') return { kind: 'pneumatic', ...base, nominalSupplyPa: 6.2e5 };
  return { kind: 'universal', ...base, a: 0.85 };
};

const FanFields = ({ stage, units, air, set, onBad }: AirProps<'fan'>) => {
  const { curve } = air;
  const put = (next: FanCurve) => set({ ...air, curve: next });
  return (
    <Grid>
      <Choose
        label="Kind"
        value={curve.kind}
        options={[
          ['universal', 'universal motor'],
          ['centrifugal', 'induction motor and wheel'],
          ['pneumatic', 'compressed-air generator'],
          ...(curve.kind === 'points' ? [['points', 'fitted to orifice points'] as const] : []),
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
  );
};

/** How the chosen stage resists the air: the fields of its form. */
export const AirFields = (p: StageFieldProps) => {
  const { air } = p.stage.spec;
  const set = (next: StageAir) =>
    p.dispatch({ type: 'stage', key: p.stage.key, change: { spec: withAir(p.stage.spec, next) } });
  const onBad = (field: string, bad: boolean) => p.dispatch({ type: 'bad', field, bad });
  const rest = { ...p, set, onBad };
  switch (air.form) {
    case 'none':
      return <p className="soft">Air passes it freely.</p>;
    case 'medium':
      return <MediumFields {...rest} air={air} />;
    case 'line':
      return <LineFields {...rest} air={air} />;
    case 'nozzle':
      return <NozzleFields {...rest} air={air} />;
    case 'fitting':
      return <FittingFields {...rest} air={air} />;
    case 'wye':
      return <FittingFields {...rest} air={air} />;
    case 'cyclone':
      return <CycloneFields {...rest} air={air} />;
    case 'fan':
      return <FanFields {...rest} air={air} />;
  }
};
