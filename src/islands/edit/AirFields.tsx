import { MEDIA, type Medium } from '@/core/constants/media';
import type { StageAir } from '@/core/path/stage-spec';
import { QuantityField } from '@/ui/quantity-field';
import { Choose, Grid, NumberField, type StageFieldProps } from './fields';
import { withAir } from './state';
import type { AirProps } from './air-props';
import { FanFields } from './FanFields';
import { LineFields } from './LineFields';

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
