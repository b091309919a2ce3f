import { STAGE_KINDS } from '../../path/stage-kinds';
import { wayOf } from '../../machine/kinds';
import { ISOLATION } from '../feed';
import type { Step, StepKey } from '../step';
import { beforeOpening, handsIn, protectedNow, runsShut } from './hands';
import { contained, containersOpen, guarded, stageAt, type Walk, wayAt } from './world';

/** Changes the world by one step, and blames the step for anything unsafe. */
export type Effect = (walk: Walk, step: Step) => void;

export const NOTHING: Effect = () => undefined;
export const all =
  (...effects: readonly Effect[]): Effect =>
  (walk, step) => {
    for (const effect of effects) effect(walk, step);
  };

/** Position of a step's stage; -1 for the machine. Source: the step. Valid: any step. */
export const at = ({ stage }: Step): number => stage ?? -1;
export const OUT: ReadonlySet<string> = new Set(['bagged', 'tied', 'wiped', 'away', 'loose']);
export const isOut = (walk: Walk, step: Step): boolean => OUT.has(walk.world.old.get(at(step)) ?? 'in');

export const feedOff =
  (key: StepKey): Effect =>
  ({ world, facts, blame }) => {
    if (ISOLATION[facts.feed].off !== key) blame({ kind: 'wrongFeed' });
    world.fed = false;
    world.run = 'off';
  };
export const feedOn =
  (key: StepKey): Effect =>
  (walk) => {
    const { world, facts, blame } = walk;
    if (ISOLATION[facts.feed].on !== key) blame({ kind: 'wrongFeed' });
    const [opening] = containersOpen(world);
    if (opening) blame({ kind: 'runWhileOpen', opening });
    world.fed = true;
  };

export const opensHousing: Effect = (walk, step) => {
  const { world, blame } = walk;
  handsIn(walk, step);
  beforeOpening(walk);
  if (world.screenedRunning) blame({ kind: 'openedAfterProof' });
  world.residue = true;
};

export const closesInlet =
  (hoseOff: boolean): Effect =>
  (walk) => {
    const { world } = walk;
    world.inlet = 'stopped';
    if (!hoseOff) return;
    protectedNow(walk);
    world.hoseEnd = 'open';
  };
export const opensInlet: Effect = ({ world, blame }) => {
  const shut = containersOpen(world).length === 0 && world.unlatched === 0 && world.run === 'off';
  if (!shut) blame({ kind: 'unplugEarly' });
  world.inlet = 'free';
  if (world.hoseEnd !== 'on') world.hoseEnd = 'on';
};

export const closesOld: Effect = (walk, step) => {
  handsIn(walk, step);
  walk.world.old.set(at(step), 'closed');
};

/** In a stack what sits above comes off first, and where dust counts it is in bags by then. */
export const fromStack: Effect = (walk, step) => {
  const { world, machine, blame } = walk;
  if (!wayAt(walk, step)?.lifts) return;
  const above = machine.stages.some(
    (s, i) => i < at(step) && !s.missing && wayOf(machine, s) === 'stacked' && !OUT.has(world.old.get(i) ?? 'in'),
  );
  if (above && world.above === 'in') blame({ kind: 'stackAbove' });
  if (guarded(walk) && world.above === 'open') blame({ kind: 'stackOpen' });
};

/** A part may move: shut, its fixings undone, nothing above it in the stack, its clean side seen. */
export const movesOut: Effect = (walk, step) => {
  const { world, blame } = walk;
  handsIn(walk, step);
  const way = wayAt(walk, step);
  const stage = stageAt(walk, step);
  const where = world.old.get(at(step)) ?? 'in';
  if (OUT.has(where)) blame({ kind: 'seatTaken' });
  if (way && way.closing !== 'none' && where !== 'closed') blame({ kind: 'oldNotClosed' });
  if (way && way.fixing !== null && !world.loose.has(at(step)) && !world.done.has('emptyInto'))
    blame({ kind: 'fixingTight' });
  if (stage && STAGE_KINDS[stage.kind].cleanSide && !world.seen.get(at(step))?.has('cleanSideClean'))
    blame({ kind: 'checkMissing', check: 'cleanSideClean' });
  fromStack(walk, step);
  const reached = way === null || step.key === 'emptyInto' || world.open.some((o) => o !== 'inlet');
  if (!reached) blame({ kind: 'fixingTight' });
  world.residue = true;
};

