import type { KeyboardEvent, PointerEvent } from 'react';
import type { PressureProfile } from '@/core/path/pressure-profile';
import { fromSi, prettyUnit, SHOWN, type UnitSystem, fixed } from '@/core/units';

export interface Lines {
  readonly asNew: PressureProfile;
  readonly now: PressureProfile;
  readonly whatIf: PressureProfile | null;
}

interface PictureProps {
  readonly lines: Lines;
  readonly names: readonly string[];
  readonly units: UnitSystem;
  readonly heightPx: number;
  /** Lowest pressure the picture holds; null: as low as the lines go. */
  readonly floorPa: number | null;
  readonly selected: number | null;
  readonly onSelect: (position: number | null) => void;
  /** For a column that is a handle: its position, and its meaning in words. */
  readonly handle: ((position: number) => { readonly pull: number; readonly text: string } | null) | null;
  readonly onPull: (position: number, to: number) => void;
  readonly sayColumn: (position: number) => string;
  /** Whether the unit is written in the picture's corner. */
  readonly caption: boolean;
}

const TOP_PX = 18;
const BOTTOM_PX = 18;
export const COLUMN = 100;

/** Where a pressure lies on the picture, px from its top. */
export const placeOf = ({ lines, floorPa, heightPx }: Pick<PictureProps, 'lines' | 'floorPa' | 'heightPx'>) => {
  const all = [lines.asNew, lines.now, ...(lines.whatIf ? [lines.whatIf] : [])].flatMap((l) => l.nodesPa);
  const high = Math.max(0, ...all);
  const low = Math.min(floorPa ?? 0, ...all, -1);
  return (pa: number) => TOP_PX + ((high - pa) / (high - low)) * (heightPx - TOP_PX - BOTTOM_PX);
};

/** The line of a staircase: level into a stage, down through its middle, level out of it. */
export const lineOf = (stairs: PressureProfile, y: (pa: number) => number): string =>
  stairs.steps
    .map((s, i) => {
      const [x, from, to] = [i * COLUMN, fixed(y(s.fromPa), 1), fixed(y(s.toPa), 1)];
      return `${i === 0 ? 'M' : 'L'}${x} ${from} L${x + 34} ${from} L${x + 66} ${to} L${x + COLUMN} ${to}`;
    })
    .join(' ');

export const short = (pa: number, units: UnitSystem): string => {
  const value = fromSi('pressure', pa, SHOWN[units].pressure.unit);
  const digits = Math.abs(value) >= 9.95 ? 1 : 2;
  return fixed(value, units === 'us' ? Math.min(1, digits) : digits);
};

const Column = (p: PictureProps & { readonly position: number; readonly y: (pa: number) => number }) => {
  const { position, lines, y, heightPx } = p;
  const shown = lines.whatIf ?? lines.now;
  const step = shown.steps[position];
  const handle = p.handle?.(position) ?? null;
  if (!step) return null;
  const lifts = step.dropPa < 0;
  const top = lifts ? Math.min(heightPx - 15, y(step.fromPa) + 2) : Math.max(0, y(step.fromPa) - 16);
  const drag = (event: PointerEvent<HTMLButtonElement>) => {
    if (!handle || event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    p.onPull(position, (event.clientY - box.top) / box.height);
  };
  const press = (event: KeyboardEvent) => {
    const by = { ArrowDown: 0.05, ArrowUp: -0.05, PageDown: 0.2, PageUp: -0.2 }[event.key];
    if (!handle || by === undefined) return;
    event.preventDefault();
    p.onPull(position, handle.pull + by);
  };
  const slider = handle
    ? {
        role: 'slider',
        'aria-valuemin': 0,
        'aria-valuemax': 100,
        'aria-valuenow': Math.round(handle.pull * 100),
        'aria-valuetext': handle.text,
        'aria-orientation': 'vertical' as const,
      }
    : {};
  return (
    <button
      type="button"
      {...slider}
      aria-label={handle ? p.names[position] : p.sayColumn(position)}
      className={`absolute top-0 bottom-0 ${handle ? 'cursor-ns-resize touch-none' : 'cursor-pointer'} ${p.selected === position ? 'bg-primary/10' : 'hover:bg-base-300/40'}`}
      style={{ left: `${(position / p.names.length) * 100}%`, width: `${100 / p.names.length}%` }}
      onPointerEnter={(e) => e.pointerType === 'mouse' && e.buttons === 0 && !handle && p.onSelect(position)}
      onFocus={() => p.onSelect(position)}
      onPointerDown={(e) => {
        if (handle) e.currentTarget.setPointerCapture(e.pointerId);
        p.onSelect(position);
      }}
      onPointerMove={drag}
      onKeyDown={press}
    >
      <span
        className="dial absolute inset-x-0 text-center text-[0.6875rem] leading-4 font-semibold sm:text-xs"
        style={{ top }}
        aria-hidden="true"
      >
        {lifts ? `+${short(-step.dropPa, p.units)}` : short(step.dropPa, p.units)}
      </span>
    </button>
  );
};

/** The pressure staircase: gauge pressure along the path; as new dashed, today solid, what-if dotted and heavier. */
export const StaircasePicture = (p: PictureProps) => {
  const y = placeOf(p);
  const width = p.names.length * COLUMN;
  const line = { fill: 'none', vectorEffect: 'non-scaling-stroke' as const, strokeLinejoin: 'round' as const };
  return (
    <div className="relative select-none" style={{ height: p.heightPx }}>
      <svg
        viewBox={`0 0 ${width} ${p.heightPx}`}
        preserveAspectRatio="none"
        className="absolute inset-0 h-full w-full"
        aria-hidden="true"
      >
        <path d={`M0 ${y(0)} H${width}`} {...line} stroke="var(--color-base-300)" strokeWidth={1} />
        <path d={lineOf(p.lines.asNew, y)} {...line} stroke="var(--ink-soft)" strokeWidth={1.5} strokeDasharray="5 4" />
        <path d={lineOf(p.lines.now, y)} {...line} stroke="var(--color-base-content)" strokeWidth={2.5} />
        {p.lines.whatIf && (
          <path
            d={lineOf(p.lines.whatIf, y)}
            {...line}
            stroke="var(--color-primary)"
            strokeWidth={4}
            strokeDasharray="1 6"
            strokeLinecap="round"
          />
        )}
      </svg>
      {p.names.map((name, position) => (
        <Column key={`${position}-${name}`} {...p} position={position} y={y} />
      ))}
      {p.caption && (
        <span className="caption pointer-events-none absolute bottom-0 left-0 text-[0.6875rem]">
          {prettyUnit(SHOWN[p.units].pressure.unit)} below the room
        </span>
      )}
    </div>
  );
};
