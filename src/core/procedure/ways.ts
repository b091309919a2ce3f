import type { Fixing, PartWay } from '../machine/part-ways';
import type { ChangeSchool, CheckKind, OpenedPart, ProcedureId } from './step';

/** How an old part is shut before it moves. `liner`: shut only when its bin is down. */
export type PartClosing = 'cap' | 'safety' | 'neck' | 'liner' | 'draw' | 'none';

/** Facts that follow from the way a part sits. */
export interface WayFacts {
  /** The procedure that changes it, by the school it may be changed in. */
  readonly changes: Readonly<Partial<Record<ChangeSchool, ProcedureId>>>;
  /** The opening through which it is reached. */
  readonly opening: OpenedPart;
  readonly closing: PartClosing;
  readonly fixing: Fixing | null;
  /** Seen when it is in, before it is tightened. */
  readonly checks: readonly CheckKind[];
  /** Seen when it is tightened. */
  readonly after: readonly CheckKind[];
  /** What sits above it comes off first and goes back. */
  readonly lifts: boolean;
  /** The inlet is stopped first at every level: the maker's own order. */
  readonly plugFirst: boolean;
}

const way = (
  changes: WayFacts['changes'],
  opening: OpenedPart,
  over: Partial<Omit<WayFacts, 'changes' | 'opening'>> = {},
): WayFacts => ({
  changes,
  opening,
  closing: 'none',
  fixing: null,
  checks: [],
  after: [],
  lifts: false,
  plugFirst: false,
  ...over,
});

/** Source: handbook of the trade, sections 11 and 20; common practice, no published source. */
export const WAYS: Record<PartWay, WayFacts> = {
  collarBag: way({ off: 'plainBag' }, 'lid', { closing: 'cap' }),
  safetyBag: way({ off: 'safetyBag' }, 'lid', {
    closing: 'safety',
    checks: ['breathersInside', 'contactClear'],
    plugFirst: true,
  }),
  tankBag: way({ headAside: 'tankBagHeadAside', secondVacuum: 'tankBagSecondVacuum', off: 'plainBag' }, 'head', {
    closing: 'cap',
  }),
  filterBag: way({ running: 'filterBags' }, 'lid', { closing: 'draw', checks: ['bagCount'] }),
  lowerBag: way({ off: 'collectorEmpty' }, 'oldPart', { closing: 'neck', fixing: 'bandClamp' }),
  canBag: way({ off: 'centralCan' }, 'can', { closing: 'cap', checks: ['seamRear', 'tabFlush'] }),
  cycloneBag: way({ running: 'cycloneBag' }, 'door', { closing: 'draw', checks: ['nothingPinched'] }),
  bin: way({ off: 'collectorEmpty' }, 'oldPart', { closing: 'liner', fixing: 'binClamp', checks: ['nothingPinched'] }),
  liner: way({ off: 'endlessLiner' }, 'oldPart', { checks: ['nothingPinched'] }),
  wrap: way({ headAside: 'prefilterWrap' }, 'head', { checks: ['wrapAllRound'] }),
  stacked: way({ off: 'stackedFilter' }, 'lid', { checks: ['undersideClean'], lifts: true }),
  gasCell: way({ off: 'gasStage' }, 'lid', { fixing: 'gasLidScrews', checks: ['undersideClean'], lifts: true }),
  cartridge: way({ off: 'plainFilter' }, 'lid', { fixing: 'cartridgeNut' }),
  framed: way({ off: 'plainFilter' }, 'lid', { fixing: 'filterFrame' }),
  bolted: way({ off: 'boltedMainFilter' }, 'lid', { fixing: 'bolts', checks: ['undersideClean'], plugFirst: true }),
  cone: way({ off: 'plainFilter' }, 'lid', { fixing: 'coneNut' }),
  screwed: way({ off: 'screwHepa' }, 'head', { fixing: 'thread', checks: ['undersideClean'], after: ['threadFlush'] }),
  onRing: way({ off: 'plainFilter' }, 'ring', { fixing: 'ringLatches' }),
  slide: way({ off: 'plainFilter' }, 'lid'),
};
