import type { ReactNode } from 'react';
import type { StageFit } from '@/core/path/stage-spec';
import type { CheckKind, Step } from '@/core/procedure/step';

/** A drawing: the right position, and beside it the wrong one. */
interface Pair {
  readonly right: ReactNode;
  readonly wrong: ReactNode;
  readonly caption: string;
}

const Air = ({ y }: { y: number }) => (
  <path d={`M4 ${y} H112 M104 ${y - 5} L113 ${y} L104 ${y + 5}`} className="seat-air" />
);
const Part = ({ tilt = 0 }: { tilt?: number }) => (
  <rect x="38" y="18" width="44" height="54" transform={`rotate(${tilt} 60 45)`} className="seat-part" />
);
const Arrow = ({ back = false }: { back?: boolean }) => (
  <path d={back ? 'M74 32 H46 M54 26 L46 32 L54 38' : 'M46 32 H74 M66 26 L74 32 L66 38'} className="seat-mark" />
);
const Seat = ({ x }: { x: number }) => <path d={`M${x} 8 V82`} className="seat-wall" />;

const PAIRS: Partial<Record<CheckKind, (fit: StageFit) => Pair>> = {
  arrowWithFlow: () => ({
    right: (
      <>
        <Air y={58} />
        <Part />
        <Arrow />
      </>
    ),
    wrong: (
      <>
        <Air y={58} />
        <Part />
        <Arrow back />
      </>
    ),
    caption: 'Arrow on the part points with the air flow',
  }),
  gasketSide: () => ({
    right: (
      <>
        <Air y={45} />
        <Part />
        <path d="M84 18 V72" className="seat-gasket" />
        <Seat x={90} />
      </>
    ),
    wrong: (
      <>
        <Air y={45} />
        <Part />
        <path d="M35 18 V72" className="seat-gasket" />
        <Seat x={90} />
      </>
    ),
    caption: 'Gasket against its seat',
  }),
  collarStraight: () => ({
    right: (
      <>
        <path d="M4 45 H46" className="seat-wall" />
        <rect x="44" y="24" width="10" height="42" className="seat-gasket-fill" />
        <path d="M54 20 Q112 45 54 70" className="seat-part" />
      </>
    ),
    wrong: (
      <>
        <path d="M4 45 H46" className="seat-wall" />
        <rect x="50" y="24" width="10" height="42" transform="rotate(18 55 45)" className="seat-gasket-fill" />
        <path d="M58 20 Q112 45 66 74" className="seat-part" />
      </>
    ),
    caption: 'Collar straight and fully home on its pipe',
  }),
  wrapAllRound: () => ({
    right: (
      <>
        <circle cx="60" cy="45" r="26" className="seat-part" />
        <circle cx="60" cy="45" r="33" className="seat-gasket" />
      </>
    ),
    wrong: (
      <>
        <circle cx="60" cy="45" r="26" className="seat-part" />
        <path d="M60 12 A33 33 0 1 1 30 31" className="seat-gasket" />
      </>
    ),
    caption: 'Wrap all round, ends overlapping',
  }),
  threadFlush: () => ({
    right: (
      <>
        <Seat x={28} />
        <rect x="30" y="18" width="52" height="54" className="seat-part" />
      </>
    ),
    wrong: (
      <>
        <Seat x={28} />
        <rect x="36" y="18" width="52" height="54" transform="rotate(7 60 45)" className="seat-part" />
      </>
    ),
    caption: 'Flush with the plate all round',
  }),
  seal1: (fit) => seal(1, fit.seals),
  seal2: (fit) => seal(2, fit.seals),
  latchCount: () => ({
    right: (
      <>
        <rect x="24" y="34" width="72" height="44" className="seat-part" />
        <path d="M20 34 H100" className="seat-wall" />
        {[34, 86].map((x) => (
          <path key={x} d={`M${x} 26 V46`} className="seat-gasket" />
        ))}
      </>
    ),
    wrong: (
      <>
        <rect x="24" y="34" width="72" height="44" className="seat-part" />
        <path d="M20 34 L100 28" className="seat-wall" />
        <path d="M34 26 V46" className="seat-gasket" />
        <path d="M86 20 L98 12" className="seat-gasket" />
      </>
    ),
    caption: 'Every latch closed',
  }),
  breathersInside: () => ({
    right: (
      <>
        <path d="M20 20 V80 H100 V20" className="seat-wall" />
        <path d="M32 30 V70 H88 V30" className="seat-part" />
        {[44, 60, 76].map((x) => (
          <circle key={x} cx={x} cy="40" r="4" className="seat-mark" />
        ))}
      </>
    ),
    wrong: (
      <>
        <path d="M20 34 V80 H100 V34" className="seat-wall" />
        <path d="M32 18 V70 H88 V18" className="seat-part" />
        {[44, 60, 76].map((x) => (
          <circle key={x} cx={x} cy="24" r="4" className="seat-mark" />
        ))}
      </>
    ),
    caption: 'Breather holes inside the container',
  }),
  undersideClean: () => ({
    right: (
      <>
        <rect x="30" y="20" width="60" height="44" className="seat-part" />
        <path d="M30 68 H90" className="seat-gasket" />
      </>
    ),
    wrong: (
      <>
        <rect x="30" y="20" width="60" height="44" className="seat-part" />
        <path d="M30 68 H90" className="seat-gasket" />
        {[40, 52, 66, 78].map((x) => (
          <circle key={x} cx={x} cy="76" r="3" className="seat-dirt" />
        ))}
      </>
    ),
    caption: 'Underside clean',
  }),
};

