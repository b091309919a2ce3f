import { SIZE_RANGE_UM } from '../constants/aerosol';
import type { Medium } from '../constants/media';
import { at, fail, failure, ok, type Result } from '../failure/failure';
import type { FilterRating } from './rating';
import { mostPenetrating, type RatedCurve, ratedCurve } from './rated-curve';

/** One filter stage of a train, dirty to clean. */
export interface TrainStage {
  readonly name: string;
  readonly medium: Medium;
  readonly rating: FilterRating;
  /** Share of the air that gets past the seat, 0 to 1. */
  readonly bypass: number;
  /** m/s now; null takes the velocity of the rating. */
  readonly faceMs: number | null;
  /** Resistance now over clean: 1 is clean. */
  readonly timesClean: number;
}

export interface TrainInput {
  readonly stages: readonly TrainStage[];
  /** Share of the air that goes past every filter, 0 to 1. */
  readonly wholeBypass: number;
}

export interface BuiltStage {
  readonly stage: TrainStage;
  readonly curve: RatedCurve;
  /** Penetration of the medium alone. */
  readonly medium: (sizeUm: number) => number;
  /** The same, clean and never better than its rating: what may be claimed of it. */
  readonly claim: (sizeUm: number) => number;
  /** With what gets past its seat: b + (1 - b) P. */
  readonly seated: (sizeUm: number) => number;
}

export interface Train {
  readonly stages: readonly BuiltStage[];
  readonly wholeBypass: number;
  /** Everything in the train, unrated media by their typical figures. */
  readonly whole: (sizeUm: number) => number;
  /** Only stages with a rating count, clean and never better than it: what may be claimed. */
  readonly claimed: (sizeUm: number) => number;
  readonly mostPenetrating: { readonly sizeUm: number; readonly penetration: number };
}

/** b + (1 - b) P: what gets past a seat is not filtered. Source: mixing of two streams. Valid: shares 0 to 1; throws RangeError otherwise. */
export const pastSeat = (bypass: number, penetration: number): number => {
  if (!(bypass >= 0 && bypass <= 1 && penetration >= 0 && penetration <= 1))
    throw new RangeError(`bypass ${bypass} and penetration ${penetration} are shares`);
  return bypass + (1 - bypass) * penetration;
};

/** Penetration of elements side by side, averaged by flow. Source: mixing of streams. Valid: a total flow above 0; throws RangeError otherwise. */
export const sideBySide = (ways: readonly { readonly flowM3s: number; readonly penetration: number }[]): number => {
  const total = ways.reduce((sum, w) => sum + w.flowM3s, 0);
  if (!(total > 0)) throw new RangeError('no flow to average by');
  return ways.reduce((sum, w) => sum + w.flowM3s * w.penetration, 0) / total;
};

const isShare = (x: number): boolean => x >= 0 && x <= 1;

const build = (stage: TrainStage): Result<BuiltStage> => {
  if (!isShare(stage.bypass)) return fail(failure('train.bypass', 'bypass', { bypass: stage.bypass }));
  if (stage.faceMs !== null && !(stage.faceMs > 0))
    return fail(failure('train.face', 'faceMs', { faceMs: stage.faceMs }));
  const [curve, clean] = [ratedCurve(stage), ratedCurve({ ...stage, timesClean: 1 })];
  if (!curve.ok) return curve;
  if (!clean.ok) return clean;
  const { ratedFaceMs } = curve.value;
  const faceMs = stage.faceMs ?? ratedFaceMs;
  const medium = (sizeUm: number) => curve.value.penetration({ sizeUm, faceMs });
  // Faster air holds large particles better and small ones worse; a cake holds everything better. Neither betters a rating.
  const claim = (sizeUm: number) =>
    Math.max(clean.value.penetration({ sizeUm, faceMs }), clean.value.penetration({ sizeUm, faceMs: ratedFaceMs }));
  return ok({ stage, curve: curve.value, medium, claim, seated: (sizeUm) => pastSeat(stage.bypass, medium(sizeUm)) });
};

const product = (stages: readonly BuiltStage[], sizeUm: number): number =>
  stages.reduce((p, s) => p * s.seated(sizeUm), 1);

/**
 * The filter train: P(d) = b + (1 - b) prod [b_i + (1 - b_i) P_i(d)], stages in series with what passes each seat.
 * Source: Hinds, ch. 9, with independent stages. Valid: sizes 0.01 to 10 um, shares 0 to 1.
 * Returns `train.empty`, `train.bypass`, `train.face`, `train.rating`, `train.claim`, with the stage.
 */
export const filterTrain = ({ stages, wholeBypass }: TrainInput): Result<Train> => {
  if (stages.length === 0) return fail(failure('train.empty'));
  if (!isShare(wholeBypass)) return fail(failure('train.bypass', 'wholeBypass', { bypass: wholeBypass }));
  const built = stages.map((s, i) => at(`stages.${i}`, build(s)));
  const failures = built.flatMap((b) => (b.ok ? [] : b.failures));
  if (failures.length > 0) return fail(...failures);
  const all = built.flatMap((b) => (b.ok ? [b.value] : []));
  const rated = all.filter((s) => s.curve.rated);
  const claims = (sizeUm: number) => rated.reduce((p, s) => p * pastSeat(s.stage.bypass, s.claim(sizeUm)), 1);
  const whole = (sizeUm: number) => pastSeat(wholeBypass, product(all, sizeUm));
  return ok({
    stages: all,
    wholeBypass,
    whole,
    claimed: (sizeUm) => (rated.length === 0 ? 1 : pastSeat(wholeBypass, claims(sizeUm))),
    mostPenetrating: mostPenetrating(whole, SIZE_RANGE_UM),
  });
};
