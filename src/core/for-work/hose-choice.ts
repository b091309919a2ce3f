import { type Hose, type Predicted, sameHose } from './predict';

export interface HoseLimits {
  /** At each tool, m3/s; null where no figure is asked for. */
  readonly mustM3s: number | null;
  /** Least velocity, m/s; null where none is asked. */
  readonly hoseMs: number | null;
}

export const HOSE_VERDICTS = ['does', 'perhaps', 'tooSlow', 'tooLittle', 'neither'] as const;
/** `perhaps`: the interval contains the demand. */
export type HoseVerdict = (typeof HOSE_VERDICTS)[number];

/**
 * Whether a hose keeps the dust moving and gives the tool its air. m3/s and m/s. Source: EN 60335-2-69 Annex AA (20 m/s)
 * and what the tool asks for, guarded as JCGM 106. Valid: a prediction of the model.
 */
export const judgeHose = (p: Predicted, { mustM3s, hoseMs }: HoseLimits): HoseVerdict => {
  // A no only where the whole interval says so; where it reaches the need, a measurement at the tool decides.
  const [flow, speed] = [mustM3s === null || p.highM3s >= mustM3s, hoseMs === null || p.highMs >= hoseMs];
  if (!flow || !speed) return flow ? 'tooSlow' : speed ? 'tooLittle' : 'neither';
  const sure = (mustM3s === null || p.lowM3s >= mustM3s) && (hoseMs === null || p.lowMs >= hoseMs);
  return sure ? 'does' : 'perhaps';
};

const RANK: Readonly<Record<HoseVerdict, number>> = { does: 0, perhaps: 1, tooSlow: 2, tooLittle: 2, neither: 3 };

/** One branch of a Y, judged by what its own tool asks for. */
export interface Branch {
  readonly predicted: Predicted;
  readonly verdict: HoseVerdict;
}

export interface HoseLine extends Branch {
  /** The second tool on a Y, where it or its hose is another one; null where it is like the first. */
  readonly beside: Branch | null;
}

/** A prediction, and that of the second tool beside it. */
export interface Pair {
  readonly predicted: Predicted;
  readonly beside: { readonly predicted: Predicted; readonly limits: HoseLimits } | null;
}

/** The worse of two. Source: as `judgeHose`: a machine does a work where both tools get what they ask for. */
export const worstVerdict = ({ verdict, beside }: HoseLine): HoseVerdict =>
  beside && RANK[beside.verdict] > RANK[verdict] ? beside.verdict : verdict;

const isOwn = ({ predicted }: HoseLine, own: Hose | null): number =>
  own !== null && sameHose(predicted.hose, own) ? 1 : 0;

/** Hoses from the best to the worst: those that do both, the machine's own before others of the same worth, then by the air they give. Source: as `judgeHose`. Valid: predictions of one machine. */
export const rankHoses = (all: readonly Pair[], limits: HoseLimits, own: Hose | null): readonly HoseLine[] =>
  all
    .map(({ predicted, beside }): HoseLine => ({
      predicted,
      verdict: judgeHose(predicted, limits),
      beside: beside && { predicted: beside.predicted, verdict: judgeHose(beside.predicted, beside.limits) },
    }))
    .sort(
      (a, b) =>
        RANK[worstVerdict(a)] - RANK[worstVerdict(b)] ||
        isOwn(b, own) - isOwn(a, own) ||
        b.predicted.flowM3s - a.predicted.flowM3s,
    );

/** Hoses that are sold for vacuums, m. Common practice, no published source. */
export const SOLD_BORES_M: readonly number[] = [0.027, 0.032, 0.036, 0.05];

/** Every hose once. Source: sizes by name. Valid: bores and lengths above 0. */
export const distinctHoses = (all: readonly Hose[]): readonly Hose[] =>
  all.filter((h, i) => !all.slice(0, i).some((o) => sameHose(o, h)));
