import type { DustStatement } from '../dust/assess';
import type { ToolKey } from './tools';

export const PLACES_OF_WORK = ['indoors', 'cabin', 'barge', 'outdoors'] as const;
export type PlaceOfWork = (typeof PLACES_OF_WORK)[number];

/** The planned work. An unknown fact is null, and the answer says so. */
export interface WorkQuestion {
  readonly dust: DustStatement;
  readonly tool: ToolKey | null;
  /** Diameter of the wheel, disc or blade, m. */
  readonly sizeM: number | null;
  /** Distance of a hood or slot from the dust, m. */
  readonly awayM: number | null;
  /** Flow the tool's maker asks for, m3/s. */
  readonly makerM3s: number | null;
  /** Tools at once on one machine, through a Y. */
  readonly tools: 1 | 2;
  readonly wet: boolean;
  readonly place: PlaceOfWork | null;
  readonly hours: number | null;
}

/** A closed space: the exhaust air returns to it. */
export const isEnclosed = (place: PlaceOfWork | null): boolean => place !== 'outdoors';

/** A dust alone, without a kind of work. */
export const aboutDust = (dust: DustStatement, over: Partial<WorkQuestion> = {}): WorkQuestion => ({
  dust,
  tool: null,
  sizeM: null,
  awayM: null,
  makerM3s: null,
  tools: 1,
  wet: false,
  place: null,
  hours: null,
  ...over,
});
