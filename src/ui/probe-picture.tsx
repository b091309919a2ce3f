import type { ReactNode } from 'react';
import type { Method } from '@/core/measure/methods';

// Drawn in a 120 x 56 box; the air runs from left to right along y = 28.
const LINE = {
  stroke: 'currentColor',
  strokeWidth: 2,
  fill: 'none',
  strokeLinecap: 'round',
  strokeLinejoin: 'round',
} as const;
const HOT = { ...LINE, stroke: 'var(--color-primary)', strokeWidth: 3 } as const;
const PIPE = <path d="M8 14 H112 M8 42 H112" {...LINE} />;
const ARROW = <path d="M14 28 H30 m-5 -4 l5 4 l-5 4" {...LINE} strokeWidth={1.5} />;
const dots = (ys: readonly number[]) =>
  ys.map((y) => <circle key={y} cx="70" cy={y} r="2.2" fill="var(--color-primary)" />);
const POINTS = [15, 18, 23, 33, 38, 41];

const PICTURES: Record<Method, ReactNode> = {
  flowMeter: (
    <>
      {PIPE}
      {ARROW}
      <rect x="52" y="8" width="36" height="40" {...HOT} />
      <path d="M70 38 L78 18" {...HOT} />
    </>
  ),
  anemometer: (
    <>
      {PIPE}
      {ARROW}
      <path d="M70 4 V28" {...HOT} />
      <circle cx="70" cy="28" r="5" {...HOT} />
    </>
  ),
  anemometerTraverse: (
    <>
      {PIPE}
      {ARROW}
      <path d="M70 2 V42" {...LINE} strokeDasharray="3 3" />
      {dots(POINTS)}
    </>
  ),
  pitot: (
    <>
      {PIPE}
      {ARROW}
      <path d="M76 2 V28 H58" {...HOT} />
    </>
  ),
  pitotTraverse: (
    <>
      {PIPE}
      {ARROW}
      <path d="M86 2 V28 H74" {...HOT} />
      {dots(POINTS)}
    </>
  ),
  orifice: (
    <>
      {PIPE}
      {ARROW}
      <path d="M60 14 V22 M60 34 V42" {...HOT} strokeWidth={5} />
      <path d="M50 42 V52 M72 42 V52" {...LINE} />
    </>
  ),
  sealedSuction: (
    <>
      <path d="M40 14 H112 M40 42 H112" {...LINE} />
      <path d="M40 8 V48" {...HOT} strokeWidth={6} />
      <circle cx="20" cy="28" r="12" {...HOT} />
      <path d="M20 28 L27 21" {...HOT} />
    </>
  ),
  suctionCurve: (
    <>
      <path d="M56 14 H112 M56 42 H112" {...LINE} />
      <path d="M56 8 V22 M56 34 V48" {...HOT} strokeWidth={5} />
      <circle cx="16" cy="14" r="3" {...HOT} />
      <circle cx="16" cy="28" r="5" {...HOT} />
      <circle cx="16" cy="44" r="7" {...HOT} />
    </>
  ),
  stageDp: (
    <>
      {PIPE}
      <path d="M52 10 H84 V46 H52 Z" {...LINE} />
      <path d="M40 14 V4 H96 V14" {...HOT} />
      <circle cx="68" cy="5" r="4" {...HOT} />
    </>
  ),
  gaugeZone: (
    <>
      <path d="M30 48 A34 34 0 0 1 98 48" {...LINE} />
      <path d="M47 22 l6 8 M81 22 l-6 8" {...LINE} />
      <path d="M64 48 L80 26" {...HOT} />
    </>
  ),
  filterMass: (
    <>
      <path d="M36 16 H84 V34 H36 Z" {...LINE} />
      <path d="M28 36 H92 L86 52 H34 Z" {...HOT} />
    </>
  ),
  particles: (
    <>
      {PIPE}
      {ARROW}
      <path d="M112 20 L90 28 V52" {...HOT} />
      {[46, 56, 64, 78].map((x, i) => (
        <circle key={x} cx={x} cy={22 + (i % 2) * 12} r="1.6" fill="currentColor" />
      ))}
    </>
  ),
  hand: (
    <>
      {PIPE}
      {ARROW}
      <path d="M76 50 V30 q0 -5 4 -5 t4 5 v-8 q0 -5 4 -5 t4 5 v28" {...HOT} />
    </>
  ),
  indicator: (
    <>
      <circle cx="60" cy="28" r="12" {...HOT} />
      <path
        d="M60 4 V10 M60 46 V52 M36 28 H42 M78 28 H84 M43 11 l4 4 M73 41 l4 4 M77 11 l-4 4 M47 41 l-4 4"
        {...LINE}
      />
    </>
  ),
  lineVoltage: (
    <>
      <rect x="20" y="12" width="32" height="32" {...LINE} />
      <path d="M30 28 h1 M42 28 h1" {...LINE} strokeWidth={5} />
      <path d="M52 28 H74" {...HOT} />
      <circle cx="90" cy="28" r="14" {...HOT} />
    </>
  ),
  current: (
    <>
      <path d="M8 28 H112" {...LINE} strokeWidth={3} />
      <circle cx="60" cy="28" r="16" {...HOT} />
    </>
  ),
  supplyPressure: (
    <>
      <path d="M8 34 H112 M8 46 H112" {...LINE} />
      <path d="M60 34 V26" {...HOT} />
      <circle cx="60" cy="14" r="12" {...HOT} />
    </>
  ),
  brushSpeed: (
    <>
      <circle cx="60" cy="30" r="16" {...LINE} />
      <path d="M60 14 v-6 M60 46 v6 M44 30 h-6 M76 30 h6" {...LINE} />
      <path d="M86 14 a30 30 0 0 1 4 26 m4 -6 l-4 6 l-6 -4" {...HOT} />
    </>
  ),
};

/** Where the probe goes, for one method. Decorative: the words beside it say the same. */
export const ProbePicture = ({ method }: { method: Method }) => (
  <svg viewBox="0 0 120 56" className="h-11 w-24 shrink-0" aria-hidden="true">
    {PICTURES[method]}
  </svg>
);
