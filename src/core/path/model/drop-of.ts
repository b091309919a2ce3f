/** Pressure drop in Pa and its slope in Pa s/m3 at a flow. Written into, so that a solver's inner loop makes no garbage. */
export interface Drop {
  pa: number;
  slope: number;
}

/** An element made ready for one air: writes its drop at a flow of either sign. */
export type DropOf = (flowM3s: number, out: Drop) => void;
