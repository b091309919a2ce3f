import type { Medium } from '../constants/media';
import type { MachineClass } from '../filter/machine-class';
import type { DustStanding } from './assess';
import type { CleaningWay } from './dust';

/**
 * Cleaning ways that a medium allows, for any dust. Source: handbook of the trade, section 8, common practice, no
 * published source.
 */
export const CARE_OF: Record<Medium, readonly CleaningWay[]> = {
  mesh: ['wash', 'vacuum'],
  foam: ['wash', 'vacuum'],
  fleeceBag: [],
  clothBag: ['shake', 'wash'],
  paperBag: [],
  pleatedPolyester: ['machinePulse', 'vacuum'],
  fineDustFleece: [],
  nanofibre: ['machinePulse', 'vacuum'],
  hepaGlass: [],
  carbonBed: [],
};

export type NoCare = 'medium' | 'dust' | 'class';

/**
 * The ways a medium may be cleaned after what the machine has collected: only those both its kind and every dust in it
 * allow; an element that carries an H or HEPA class never. Empty with the reason where there is none.
 */
export const waysToClean = (
  medium: Medium,
  {
    standing,
    carriesClass,
  }: { readonly standing: Pick<DustStanding, 'dusts' | 'level'>; readonly carriesClass: MachineClass | null },
): { readonly ways: readonly CleaningWay[]; readonly because: NoCare | null } => {
  const own = CARE_OF[medium];
  if (own.length === 0) return { ways: [], because: 'medium' };
  if (carriesClass === 'H' || carriesClass === 'HEPA') return { ways: [], because: 'class' };
  const unknown = standing.dusts.length === 0 && standing.level !== 'plain';
  const ways = unknown ? [] : own.filter((w) => standing.dusts.every((d) => d.cleanedBy.includes(w)));
  // Contained dust is never shaken or washed out of a filter.
  const kept = standing.level === 'contained' ? ways.filter((w) => w === 'machinePulse') : ways;
  return kept.length > 0 ? { ways: kept, because: null } : { ways: [], because: 'dust' };
};
