import { fail, failure, type Failure, ok, type Result } from '../failure/failure';

/** Measurements of drum, canister and board. m. */
export interface RingQuestion {
  /** Outer diameter of the canister where it goes into the rim. */
  readonly filterM: number;
  /** Inner diameter of the drum's rim. */
  readonly rimM: number;
  /** Inner diameter inside the bead, where the rim is rolled; null for a plain rim. */
  readonly beadM: number | null;
  /** The drum has a ramp inside that the canister sits on. */
  readonly ramp: boolean;
  /** Gasket of the canister: its middle diameter and its width. */
  readonly gasketM: number;
  readonly gasketWidthM: number;
  readonly sheetM: number;
  readonly brackets: number;
  /** Thread of the screws. */
  readonly screwM: number;
  readonly board: { readonly widthM: number; readonly heightM: number } | null;
}

/** A flat ring to be cut. m. */
export interface RingPiece {
  readonly name: 'ring' | 'inner' | 'top';
  readonly outerM: number;
  readonly innerM: number;
}

/** A screw: a pilot hole where it bites, a clearance hole in the part it passes. m. */
export interface Hole {
  readonly xM: number;
  readonly yM: number;
  readonly pilotM: number;
  readonly clearanceM: number;
}

export interface RingPlan {
  readonly way: 'bracketsOnly' | 'inside' | 'double';
  /** Each side, between canister and rim; below 0 where the canister hangs over. */
  readonly gapM: number;
  /** Each side between canister and bead of a rolled rim; null without one. `gapM` is then that to the body. */
  readonly beadGapM: number | null;
  /** Between the ring's edge, cut to the bead, and the body: weatherstrip and sealant. */
  readonly fillM: number | null;
  readonly pieces: readonly RingPiece[];
  /** Width of gasket that rests on wood. */
  readonly contactM: number;
  readonly holes: readonly Hole[];
  readonly board: BoardFit | null;
}

/** How the rings come out of the sheet one has. */
export interface BoardFit {
  readonly fits: 'whole' | 'segments' | 'no';
  /** Of each ring; 1 for whole. */
  readonly segments: number;
  /** Places on the board: lower left corner and size of the box each piece is cut from. */
  readonly places: readonly {
    readonly piece: number;
    readonly xM: number;
    readonly yM: number;
    readonly widthM: number;
    readonly heightM: number;
  }[];
}

/** A pilot hole for a wood screw, of its thread, and the hole it passes freely. Common practice, no published source. */
const PILOT = 0.7;
const CLEARANCE = 1.1;
/** Wood left on each side of a screw, of its thread: less splits. Common practice, no published source. */
const EDGE = 1.5;
/** The inner hole stays so far inside the gasket's inner edge. A Moorwind default. */
const INSIDE_GASKET_M = 0.003;
/** A double ring's upper ring reaches so far past the rim and the canister. A Moorwind default. */
const OVER_M = 0.012;
/** A gap smaller than this is none: weatherstrip fills it. A Moorwind default. */
const NO_GAP_M = 0.0005;
/** Between pieces on the board: the cut and a little. A Moorwind default. */
const KERF_M = 0.005;
const MOST_SEGMENTS = 8;

const figure = (field: string, value: number, [low, high]: readonly [number, number]): readonly Failure[] =>
  value >= low && value <= high ? [] : [failure('ring.figure', field, { field, value, low, high })];

const checked = (q: RingQuestion): readonly Failure[] => [
  ...figure('filter', q.filterM, [0.05, 2]),
  ...figure('rim', q.rimM, [0.05, 2]),
  ...(q.beadM === null ? [] : figure('bead', q.beadM, [0.05, q.rimM])),
  ...figure('gasket', q.gasketM, [0.03, q.filterM]),
  ...figure('gasketWidth', q.gasketWidthM, [0.002, q.filterM / 4]),
  ...figure('sheet', q.sheetM, [0.003, 0.06]),
  ...figure('brackets', q.brackets, [2, 12]),
  ...figure('screw', q.screwM, [0.002, 0.008]),
  ...(q.board
    ? [...figure('boardWidth', q.board.widthM, [0.05, 5]), ...figure('boardHeight', q.board.heightM, [0.05, 5])]
    : []),
];

interface Box {
  readonly widthM: number;
  readonly heightM: number;
}

/** The box one of n like segments of a ring is cut from. Source: plane geometry. */
const boxOf = ({ outerM, innerM }: RingPiece, segments: number): Box => {
  if (segments === 1) return { widthM: outerM, heightM: outerM };
  const half = Math.PI / segments;
  return {
    widthM: outerM * Math.sin(Math.min(half, Math.PI / 2)),
    heightM: outerM / 2 - (innerM / 2) * Math.cos(half),
  };
};

/** Boxes in rows, the tallest first; null where they do not all fit. */
const rows = (boxes: readonly (Box & { readonly piece: number })[], board: Box): BoardFit['places'] | null => {
  const places: BoardFit['places'][number][] = [];
  let [x, y, row] = [0, 0, 0];
  for (const box of [...boxes].sort((a, b) => b.heightM - a.heightM)) {
    if (x > 0 && x + box.widthM > board.widthM + 1e-9) {
      y += row + KERF_M;
      [x, row] = [0, 0];
    }
    if (x + box.widthM > board.widthM + 1e-9 || y + box.heightM > board.heightM + 1e-9) return null;
    places.push({ ...box, xM: x, yM: y });
    x += box.widthM + KERF_M;
    row = Math.max(row, box.heightM);
  }
  return places;
};

