import type { DustHazard } from '../../dust/level';
import type { Machine } from '../../machine/machine';
import { type Procedure, PROOF_CHECKS, type Step } from '../step';
import type { Fault, Violation } from '../violation';
import { EFFECTS } from './effects';
import { judgeEnd } from './end';
import { containersOpen, factsOf, guarded, newWorld, type Walk } from './world';

/** Opened and closed like a stack; a running machine draws through its inlets, which close by themselves. */
const closesLast = ({ world, blame, procedure }: Walk, { closes }: Step): void => {
  if (closes === undefined) return;
  const drawn = closes === 'inlet' && procedure.school === 'running';
  const at = world.open.lastIndexOf(closes);
  if (at < 0 || (!drawn && at !== world.open.length - 1)) blame({ kind: 'closedOutOfOrder', opening: closes });
  if (at >= 0) world.open.splice(at, 1);
};

const sees = ({ world }: Walk, { stage, check }: Step): void => {
  if (check === undefined) return;
  world.checks.add(check);
  if (stage === null) return;
  const seen = world.seen.get(stage) ?? new Set<string>();
  seen.add(check);
  world.seen.set(stage, seen);
};

/** Checks that hold for every step, in addition to its own effect. */
const marked = (walk: Walk, step: Step): void => {
  const { world, procedure, blame } = walk;
  const inside = containersOpen(world).length > 0;
  // A dirty hose that came off is capped before anything else is done.
  if (guarded(walk) && world.hoseEnd === 'open' && step.key !== 'capHose') blame({ kind: 'hoseOpen' });
  if (step.dusty && inside && procedure.school === 'off' && step.run !== 'off') blame({ kind: 'handsInRun' });
};

const walkTrack = (
  procedure: Procedure,
  { machine, level, turned }: { readonly machine: Machine; readonly level: DustHazard; readonly turned: boolean },
): readonly Violation[] => {
  const found: Violation[] = [];
  let at: number | null = null;
  const walk: Walk = {
    machine,
    facts: factsOf(machine),
    level,
    procedure,
    world: newWorld(),
    blame: (fault: Fault) => found.push({ ...fault, at }),
  };
  for (const [i, step] of procedure.steps.entries()) {
    at = i;
    // A step that closes does so before its effect; one that opens, after it.
    closesLast(walk, step);
    marked(walk, step);
    EFFECTS[step.key](walk, step);
    if (step.opens !== undefined) walk.world.open.push(step.opens);
    sees(walk, step);
    walk.world.done.add(step.key);
  }
  at = null;
  judgeEnd(walk, procedure.steps, turned);
  return found;
};

/** The other end of a procedure that may turn back: the steps up to the proof, then the old part back in. */
export const turnedTrack = (procedure: Procedure): readonly Step[] | null => {
  const proof = procedure.steps.findIndex((s) => s.check !== undefined && PROOF_CHECKS.has(s.check));
  return procedure.turnBack.length === 0 || proof < 0
    ? null
    : [...procedure.steps.slice(0, proof + 1), ...procedure.turnBack];
};

/**
 * Walks a procedure on its machine step by step and follows the dust: which part holds it, what is open to the room, what
 * is sealed, what runs and how, what the person wears; down both its ends where it may turn back. Returns everything that
 * is wrong, with the number of the step; empty for a sound one. Total: every step has an effect and every procedure a goal.
 * Source: EN 60335-2-69 instructions, 29 CFR 1910.147, HSE and OSHA guidance, from memory; handbook of the trade, sections
 * 11, 18, 20 and 21; common practice where none is named.
 */
export const prove = (procedure: Procedure, machine: Machine, level: DustHazard): readonly Violation[] => {
  const other = turnedTrack(procedure);
  return [
    ...walkTrack(procedure, { machine, level, turned: false }),
    ...(other ? walkTrack({ ...procedure, steps: other }, { machine, level, turned: true }) : []),
  ];
};