const seal = (which: number, of: number): Pair => {
  const ys = Array.from({ length: Math.max(1, of) }, (_, i) => 30 + i * 26);
  const groove = (y: number) => <path key={y} d={`M24 ${y - 7} V${y + 7} H96 V${y - 7}`} className="seat-wall" />;
  const ring = (y: number, out: boolean) => (
    <path key={`r${y}`} d={out ? `M24 ${y} Q56 ${y - 26} 96 ${y}` : `M28 ${y} H92`} className="seat-gasket" />
  );
  return {
    right: ys.map((y) => (
      <g key={y}>
        {groove(y)}
        {ring(y, false)}
      </g>
    )),
    wrong: ys.map((y, i) => (
      <g key={y}>
        {groove(y)}
        {ring(y, i + 1 === which)}
      </g>
    )),
    caption: of > 1 ? `Seal ${which} of ${of}, sound and in its groove` : 'Seal sound and in its groove',
  };
};

/** Which drawing a step asks for: its check, or at the fitting of a marked part its direction. */
const wantedOf = (step: Step, fit: StageFit): CheckKind | null =>
  step.check ?? (step.key === 'fitNew' && fit.orientation !== 'unmarked' ? 'arrowWithFlow' : null);

const Picture = ({
  children,
  word,
  tone,
}: {
  readonly children: ReactNode;
  readonly word: string;
  readonly tone: string;
}) => (
  <div className="text-center">
    <svg viewBox="0 0 120 90" className="seat h-20 w-28 sm:h-24 sm:w-32" aria-hidden="true">
      {children}
    </svg>
    <span className={`block text-sm font-bold ${tone}`}>{word}</span>
  </div>
);

/** How the part sits, and how it does not, made from the stage's own data; null where there is nothing to draw. */
export const SeatDrawing = ({ step, fit }: { readonly step: Step; readonly fit: StageFit }) => {
  const wanted = wantedOf(step, fit);
  const pair = wanted ? PAIRS[wanted]?.(fit) : undefined;
  if (!pair) return null;
  return (
    <figure className="mt-2" role="img" aria-label={pair.caption}>
      <div className="flex gap-4">
        <Picture word="✓ so" tone="tone-good">
          {pair.right}
        </Picture>
        <Picture word="✗ not so" tone="tone-stop">
          {pair.wrong}
        </Picture>
      </div>
      <figcaption className="soft text-sm">{pair.caption}</figcaption>
    </figure>
  );
};
