import type { ReactNode } from 'react';
import type { StageKind } from '@/core/path/stage-kinds';

// Every glyph is drawn in a 64 x 48 box; air runs along y = 24 from left to right.
const LINE = {
  stroke: 'currentColor',
  strokeWidth: 2,
  fill: 'none',
  strokeLinejoin: 'round',
  strokeLinecap: 'round',
} as const;

const pipe = (from: number, to: number) => (
  <>
    <path d={`M${from} 18 H${to}`} {...LINE} />
    <path d={`M${from} 30 H${to}`} {...LINE} />
  </>
);

const box = (inside: ReactNode) => (
  <>
    {pipe(0, 10)}
    {pipe(54, 64)}
    <path d="M10 18 V6 H54 V18 M54 30 V42 H10 V30" {...LINE} />
    {inside}
  </>
);

const zigzag = (x: number) => <path d={`M${x} 7 l6 5.7 l-6 5.7 l6 5.7 l-6 5.7 l6 5.7 l-6 5.7`} {...LINE} />;

const GLYPHS: Record<StageKind, ReactNode> = {
  nozzle: <path d="M64 18 H36 L10 8 V40 L36 30 H64 M4 14 l4 4 M4 34 l4 -4 M2 24 h5" {...LINE} />,
  shroud: (
    <>
      {pipe(40, 64)}
      <path d="M40 30 A18 18 0 1 1 40 18" {...LINE} />
      <circle cx="24" cy="24" r="8" {...LINE} strokeDasharray="3 3" />
    </>
  ),
  hood: <path d="M64 16 H44 L6 4 V44 L44 32 H64" {...LINE} />,
  hose: (
    <>
      {pipe(0, 64)}
      <path
        d="M8 18 v12 M16 18 v12 M24 18 v12 M32 18 v12 M40 18 v12 M48 18 v12 M56 18 v12"
        {...LINE}
        strokeWidth={1.4}
      />
    </>
  ),
  wye: <path d="M0 6 H16 L34 18 H64 M0 42 H16 L34 30 H64 M0 16 H12 L22 24 L12 32 H0" {...LINE} />,
  duct: (
    <>
      {pipe(0, 64)}
      <path d="M32 14 v20" {...LINE} />
    </>
  ),
  inlet: (
    <>
      {pipe(0, 64)}
      <path d="M40 8 V18 M40 30 V40 M46 8 V18 M46 30 V40" {...LINE} />
    </>
  ),
  ring: (
    <>
      {pipe(0, 24)}
      {pipe(40, 64)}
      <path d="M24 18 V8 h16 v10 M24 30 v10 h16 V30" {...LINE} />
    </>
  ),
  cyclone: (
    <>
      {pipe(0, 14)}
      <path
        d="M14 18 V10 H48 V18 H64 M14 30 L26 44 H36 L48 30 H64 M20 18 q11 7 22 0 M23 26 q8 6 16 0 M27 34 q4 4 8 0"
        {...LINE}
      />
    </>
  ),
  dropChamber: box(<path d="M14 34 l6 4 l6 -4 l6 4 l6 -4 l6 4 l6 -4 M22 20 v8 m-3 -3 l3 3 l3 -3" {...LINE} />),
  bag: box(<path d="M10 20 H18 C22 8 46 8 47 24 C46 40 22 40 18 28 H10" {...LINE} />),
  foam: box(
    <g fill="currentColor">
      {[16, 26, 36, 46].flatMap((x) => [13, 24, 35].map((y) => <circle key={`${x}-${y}`} cx={x} cy={y} r="2.2" />))}
    </g>,
  ),
  cloth: box(<path d="M22 8 V40 M32 8 V40 M42 8 V40 M16 14 H48 M16 24 H48 M16 34 H48" {...LINE} strokeWidth={1.3} />),
  prefilter: box(<path d="M26 7 V41 M31 7 V41 M36 7 V41" {...LINE} strokeDasharray="4 3" />),
  mainFilter: box(
    <>
      {zigzag(20)}
      {zigzag(32)}
    </>,
  ),
  canister: box(
    <>
      {zigzag(16)}
      {zigzag(27)}
      {zigzag(38)}
    </>,
  ),
  hepa: box(
    <>
      {zigzag(24)}
      {zigzag(30)}
      <path d="M16 7 V41 M46 7 V41" {...LINE} strokeWidth={3} />
    </>,
  ),
  gas: box(
    <g {...LINE} strokeWidth={1.4}>
      {[20, 32, 44].flatMap((x) =>
        [14, 24, 34].map((y) => <path key={`${x}-${y}`} d={`M${x - 4} ${y} l2 -3.5 h4 l2 3.5 l-2 3.5 h-4 z`} />),
      )}
    </g>,
  ),
  fan: (
    <>
      {pipe(0, 12)}
      {pipe(52, 64)}
      <circle cx="32" cy="24" r="20" {...LINE} strokeWidth={2.6} />
      <path
        d="M32 24 C32 12 42 10 44 16 C42 22 36 22 32 24 C42 30 38 40 32 38 C28 34 30 28 32 24 C22 30 16 22 20 17 C25 16 29 20 32 24"
        fill="currentColor"
      />
    </>
  ),
  exhaustFilter: box(<path d="M40 7 V41 M45 7 V41 M18 24 H32 m-5 -4 l5 4 l-5 4" {...LINE} />),
  muffler: box(<path d="M18 14 h6 v20 h-6 M40 14 h6 v20 h-6 M24 24 h16" {...LINE} />),
  exhaust: <path d="M0 18 H34 L46 10 M0 30 H34 L46 38 M42 24 H60 m-6 -5 l6 5 l-6 5" {...LINE} />,
};

/** The section of one stage, air from left to right. Decorative: its name is beside it. */
export const StageGlyph = ({ kind, missing = false }: { kind: StageKind; missing?: boolean }) => (
  <svg viewBox="0 0 64 48" className="block h-full w-full" aria-hidden="true" preserveAspectRatio="none">
    {missing ? (
      <>
        <path d="M10 6 H54 V42 H10 Z" {...LINE} strokeDasharray="5 4" />
        <path d="M20 12 L44 36 M44 12 L20 36" {...LINE} strokeWidth={3} />
      </>
    ) : (
      GLYPHS[kind]
    )}
  </svg>
);
