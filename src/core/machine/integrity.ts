import type { StageKind } from '../path/stage-kinds';
import type { MachineClass } from './machine-class';

/** What shows that a fine filter sits and holds: counted behind it, seen on its clean side, smoke along its seals. */
export type IntegrityTest = 'particles' | 'cleanSide' | 'smoke';

/** One such test as it was done. */
export interface IntegrityCheck {
  readonly test: IntegrityTest;
  readonly passed: boolean;
  /** UTC ISO. */
  readonly at: string;
}

interface Classed {
  readonly machineClass: MachineClass | null;
}

const TESTS: Record<MachineClass, readonly IntegrityTest[]> = { L: [], M: ['cleanSide', 'smoke'], H: ['particles', 'cleanSide', 'smoke'], HEPA: ['particles', 'cleanSide', 'smoke'] };

/**
 * The tests that are due after the filter that carries a machine's class was changed; none where the stage does not
 * carry it. Source: EN 60335-2-69 tests the whole appliance with its filter; which field test stands in for it is common
 * practice, no published source.
 */
export const integrityTestsOf = ({ machineClass }: Classed, { kind }: { readonly kind: StageKind }): readonly IntegrityTest[] =>
  machineClass === null || (kind !== 'hepa' && kind !== 'mainFilter') ? [] : TESTS[machineClass];

/** Tests of a stage since its part was last fitted: what still has to be passed, and what failed when last tried. */
export interface IntegrityStanding {
  readonly due: readonly IntegrityTest[];
  readonly failed: readonly IntegrityTest[];
}

/** How a stage stands since its part was fitted; null when nothing is due. A later pass undoes a failure. */
export const integrityStanding = (machine: Classed, stage: { readonly kind: StageKind; readonly fittedAt: string | null; readonly proven: readonly IntegrityCheck[] }): IntegrityStanding | null => {
  const { fittedAt, proven } = stage;
  if (fittedAt === null) return null;
  const lastOf = (test: IntegrityTest) => proven.filter((c) => c.test === test && c.at >= fittedAt).at(-1) ?? null;
  const wanted = integrityTestsOf(machine, stage);
  const due = wanted.filter((test) => lastOf(test)?.passed !== true);
  return due.length === 0 ? null : { due, failed: due.filter((test) => lastOf(test)?.passed === false) };
};
