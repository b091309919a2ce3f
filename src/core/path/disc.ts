/** Share of the opening that the indicator check covers. Source: common practice, no published source. */
export const DISC_COVERS = 0.8;

/**
 * Diameter in m of the hole in a disc that covers 80 % of a hose end: what is left open is 20 % of its area.
 * Source: areas go with the square of diameters. Valid: bores above 0 to 0.5 m; throws RangeError otherwise.
 * @example discHoleM(0.036) // 0.0161: a 36 mm hose takes a 16.1 mm hole
 */
export const discHoleM = (boreM: number): number => {
  if (!(boreM > 0 && boreM <= 0.5)) throw new RangeError(`bore of ${boreM} m is not above 0 and at most 0.5 m`);
  return boreM * Math.sqrt(1 - DISC_COVERS);
};

/** The light with the disc on the hose end, and after the disc was taken off. */
export interface DiscSeen {
  readonly covered: 'lit' | 'out';
  readonly uncovered: 'lit' | 'out';
}

/** The verdict of the disc check on an indicator. */
export type DiscVerdict = 'good' | 'blind' | 'stuck';

/** On when covered and off again: good. Never on: blind. Still on: stuck. Source: common practice, no published source. */
export const discVerdict = ({ covered, uncovered }: DiscSeen): DiscVerdict =>
  covered === 'out' ? 'blind' : uncovered === 'lit' ? 'stuck' : 'good';