export const bagsOld: Effect = (walk, step) => {
  const { world } = walk;
  const stage = stageAt(walk, step);
  if (stage?.kind === 'hose') {
    protectedNow(walk);
    if (world.hoseEnd === 'open' && guarded(walk)) walk.blame({ kind: 'hoseOpen' });
    if (world.hoseEnd === 'on') walk.blame({ kind: 'fixingTight' });
  } else movesOut(walk, step);
  world.old.set(at(step), 'bagged');
  if (step.moves === 'holdOld') world.held.add(at(step));
};

/** A part goes in: in the hand, into an empty and wiped seat, the deepest first. */
export const fits: Effect = (walk, step) => {
  const { world, blame, machine } = walk;
  const stage = stageAt(walk, step);
  if (stage?.kind === 'hose') {
    protectedNow(walk);
    if (world.inlet !== 'free') blame({ kind: 'runBlind' });
  } else handsIn(walk, step);
  if (world.fresh.get(at(step)) !== 'hand') blame({ kind: 'notInHand' });
  if (!isOut(walk, step)) blame({ kind: 'seatTaken' });
  if (guarded(walk) && world.residue && stage?.kind !== 'hose') blame({ kind: 'notWiped' });
  const wrapped =
    stage && wayOf(machine, stage) === 'screwed'
      ? machine.stages.some((s, i) => wayOf(machine, s) === 'wrap' && world.fresh.get(i) === 'in')
      : false;
  if (wrapped) blame({ kind: 'wrapFirst' });
  world.fresh.set(at(step), 'in');
  world.seen.set(at(step), new Set([...(world.seen.get(at(step)) ?? [])].filter((c) => c === 'cleanSideClean')));
};

export const putsBack: Effect = (walk, step) => {
  const { world, blame } = walk;
  handsIn(walk, step);
  if (!world.held.has(at(step))) blame({ kind: 'wasteReopened' });
  if (contained(walk)) blame({ kind: 'wasteReopened' });
  if (guarded(walk) && world.residue) blame({ kind: 'notWiped' });
  world.old.set(at(step), 'in');
  world.held.delete(at(step));
  world.seen.set(at(step), new Set());
};

export const ties: Effect = (walk, step) => {
  protectedNow(walk);
  if (walk.world.old.get(at(step)) === 'bagged') walk.world.old.set(at(step), 'tied');
};
export const wipesBag: Effect = (walk, step) => {
  const { world, blame } = walk;
  protectedNow(walk);
  if (world.old.get(at(step)) !== 'tied') blame({ kind: 'wasteOpen' });
  world.old.set(at(step), 'wiped');
  world.wipes = 'loose';
};

export const wipesUp: Effect = (walk) => {
  const { world } = walk;
  protectedNow(walk);
  if (!contained(walk)) world.residue = false;
  world.wipes = 'loose';
};
export const decontaminates: Effect = (walk) => {
  const { world, blame } = walk;
  protectedNow(walk);
  if (!world.done.has('wipe')) blame({ kind: 'notWiped' });
  world.residue = false;
  world.wipes = 'loose';
};

export const tiesWaste = (walk: Walk): boolean => {
  const wanted = contained(walk) ? ['wiped', 'away', 'in', 'closed'] : ['tied', 'wiped', 'away', 'in', 'closed'];
  return [...walk.world.old.values()].every((w) => wanted.includes(w));
};

