import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';
import type { MachineClass } from '@/core/machine/machine';
import type { UnitSystem } from '@/core/units';
import { capital, CLASS_WORDS } from '@/messages/words';
import { DayField } from '@/ui/day-field';
import { QuantityField } from '@/ui/quantity-field';
import { Choose, Tick } from './fields';
import type { Draft, EditAction } from './state';

interface MachineFieldsProps {
  readonly draft: Draft;
  readonly dispatch: (action: EditAction) => void;
  readonly units: UnitSystem;
  readonly fresh: boolean;
}

const KINDS = (Object.keys(MACHINE_KINDS) as MachineKind[]).map(
  (k) => [k, capital(MACHINE_KINDS[k].chosenAs)] as const,
);
const CLASSES: readonly (readonly [MachineClass | '', string])[] = [
  ['', 'none'],
  ...(Object.keys(CLASS_WORDS) as MachineClass[]).map((c) => [c, CLASS_WORDS[c]] as const),
];

const Text = ({
  label,
  value,
  most,
  onText,
  needed = false,
}: {
  label: string;
  value: string;
  most: number;
  onText: (text: string) => void;
  needed?: boolean;
}) => (
  <label className="block">
    <span className="caption">{label}</span>
    <input
      className="field"
      value={value}
      maxLength={most}
      required={needed}
      autoComplete="off"
      onChange={(e) => onText(e.currentTarget.value)}
    />
  </label>
);

interface HoseProps extends Pick<MachineFieldsProps, 'draft' | 'units'> {
  readonly put: (change: Partial<Draft['machine']>) => void;
  readonly onBad: (field: string, bad: boolean) => void;
}

/** Bore and length of its hose or duct, and what a selector is set to. */
const HoseFields = ({ draft, units, put, onBad }: HoseProps) => {
  const { machine } = draft;
  return (
    <>
      <QuantityField
        key={`bore-${draft.kind}`}
        id="machine-bore"
        label="Bore of its hose or duct"
        kind="length"
        units={units}
        valueSi={machine.hoseBoreM}
        low={0.005}
        high={2}
        mayBeEmpty
        onBad={onBad}
        onValue={(hoseBoreM) => put({ hoseBoreM })}
      />
      <QuantityField
        id="machine-length"
        label="Length"
        kind="length"
        units={units}
        unit={units === 'us' ? 'ft' : 'm'}
        valueSi={machine.hoseLengthM}
        low={0.05}
        high={200}
        mayBeEmpty
        onBad={onBad}
        onValue={(hoseLengthM) => put({ hoseLengthM })}
      />
      <QuantityField
        id="machine-selector"
        label="Hose selector is set to"
        kind="length"
        units={units}
        valueSi={machine.hoseSelectorM}
        low={0.005}
        high={2}
        mayBeEmpty
        hint="Empty where there is none."
        onBad={onBad}
        onValue={(hoseSelectorM) => put({ hoseSelectorM })}
      />
    </>
  );
};

/** The machine itself: its tag and kind when new, its plate, place, dust, hose and voltage. */
export const MachineFields = ({ draft, dispatch, units, fresh }: MachineFieldsProps) => {
  const { machine } = draft;
  const put = (change: Partial<Draft['machine']>) => dispatch({ type: 'machine', change });
  const onBad = (field: string, bad: boolean) => dispatch({ type: 'bad', field, bad });
  return (
    <div className="grid gap-x-4 gap-y-2 sm:grid-cols-2 lg:grid-cols-4">
      {fresh && (
        <Text label="Tag" value={draft.tag} most={16} needed onText={(tag) => dispatch({ type: 'tag', tag })} />
      )}
      {fresh && (
        <Choose
          label="Kind"
          value={draft.kind}
          options={KINDS}
          onChoose={(k) => dispatch({ type: 'kind', kind: KINDS.find(([key]) => key === k)?.[0] ?? draft.kind })}
        />
      )}
      <Text label="Name" value={machine.name} most={120} needed onText={(name) => put({ name })} />
      <Text label="Place" value={machine.place} most={80} needed onText={(place) => put({ place })} />
      <Text label="Maker" value={machine.maker} most={60} onText={(maker) => put({ maker })} />
      <Choose
        label="Class on its plate"
        value={machine.machineClass ?? ''}
        options={CLASSES}
        onChoose={(c) => put({ machineClass: CLASSES.find(([key]) => key === c)?.[0] || null })}
      />
      {fresh && (
        <DayField
          label="In use since (leave empty for today)"
          value={draft.firstUsedOn}
          onValue={(on) => dispatch({ type: 'firstUsed', on })}
        />
      )}
      <HoseFields draft={draft} units={units} put={put} onBad={onBad} />
      <QuantityField
        id="machine-volts"
        label="Nominal voltage"
        kind="voltage"
        units={units}
        valueSi={machine.nominalVolts}
        low={50}
        high={600}
        onBad={onBad}
        onValue={(v) => v !== null && put({ nominalVolts: v })}
      />
      <Tick label="Has a brush" on={machine.hasBrush} onTick={(hasBrush) => put({ hasBrush })} />
      <Tick label="Set up for wet pick-up" on={machine.wetSet} onTick={(wetSet) => put({ wetSet })} />
    </div>
  );
};
