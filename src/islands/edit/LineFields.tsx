import { QuantityField } from '@/ui/quantity-field';
import { Choose, Grid, NumberField, Tick } from './fields';
import type { AirProps } from './air-props';

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

/** A hose or duct: its own bore and length, its wall, and the losses at its ends. */
export const LineFields = ({ stage, units, air, set, onBad }: AirProps<'line'>) => {
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
