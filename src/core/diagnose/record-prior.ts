import type { FaultKind, FaultPlace } from './fault';

/** Facts on record about one stage. */
export interface StageRecord {
  /** Days since its change over the days it is given; null where nothing says it. */
  readonly lifeUsed: number | null;
  /** It was opened or changed in the last days before the complaint. */
  readonly justOpened: boolean;
}

export interface MachineRecord {
  /** By stage position. */
  readonly stages: readonly StageRecord[];
  /** Last collected wet, or fitted out for it. */
  readonly wet: boolean;
  /** Its dust blinds a fine medium: fillers, plaster. */
  readonly blinding: boolean;
  /** Root causes of closed cases: of this machine once, of its twins at half. */
  readonly causes: readonly { readonly kind: FaultKind; readonly position: number; readonly weight: number }[];
}

export const NO_RECORD: MachineRecord = { stages: [], wet: false, blinding: false, causes: [] };

/** Weights of the record. Moorwind defaults, modelling choices. */
const FRESH = 0.35;
const OVERDUE = 3;
/** Life used, as a share of its interval, from which a stage is as likely blocked as it gets. */
const WELL_OVERDUE = 1.2;
const JUST_OPENED = 3.5;
const WET = 2;
const BLINDING = 1.5;
const AGAIN = 1.2;

const DONE_WRONG: ReadonlySet<FaultKind> = new Set<FaultKind>([
  'misseated',
  'missing',
  'reversed',
  'leakingSeal',
  'wrongSelector',
]);

/** A stage early in its life is rarely blocked, one at its end often: linear in between, in the logarithm. */
const lifeFactor = (used: number): number => FRESH * (OVERDUE / FRESH) ** Math.min(1, used / WELL_OVERDUE);

/**
 * How much a machine's record speaks for a fault: life used, what was opened just before, wet work, what it collects,
 * and what came back. 1 says nothing. Source: common practice, no published source; weights are Moorwind defaults.
 */
export const recordFactor =
  (record: MachineRecord, medium: (position: number) => boolean) =>
  ({ kind, position }: FaultPlace): number => {
    const stage = record.stages[position];
    const used = stage?.lifeUsed ?? null;
    const again = record.causes
      .filter((c) => c.kind === kind && c.position === position)
      .reduce((sum, c) => sum + c.weight, 0);
    let factor = 1 + AGAIN * Math.min(3, again);
    if (kind === 'blocked' && used !== null && medium(position)) factor *= lifeFactor(Math.max(0, used));
    if (stage?.justOpened && DONE_WRONG.has(kind)) factor *= JUST_OPENED;
    if (kind === 'blocked' && medium(position)) factor *= (record.wet ? WET : 1) * (record.blinding ? BLINDING : 1);
    return factor;
  };
