import type { DustHazard } from '../dust/level';
import { mayRun, type PathStage } from '../machine/essential';
import type { MachineTraits } from './fault';
import type { Operation } from './operation';
import type { Repair } from './repair';

/** Limits that the dust and the machine set on fault finding. */
export interface Within {
  readonly stages: readonly PathStage[];
  readonly traits: Pick<MachineTraits, 'machineClass'>;
  readonly level: DustHazard;
  /** Stages that are out now. */
  readonly out: readonly number[];
}

/** Tests that look into a machine that is off. */
const STILL: ReadonlySet<Operation['kind']> = new Set<Operation['kind']>([
  'lookNozzle',
  'lookHose',
  'lookBag',
  'weigh',
  'cleanSide',
  'found',
]);

/** Why a test is not offered. */
export type NotOffered = 'takesOutFilter' | 'openInDust' | 'smellsDust' | 'nothingHolds';

/**
 * Why a test may not be made on this machine in this dust; null when it may. A part is taken out and the machine run
 * only in plain dust, and only while another filter of the maker's path holds; the light with the cover off only in
 * plain dust; nobody smells at the outlet of the worst dusts; and nothing runs while its essential filter is not in.
 * Source: EN 60335-2-69 (essential filter), 29 CFR 1926.1153; handbook of the trade, sections 10 and 16.
 */
export const notOffered = (
  op: Operation,
  { stages, traits: { machineClass }, level, out }: Within,
): NotOffered | null => {
  if (op.kind === 'takeOut' && level !== 'plain') return 'takesOutFilter';
  if (op.kind === 'lampCoverOff' && level !== 'plain') return 'openInDust';
  if (op.kind === 'smell' && level === 'contained') return 'smellsDust';
  if (STILL.has(op.kind)) return null;
  // A new part that was swapped in is in: the old one does not count as out while the machine runs.
  const running =
    op.kind === 'takeOut' ? [...out, op.position] : op.kind === 'swap' ? out.filter((p) => p !== op.position) : out;
  return mayRun({ stages, out: running, machineClass, level })
    ? null
    : op.kind === 'takeOut'
      ? 'takesOutFilter'
      : 'nothingHolds';
};

/** The stages after the repairs: a newly fitted part is in, even if the record does not show it yet. */
export const standingStages = (stages: readonly PathStage[], repairs: readonly Repair[]): readonly PathStage[] =>
  stages.map((s, position) =>
    s.missing && repairs.some((r) => r.kind === 'newPart' && r.position === position) ? { ...s, missing: false } : s,
  );