export const disposes: Effect = (walk, step) => {
  const { world, blame, procedure } = walk;
  const where = world.old.get(at(step));
  if (where === undefined || where === 'in' || where === 'closed') blame({ kind: 'notInHand' });
  if (guarded(walk) && where === 'bagged') blame({ kind: 'wasteOpen' });
  if (contained(walk) && (!world.secondBag || !world.labelled)) blame({ kind: 'wasteUnlabelled' });
  if (guarded(walk) && world.wipes === 'loose') blame({ kind: 'wipesLoose' });
  const measured = world.measured || procedure.id === 'service';
  const held = world.held.has(at(step)) && !world.done.has('proveIndicator');
  if (held || !measured || (procedure.integrity.length > 0 && !world.screenedRunning)) blame({ kind: 'goneUnproven' });
  world.old.set(at(step), 'away');
};

export const wears =
  (...what: readonly ('respirator' | 'coverall' | 'gloves')[]): Effect =>
  (walk) => {
    for (const w of what) walk.world.worn.add(w);
    walk.world.undressed = false;
  };

/** Everything that carries dust comes off before the respirator, and no dust is open by then. */
export const undresses: Effect = (walk) => {
  const { world, blame } = walk;
  const [opening] = containersOpen(world);
  if (opening) blame({ kind: 'leftOpen', opening });
  if (world.hoseEnd === 'open' || world.inlet === 'bare') blame({ kind: 'hoseOpen' });
  if (world.run !== 'off') blame({ kind: 'leftRunning' });
  if (!tiesWaste(walk)) blame({ kind: 'wasteOpen' });
  world.undressed = true;
};

export const running: Effect = ({ world }, step) => {
  world.run = step.run;
};

/** Where the machine is switched on for a change, it is built for that way of running. */
export const switchesOn: Effect = (walk, step) => {
  const { world, procedure, blame } = walk;
  if (!world.fed) blame({ kind: 'noFeed' });
  if (step.run === 'running' && procedure.school === 'off') runsShut(walk, { letIn: false });
  if (step.run !== 'running' && step.run !== procedure.school && procedure.school !== 'secondVacuum')
    blame({ kind: 'notBuiltForIt' });
  if (step.run === 'headAside' && !world.open.includes('head')) blame({ kind: 'notBuiltForIt' });
  running(walk, step);
};

export const screens =
  (which: 'off' | 'running'): Effect =>
  (walk, step) => {
    const { world, blame } = walk;
    if (which === 'off') {
      if (world.fed || step.run !== 'off') blame({ kind: 'notIsolated' });
      protectedNow(walk);
      world.screenedClean = true;
      return;
    }
    runsShut(walk, { letIn: true });
    running(walk, step);
    world.screenedRunning = true;
  };

export const onceDressed =
  (key: 'wipeSuit' | 'offOvershoes' | 'offCoverall' | 'offGloves'): Effect =>
  (walk) => {
    const { world, blame } = walk;
    undresses(walk, { key, run: 'off', stage: null, because: 'contained' });
    if (key === 'wipeSuit') world.suit = 'wiped';
    if (key === 'offCoverall') {
      if (world.suit !== 'wiped' || !world.done.has('offOvershoes')) blame({ kind: 'undressOrder' });
      if (world.suitBag !== 'out') blame({ kind: 'suitWithoutBag' });
      world.suit = 'off';
      world.worn.delete('coverall');
      world.worn.delete('gloves');
    }
    if (key === 'offGloves') world.worn.delete('gloves');
  };

export const opensPart: Effect = (walk, step) => {
  if (!step.opens) walk.blame({ kind: 'missing', step: step.key });
  opensHousing(walk, step);
};
export const hasHousing: Effect = ({ world }, step) => {
  if (step.closes !== undefined && step.closes !== 'oldPart' && step.closes !== 'inlet') world.unlatched += 1;
};
