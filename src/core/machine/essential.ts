import type { Medium } from '../constants/media';
import type { DustHazard } from '../dust/level';
import type { StageKind } from '../path/stage-kinds';
import type { StageSpec } from '../path/stage-spec';
import type { MachineClass } from '../filter/machine-class';

/** Media that hold fine dust back; a mesh, a foam and a carbon bed do not. Common practice, no published source. */
const HOLDS: ReadonlySet<Medium> = new Set<Medium>([
  'fleeceBag',
  'clothBag',
  'paperBag',
  'pleatedPolyester',
  'fineDustFleece',
  'nanofibre',
  'hepaGlass',
]);

export interface PathStage {
  readonly kind: StageKind;
  readonly missing: boolean;
  readonly spec: StageSpec;
}

const isFilter = ({ spec }: PathStage): boolean => spec.air.form === 'medium' && HOLDS.has(spec.air.medium);

/**
 * The stage that holds the dust back from the room as the maker built it, there or missing: the HEPA, else the main
 * filter, else the last filter of the path. -1 where the path has none. Source: EN 60335-2-69, "essential filter"; which
 * stage it is without a class is common practice, no published source.
 *Total.
 */
export const essentialStage = (stages: readonly PathStage[]): number => {
  const last = (want: (s: PathStage) => boolean) => stages.findLastIndex((s) => isFilter(s) && want(s));
  const hepa = last((s) => s.kind === 'hepa');
  const main = last((s) => s.kind === 'mainFilter');
  return hepa >= 0 ? hepa : main >= 0 ? main : last(() => true);
};

export interface RunQuestion {
  readonly stages: readonly PathStage[];
  /** Stages out of the machine, beside those that are missing. */
  readonly out: readonly number[];
  readonly machineClass: MachineClass | null;
  readonly level: DustHazard;
}

/** Whether a machine may run in its present state: its essential filter is in. */
export const mayRun = ({ stages, out, machineClass, level }: RunQuestion): boolean => {
  const there = (i: number): boolean => stages[i]?.missing === false && !out.includes(i);
  const essential = essentialStage(stages);
  if (essential < 0) return level === 'plain';
  if (there(essential)) return true;
  return level === 'plain' && machineClass === null && stages.some((s, i) => isFilter(s) && there(i));
};
