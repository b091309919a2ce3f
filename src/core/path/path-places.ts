import type { Place } from '../measure/place';
import { fail, failure, ok, type Result } from '../failure/failure';
import { type StageKind } from './stage-kinds';

export type Side = 'suction' | 'fan' | 'pressure';

/**
 * Which side of the fan each stage is on, tool to room. Before the fan a leak draws clean air in; after it a leak
 * blows dust out. Returns `path.empty`, `path.no-fan` or `path.two-fans`.
 */
export const sidesOfPath = (kinds: readonly StageKind[]): Result<readonly Side[]> => {
  if (kinds.length === 0) return fail(failure('path.empty'));
  const fan = kinds.indexOf('fan');
  if (fan < 0) return fail(failure('path.no-fan'));
  if (kinds.indexOf('fan', fan + 1) >= 0) return fail(failure('path.two-fans'));
  return ok(kinds.map((_, i): Side => (i < fan ? 'suction' : i === fan ? 'fan' : 'pressure')));
};

const isMouth = (kind: StageKind) => kind === 'nozzle' || kind === 'shroud' || kind === 'hood' || kind === 'wye';
const isLine = (kind: StageKind) => kind === 'hose' || kind === 'duct';

/**
 * The gap in the path where a place lies: 0 is before the first stage, n is after the last.
 * The hose end is behind the nozzle, the machine inlet behind the hose, the outlet behind everything.
 * Source: common practice, no published source. Total.
 */
export const gapOfPlace = (kinds: readonly StageKind[], place: Place): number => {
  const afterMouth = kinds.findLastIndex(isMouth) + 1;
  const afterLine = kinds.findLastIndex(isLine) + 1;
  switch (place) {
    case 'toolEnd':
      return 0;
    case 'hoseEnd':
      return afterMouth;
    case 'inlet':
      return Math.max(afterMouth, afterLine);
    case 'outlet':
      return kinds.length;
  }
};
