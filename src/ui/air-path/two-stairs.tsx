import type { PressureProfile } from '@/core/path/pressure-profile';
import { prettyUnit, SHOWN, type UnitSystem } from '@/core/units';
import { COLUMN, lineOf, short } from './staircase-picture';

interface OneProps {
  readonly title: string;
  readonly stairs: PressureProfile;
  readonly names: readonly string[];
  /** Names of new stages, drawn heavier. */
  readonly fresh: readonly string[];
}

interface TwoProps {
  readonly stages: readonly OneProps[];
  readonly units: UnitSystem;
  readonly heightPx: number;
}

const PAD_PX = 18;

/** Pressure staircases one under the other, to one scale. */
export const TwoStairs = ({ stages, units, heightPx }: TwoProps) => {
  const all = stages.flatMap((s) => s.stairs.nodesPa);
  const [high, low] = [Math.max(0, ...all), Math.min(-1, ...all)];
  const y = (pa: number) => PAD_PX + ((high - pa) / (high - low)) * (heightPx - 2 * PAD_PX);
  const line = { fill: 'none', vectorEffect: 'non-scaling-stroke' as const, strokeLinejoin: 'round' as const };
  return (
    <div className="grid gap-4">
      {stages.map(({ title, stairs, names, fresh }) => (
        <figure key={title} className="min-w-0">
          <figcaption className="caption">
            {title}, {prettyUnit(SHOWN[units].pressure.unit)} below the room
          </figcaption>
          <svg
            viewBox={`0 0 ${names.length * COLUMN} ${heightPx}`}
            preserveAspectRatio="none"
            className="block w-full"
            style={{ height: heightPx }}
            aria-hidden="true"
          >
            <path d={`M0 ${y(0)} H${names.length * COLUMN}`} {...line} stroke="var(--color-base-300)" strokeWidth={1} />
            <path d={lineOf(stairs, y)} {...line} stroke="var(--color-base-content)" strokeWidth={2.5} />
          </svg>
          <ol className="grid text-xs" style={{ gridTemplateColumns: `repeat(${names.length}, minmax(0, 1fr))` }}>
            {names.map((name, i) => {
              const drop = stairs.steps[i]?.dropPa ?? 0;
              return (
                <li key={`${i}-${name}`} className="min-w-0 px-0.5 text-center">
                  <span className={`block truncate ${fresh.includes(name) ? 'font-bold' : 'soft'}`} title={name}>
                    {name}
                  </span>
                  <span className="dial">{drop < 0 ? `+${short(-drop, units)}` : short(drop, units)}</span>
                </li>
              );
            })}
          </ol>
        </figure>
      ))}
    </div>
  );
};
