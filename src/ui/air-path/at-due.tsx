import type { PathView } from '@/core/calibrate/path-view';
import type { PressureProfile } from '@/core/path/pressure-profile';
import { show, type UnitSystem } from '@/core/units';
import { StaircasePicture } from './staircase-picture';
import { StaircaseTable } from './staircase-table';

interface AtDueProps {
  readonly view: PathView;
  readonly then: PressureProfile;
  readonly name: string;
  /** When that is, in words. */
  readonly when: string;
  readonly units: UnitSystem;
}

const nothing = () => undefined;

/** The staircase on the day a stage comes due, over the one of today. */
export const AtDue = ({ view, then, name, when, units }: AtDueProps) => {
  if (!view.now) return null;
  const lines = { asNew: view.now, now: then, whatIf: null };
  const names = view.model.stages.map((s) => s.name);
  return (
    <section aria-label={`When the ${name} is due`}>
      <h2 className="text-xl font-bold">
        When the {name} is due, {when}
      </h2>
      <p>
        <span className="dial text-2xl">{show('flow', then.flowPerToolM3s, units)}</span> at the tool, today{' '}
        <span className="dial">{show('flow', view.now.flowPerToolM3s, units)}</span>
        {then.hoseVelocityMs !== null && (
          <span className="soft"> · {show('velocity', then.hoseVelocityMs, units)} in the hose</span>
        )}
      </p>
      <StaircasePicture
        lines={lines}
        names={names}
        units={units}
        heightPx={92}
        floorPa={null}
        selected={null}
        onSelect={nothing}
        handle={null}
        onPull={nothing}
        sayColumn={(i) => names[i] ?? ''}
        caption={false}
      />
      <StaircaseTable lines={lines} names={names} units={units} />
      <p className="soft text-sm">
        Solid: when due. Dashed: today. From the model, with load growing evenly over its life; not a reading.
      </p>
    </section>
  );
};
