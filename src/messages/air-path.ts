import type { OldPart } from '@/core/calibrate/change-load';
import type { PathView } from '@/core/calibrate/path-view';
import type { TodayBasis } from '@/core/calibrate/today';
import type { FaceVelocity } from '@/core/path/face-velocity';
import { lifts } from '@/core/path/lifts';
import type { ProfileStep } from '@/core/path/pressure-profile';
import { fromSi, show, showPercent, type UnitSystem, toDigits } from '@/core/units';
import type { Statement } from './verdicts';
import { times } from './format';

/** Whether the drawing can be trusted, in one sentence; `problem` says why the calibration failed. */
export const sayPathBasis = (basis: PathView['basis'], problem: string | null): Statement => {
  if (basis.kind === 'calibrated') {
    const { readings, agreeing } = basis;
    return agreeing === readings
      ? {
          tone: 'good',
          mark: 'Calibrated',
          detail: '',
          sentence: `The model agrees with all ${readings} baseline readings within their uncertainty.`,
        }
      : {
          tone: 'watch',
          mark: 'Calibrated',
          detail: '',
          sentence: `The model agrees with ${agreeing} of ${readings} baseline readings; the others are listed under Air path.`,
        };
  }
  if (basis.why === null)
    return {
      tone: 'open',
      mark: 'Typical',
      detail: '',
      sentence: 'Estimated from typical figures for its kind. Measure a baseline to replace this estimate.',
    };
  return {
    tone: 'watch',
    mark: 'Typical',
    detail: '',
    sentence: `Estimated from typical figures. ${problem ?? ''}`.trim(),
  };
};

const list = (names: readonly string[]): string =>
  names.length <= 1 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1) ?? ''}`;

/** What today's line rests on. */
export const sayToday = (today: PathView['today'], units: UnitSystem): string => {
  const across =
    today.fromStageDp.length > 0 ? ` The ${list(today.fromStageDp)} from the pressure read across it.` : '';
  return `${sayBasis(today.basis, units)}${across}`;
};

const sayBasis = (basis: TodayBasis, units: UnitSystem): string => {
  switch (basis.kind) {
    case 'flow': {
      const since = basis.changedSince.length > 0 ? ` Clean since: ${list(basis.changedSince)}.` : '';
      const shared =
        basis.shared.length > 1
          ? ` The load is shared between ${list(basis.shared)} by age: read the pressure across one of them to be sure.`
          : '';
      return `Today: from the flow test of ${basis.day}.${shared}${since}`;
    }
    case 'easier':
      return basis.within
        ? `Today: clean. The flow test of ${basis.day} matches the clean path.`
        : `The flow test of ${basis.day} gave ${show('flow', basis.measuredM3s, units)}, more than the clean path allows (${show('flow', basis.cleanM3s, units)}): a filter is out, torn or not seated, or the baseline is out of date.`;
    case 'unexplained':
      return `A loaded filter does not explain the flow test of ${basis.day}: look for a plug.`;
    case 'noFlow':
      return 'Shown clean: no flow test since the baseline. Sealed suction does not show loading.';
  }
};

/** The drop of one step, and its normal value. */
export const sayStep = (
  name: string,
  step: ProfileStep,
  { normal, units }: { readonly normal: ProfileStep | null; readonly units: UnitSystem },
): string => {
  if (lifts(step))
    return `${name}: suction ${show('pressure', -step.dropPa, units)} at ${show('flow', step.flowM3s, units)}`;
  const cost = `${name}: ${show('pressure', step.dropPa, units)}, ${showPercent(step.shareOfLift)} of the fan's suction`;
  if (!normal) return cost;
  const [now, asNew] = [show('pressure', step.dropPa, units), show('pressure', normal.dropPa, units)];
  return now === asNew ? cost : `${cost}; as new ${asNew}`;
};

/** The step to speak of first: the one that changed most since new, or the tallest. */
export const sayLeadStep = (
  name: string,
  step: ProfileStep,
  {
    normal,
    grown,
    units,
  }: { readonly normal: ProfileStep | null; readonly grown: boolean; readonly units: UnitSystem },
): string => {
  const now = show('pressure', step.dropPa, units);
  const share = `${showPercent(step.shareOfLift)} of the fan's suction`;
  const asNew = normal ? show('pressure', normal.dropPa, units) : now;
  return grown
    ? `The ${name} changed most. It now takes ${now}, ${share}${asNew === now ? '' : `; new, it took ${asNew}`}.`
    : `The ${name} takes most: ${now}, ${share}${asNew === now ? '' : `; new, it took ${asNew}`}.`;
};

/** The drop of the part that came out. */
export const sayOldPart = (name: string, { load, dropPa }: OldPart, units: UnitSystem): string => {
  return load.asClean
    ? `By the model the old ${name} was as good as clean: look elsewhere for the loss.`
    : `By the model the old ${name} had ${times(load.timesClean)} times its clean resistance, ${show('pressure', dropPa, units)} at the flow before.`;
};

const FACE_WORDS = { easy: 'area to spare', usual: 'normal', high: 'too little area' } as const;

/** Air-to-cloth ratio in a phrase; in both units because the trade uses both. */
export const sayFace = (face: FaceVelocity): string => {
  const cm = `${toDigits(face.velocityMs * 100, 2)} cm/s`;
  const fpm = `${toDigits(fromSi('velocity', face.velocityMs, 'fpm'), 2)} fpm`;
  return `${cm} (${fpm}) through the medium: ${FACE_WORDS[face.verdict]}`;
};
