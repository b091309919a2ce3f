import type { NeededClass } from '@/core/dust/dust';

/** Exposure limits, mg/m3, at which the class changes. Source: EN/IEC 60335-2-69 Annex AA, from memory of the table. */
const L_ABOVE_MG_M3 = 1;
const H_BELOW_MG_M3 = 0.1;

/**
 * The dust class an exposure limit proposes: above 1 mg/m3 L, from 0.1 M, below 0.1 or for carcinogens and pathogens H.
 * Source: EN/IEC 60335-2-69 Annex AA, from memory of the table; a proposal, the dust's own record decides where practice
 * differs. Valid: a limit above 0 mg/m3; throws RangeError otherwise.
 * @example classFromLimit({ mgM3: 0.05, carcinogenOrPathogen: false }) // 'H'
 */
export const classFromLimit = ({
  mgM3,
  carcinogenOrPathogen,
}: {
  readonly mgM3: number;
  readonly carcinogenOrPathogen: boolean;
}): NeededClass => {
  if (!(mgM3 > 0)) throw new RangeError(`limit ${mgM3} mg/m3 is not above 0`);
  if (carcinogenOrPathogen || mgM3 < H_BELOW_MG_M3) return 'H';
  return mgM3 > L_ABOVE_MG_M3 ? 'L' : 'M';
};
