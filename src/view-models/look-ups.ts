import { toDigits } from '@/core/units';
import type { PenetrationChart } from '@/charts/penetration-option';
import { MEDIA, MEDIUM_NAMES } from '@/core/constants/media';
import { CARE_OF } from '@/core/dust/care';
import { mostPenetrating, ratedCurve } from '@/core/filter/rated-curve';
import { DUST_CLASS_PENETRATION, EN_1822, US_HEPA } from '@/core/filter/rating';
import { CLEANING_WORDS } from '@/messages/dust';
import { CLASS_LINES, MEDIUM_LIFE, SAYINGS } from '@/messages/look-ups';
import { capital } from '@/messages/words';

const SIZES = Array.from({ length: 61 }, (_, i) => 0.01 * 1000 ** (i / 60));
/** Half, once and twice the velocity the rating is stated at. */
const FACE_TIMES = [0.5, 1, 2] as const;

export interface HardestSize {
  readonly chart: PenetrationChart;
  /** Size that most gets through at each face velocity, um. */
  readonly hardest: readonly { readonly faceMs: number; readonly sizeUm: number; readonly passes: number }[];
}

/** A HEPA of 99.97 % at 0.3 um, by size, at three face velocities; null where the curve cannot be made. */
export const hardestSize = (): HardestSize | null => {
  const made = ratedCurve({ medium: 'hepaGlass', rating: { scale: 'point', ...US_HEPA } });
  if (!made.ok) return null;
  const faces = FACE_TIMES.map((t) => t * made.value.ratedFaceMs);
  const at = (faceMs: number) => (sizeUm: number) => made.value.penetration({ sizeUm, faceMs });
  return {
    chart: {
      curves: faces.map((faceMs, i) => ({
        name: `${toDigits(100 * faceMs, 2)} cm/s`,
        whole: FACE_TIMES[i] === 1,
        points: SIZES.map((d) => [d, at(faceMs)(d)] as const),
      })),
      limits: (['L', 'M', 'H'] as const).map((c) => ({ name: `${c} limit`, penetration: DUST_CLASS_PENETRATION[c] })),
    },
    hardest: faces.map((faceMs) => {
      const { sizeUm, penetration } = mostPenetrating(at(faceMs));
      return { faceMs, sizeUm, passes: penetration };
    }),
  };
};

const percent = (share: number): string => `${toDigits(100 * share, 3)} %`;

/** The classes of whole machines, with what each may let through. */
export const classLines = () =>
  (['L', 'M', 'H'] as const).map((c) => ({
    name: `${c} class`,
    passes: `at most ${percent(DUST_CLASS_PENETRATION[c])} gets through`,
    ...CLASS_LINES[c],
  }));

/** The grades of an element, with the least it must hold back at its hardest size. */
export const gradeLines = () =>
  Object.entries(EN_1822).map(([name, { integralPercent, localPercent }]) => ({
    name,
    holds: `${integralPercent} %`,
    local: localPercent === null ? '' : `${localPercent} % at any spot`,
  }));

/** Every medium, how it may be cleaned at all, and how long it usually lasts. */
export const mediumLines = () =>
  MEDIUM_NAMES.map((m) => ({
    name: capital(MEDIA[m].label),
    care:
      CARE_OF[m].length === 0 ? 'never cleaned: fit a new one' : CARE_OF[m].map((w) => CLEANING_WORDS[w]).join(', or '),
    wet: MEDIA[m].dryOnly ? 'dry work only' : '',
    life: MEDIUM_LIFE[m],
    seasons: MEDIA[m].seasons,
  }));

export { SAYINGS };
