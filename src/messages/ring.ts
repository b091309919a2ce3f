import { fromSi, type UnitSystem, toDecimals } from '@/core/units';
import type { BoardFit, RingPlan } from '@/core/upgrade/ring';

// The words of the adapter ring.

/** A length as a rule reads it: half a millimetre, a thousandth of an inch beside its 32nd. */
export const sayLength = (metres: number, units: UnitSystem): string =>
  units === 'us'
    ? `${toDecimals(fromSi('length', metres, 'in'), 3)} in (${toDecimals(1000 * metres, 1)} mm)`
    : `${toDecimals(1000 * metres, 1)} mm`;

/** The pieces to cut. */
export const sayRing = (p: RingPlan, units: UnitSystem): string => {
  if (p.way === 'bracketsOnly') return 'No ring: the canister sits on the ramp. Brackets hold it down.';
  if (p.way === 'inside') return `One ring inside the rim: ${sayLength(p.gapM, units)} of gap each side.`;
  return `Two rings, one inside and a larger one on top: the canister hangs over by ${sayLength(-(p.beadGapM ?? p.gapM), units)} each side.`;
};

/** The work steps, in order. */
export const ringSteps = (p: RingPlan): readonly string[] => [
  ...(p.way === 'bracketsOnly'
    ? ['Set the canister on the ramp and screw the brackets to the drum so that they pull it down evenly.']
    : [
        'Cut on the waste side of the line, and try the ring in the rim before anything is drilled.',
        ...(p.board?.fits === 'segments'
          ? ['Glue the segments edge to edge on a flat board, the joints sealed: a gap in a joint is a leak.']
          : []),
        ...(p.way === 'double'
          ? ['Screw the upper ring to the lower one, sealant between them, and seal underneath against the rim.']
          : ['Bed the ring in sealant inside the rim.']),
        ...(p.fillM === null ? [] : ['Fill the gap behind the bead with weatherstrip and sealant.']),
        'Fix brackets or latches on the ring, bent square to it. Do not overtighten: a plastic ring warps, wood splits.',
      ]),
  'First run with your mask on: hold a strip of tissue round the whole gasket. Where it moves, it leaks. Then measure.',
];

export const sayBoard = (fit: BoardFit): string =>
  fit.fits === 'whole'
    ? 'It comes out of this board whole.'
    : fit.fits === 'segments'
      ? `It does not come out whole: ${fit.segments} segments a ring do.`
      : 'It does not come out of this board, not even in eight segments a ring.';
