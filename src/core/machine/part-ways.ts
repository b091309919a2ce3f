/** How a part sits in a machine: the fact from which its removal, its seat checks and its tightening follow. */
export const PART_WAYS = [
  /** A bag on a collar, behind a lid. */
  'collarBag',
  /** A sealed safety bag: breather holes and mouth are closed before it moves. */
  'safetyBag',
  /** A bag in a tank under a motor head. */
  'tankBag',
  /** Bags behind a cyclone, changed while the machine runs. */
  'filterBag',
  /** The bag that hangs under the ring of a collector. */
  'lowerBag',
  /** The bag in the can of a central unit. */
  'canBag',
  /** The collection bag under a cyclone, changed while the machine runs. */
  'cycloneBag',
  /** A bin with a liner under a cyclone. */
  'bin',
  /** An endless liner under a drop chamber. */
  'liner',
  /** A pre-filter wrapped over a screw-on HEPA. */
  'wrap',
  /** One of a stack: what sits above it comes off first. */
  'stacked',
  /** A gas stage under a screwed lid, below its stack. */
  'gasCell',
  /** A cartridge under a nut. */
  'cartridge',
  /** A flat filter in a frame. */
  'framed',
  /** A main filter behind fixings that need a tool. */
  'bolted',
  /** A cone under its nut, with two seals. */
  'cone',
  /** A HEPA on a thread. */
  'screwed',
  /** A canister or filter bag on the ring of a collector, outside. */
  'onRing',
  /** Slides in without fixings. */
  'slide',
] as const;
export type PartWay = (typeof PART_WAYS)[number];

/** Fixings that are undone before a part can move, and tightened again. */
export const FIXINGS = [
  'cartridgeNut',
  'filterFrame',
  'bolts',
  'coneNut',
  'thread',
  'gasLidScrews',
  'ringLatches',
  'bandClamp',
  'binClamp',
] as const;
export type Fixing = (typeof FIXINGS)[number];