/** Whole, or in the fewest like segments that come out of the board, each cut from its own box, in rows. Source: plane geometry. Valid: rings with an inner diameter below the outer. */
export const fitOnBoard = (pieces: readonly RingPiece[], board: Box): BoardFit => {
  const turned: Box = { widthM: board.heightM, heightM: board.widthM };
  for (const segments of [1, ...Array.from({ length: MOST_SEGMENTS - 1 }, (_, i) => i + 2)]) {
    const boxes = pieces.flatMap((p, piece) =>
      Array.from({ length: segments }, () => ({ piece, ...boxOf(p, segments) })),
    );
    const places = rows(boxes, board);
    if (places) return { fits: segments === 1 ? 'whole' : 'segments', segments, places };
    const across = rows(boxes, turned);
    if (across)
      return {
        fits: segments === 1 ? 'whole' : 'segments',
        segments,
        places: across.map((p) => ({ ...p, xM: p.yM, yM: p.xM, widthM: p.heightM, heightM: p.widthM })),
      };
  }
  return { fits: 'no', segments: 1, places: [] };
};

/** Bracket screws go into the gap beside the canister; those of a double ring where both rings overlap. */
const screwBand = (q: RingQuestion, { way, pieces }: Pick<RingPlan, 'way' | 'pieces'>): readonly [number, number] => {
  const [first] = pieces;
  return way === 'inside' ? [q.filterM, first?.outerM ?? 0] : [first?.innerM ?? 0, first?.outerM ?? 0];
};

const holesOf = (q: RingQuestion, [innerM, outerM]: readonly [number, number]): readonly Hole[] => {
  const radius = (outerM + innerM) / 4;
  return Array.from({ length: q.brackets }, (_, i) => {
    const angle = (2 * Math.PI * i) / q.brackets;
    return {
      xM: radius * Math.cos(angle),
      yM: radius * Math.sin(angle),
      pilotM: PILOT * q.screwM,
      clearanceM: CLEARANCE * q.screwM,
    };
  });
};

/** A rolled rim only passes parts as wide as its bead. */
const throughOf = (q: RingQuestion): number => q.beadM ?? q.rimM;

const wayOf = (q: RingQuestion): RingPlan['way'] =>
  q.ramp ? 'bracketsOnly' : throughOf(q) > q.filterM ? 'inside' : 'double';

const piecesOf = (q: RingQuestion, way: RingPlan['way']): readonly RingPiece[] => {
  const innerM = q.gasketM - q.gasketWidthM - 2 * INSIDE_GASKET_M;
  const throughM = throughOf(q);
  if (way === 'bracketsOnly') return [];
  if (way === 'inside') return [{ name: 'ring', outerM: throughM, innerM }];
  return [
    { name: 'inner', outerM: throughM, innerM },
    { name: 'top', outerM: Math.max(q.filterM, q.rimM) + 2 * OVER_M, innerM },
  ];
};

/**
 * The ring that seats a canister on a drum: the gap each side is (D - F) / 2; below 0 the canister hangs over and a second,
 * larger ring goes on top. Cut to the bead of a rolled rim. The inner hole stays under the gasket. Everything in m.
 * Source: plane geometry; handbook of the trade, section 14, common practice. Returns `ring.figure` for what is not
 * believed, `ring.no-gap` for a canister as wide as the rim, `ring.gasket` where the hole would not stay inside the gasket,
 * `ring.thin` where the ring is too narrow for its screws.
 * @example 19.25 in rim, 17.5 in canister: 0.875 in each side
 */
export const planRing = (q: RingQuestion): Result<RingPlan> => {
  const failures = checked(q);
  if (failures.length > 0) return fail(...failures);
  const gapM = (q.rimM - q.filterM) / 2;
  if (!q.ramp && Math.abs(throughOf(q) - q.filterM) < 2 * NO_GAP_M) return fail(failure('ring.no-gap', 'filter'));
  const way = wayOf(q);
  const pieces = piecesOf(q, way);
  const [first] = pieces;
  const gasketOuterM = q.gasketM + q.gasketWidthM;
  if (first && !(first.innerM > 0 && first.innerM < first.outerM)) return fail(failure('ring.gasket', 'gasket'));
  const seat = way === 'double' ? pieces[1] : first;
  if (seat && gasketOuterM > seat.outerM) return fail(failure('ring.gasket', 'gasket'));
  const band = screwBand(q, { way, pieces });
  const needM = 2 * EDGE * q.screwM;
  if (pieces.length > 0 && ((band[1] - band[0]) / 2 < needM || q.sheetM < 2 * q.screwM))
    return fail(failure('ring.thin', 'screw', { haveM: (band[1] - band[0]) / 2, needM, sheetM: 2 * q.screwM }));
  return ok({
    way,
    gapM,
    beadGapM: q.beadM === null ? null : (q.beadM - q.filterM) / 2,
    fillM: q.beadM === null || pieces.length === 0 ? null : (q.rimM - q.beadM) / 2,
    pieces,
    contactM: seat ? (Math.min(gasketOuterM, seat.outerM) - Math.max(q.gasketM - q.gasketWidthM, seat.innerM)) / 2 : 0,
    holes: pieces.length > 0 ? holesOf(q, band) : [],
    board: q.board && pieces.length > 0 ? fitOnBoard(pieces, q.board) : null,
  });
};
