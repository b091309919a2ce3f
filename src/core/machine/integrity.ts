import { dayAt } from '../calendar/calendar-date';
import type { CalendarDate } from '../calendar/calendar-date';
import type { DustHazard } from '../dust/level';
import { STAGE_KINDS, type StageKind } from '../path/stage-kinds';
import { DUST_CLASS_PENETRATION, US_HEPA } from '../filter/rating';
import type { MachineClass } from '../filter/machine-class';

/** Screening on site: seen on the clean side, smoke along the seals, counted behind it. It can fail a filter; it cannot prove a class. */
export const INTEGRITY_TESTS = ['cleanSide', 'smoke', 'particles'] as const;
export type IntegrityTest = (typeof INTEGRITY_TESTS)[number];

/** One such test. */
export interface IntegrityCheck {
  readonly test: IntegrityTest;
  readonly passed: boolean;
  /** UTC ISO. */
  readonly at: string;
  readonly by: string;
  readonly note: string;
}

/** A penetration test of the whole machine by a competent person: what alone proves an H or HEPA class after a change. */
export interface PenetrationTest {
  readonly id: number;
  /** When it was written down, UTC ISO. */
  readonly at: string;
  readonly by: string;
  readonly testedOn: CalendarDate;
  readonly tester: string;
  readonly method: string;
  readonly certificate: string;
  /** Share that passed, 0 to 1. */
  readonly share: number;
  /** The limit of the comparison, 0 to 1. */
  readonly limit: number;
  readonly nextDueOn: CalendarDate | null;
}

/** Most that may pass a whole machine of a class, as a share. Source: EN/IEC 60335-2-69 Annex AA; HEPA 29 CFR 1926.1153 and DOE-STD-3020, from memory. Valid: every class. */
export const classLimit = (machineClass: MachineClass): number =>
  machineClass === 'HEPA' ? 1 - US_HEPA.efficiency : DUST_CLASS_PENETRATION[machineClass];

/** Inclusive, with a relative slack: 1 - 0.999 must not fail 0.001. */
export const holdsLimit = ({ share, limit }: Pick<PenetrationTest, 'share' | 'limit'>): boolean =>
  share <= limit * (1 + 1e-9);

interface Classed {
  readonly machineClass: MachineClass | null;
}

/** A machine that needs screening: by its class, or by its dust. */
interface Screened extends Classed {
  readonly hazard: DustHazard;
}

/** A machine with the penetration tests it has passed or failed; their days are the site's. */
export interface TestedMachine extends Screened {
  readonly penetration: readonly PenetrationTest[];
  readonly timeZone: string;
}

/** The look at the clean side is the only one that opens: it comes before the others. */
const TESTS: Record<MachineClass, readonly IntegrityTest[]> = {
  L: [],
  M: ['cleanSide', 'smoke'],
  H: ['cleanSide', 'smoke', 'particles'],
  HEPA: ['cleanSide', 'smoke', 'particles'],
};

/** Without a class the filter that guards the room is screened in the worst dust: nothing else speaks for it. */
const CONTAINED_TESTS: readonly IntegrityTest[] = ['cleanSide', 'smoke'];

const carries = (kind: StageKind): boolean => STAGE_KINDS[kind].carriesClass;

/**
 * The screening that is due after the filter that guards the room was changed: by the class it carries; without a class in
 * contained dust; none elsewhere. Source: EN 60335-2-69 tests the whole appliance with its filter; which screening is done
 * on site is common practice, no published source.
 */
export const integrityTestsOf = (
  { machineClass, hazard }: Screened,
  { kind }: { readonly kind: StageKind },
): readonly IntegrityTest[] => {
  if (machineClass !== null) return carries(kind) ? TESTS[machineClass] : [];
  return hazard === 'contained' && STAGE_KINDS[kind].guardsRoom ? CONTAINED_TESTS : [];
};

/** Whether the wording of a class comes back only with a penetration test. */
export const wantsPenetration = ({ machineClass }: Classed, { kind }: { readonly kind: StageKind }): boolean =>
  carries(kind) && (machineClass === 'H' || machineClass === 'HEPA');

/** A stage since its seat was last opened: screening still to be passed, what failed when last tried, and the proof. */
export interface IntegrityStanding {
  readonly due: readonly IntegrityTest[];
  readonly failed: readonly IntegrityTest[];
  readonly penetration: 'notNeeded' | 'due' | 'failed';
}

export interface SeatFacts {
  readonly kind: StageKind;
  /** When its seat was last opened, UTC ISO, by any person and method; null when the record has none. */
  readonly openedAt: string | null;
  readonly proven: readonly IntegrityCheck[];
}

const newestProof = ({ penetration, timeZone }: TestedMachine, openedAt: string): PenetrationTest | null =>
  penetration.filter((t) => t.at >= openedAt && t.testedOn >= dayAt(openedAt, timeZone)).at(-1) ?? null;

/**
 * The tests due for a stage since its seat was opened; null when none are. A later pass undoes a failure. A look at the
 * clean side opens the machine: smoke and counts from before it no longer count. A penetration test that held proves
 * what screening only looks for.
 */
export const integrityStanding = (machine: TestedMachine, stage: SeatFacts): IntegrityStanding | null => {
  const { openedAt, proven } = stage;
  if (openedAt === null) return null;
  const looked = proven.filter((c) => c.test === 'cleanSide' && c.at >= openedAt).at(-1)?.at ?? openedAt;
  const since = (test: IntegrityTest): string => (test === 'cleanSide' ? openedAt : looked);
  const proof = newestProof(machine, looked);
  if (proof && holdsLimit(proof)) return null;
  const lastOf = (test: IntegrityTest) => proven.filter((c) => c.test === test && c.at >= since(test)).at(-1) ?? null;
  const due = integrityTestsOf(machine, stage).filter((test) => lastOf(test)?.passed !== true);
  const penetration = proof ? 'failed' : wantsPenetration(machine, stage) ? 'due' : 'notNeeded';
  return due.length === 0 && penetration === 'notNeeded'
    ? null
    : { due, failed: due.filter((test) => lastOf(test)?.passed === false), penetration };
};
