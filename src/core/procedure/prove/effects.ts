import { dustParts } from '../../machine/dust-parts';
import { STAGE_KINDS } from '../../path/stage-kinds';
import { wayOf } from '../../machine/kinds';
import { ISOLATION } from '../feed';
import type { Step, StepKey } from '../step';
import { beforeOpening, handsIn, protectedNow, runsShut } from './hands';
import { WAYS } from '../ways';
import { contained, containersOpen, guarded, stageAt, type Walk, wayAt } from './world';

/** What a step does to the world, and what is wrong with doing it now. */
type Effect = (walk: Walk, step: Step) => void;

const NOTHING: Effect = () => undefined;
const all =
  (...effects: readonly Effect[]): Effect =>
  (walk, step) => {
    for (const effect of effects) effect(walk, step);
  };

const at = ({ stage }: Step): number => stage ?? -1;
const OUT: ReadonlySet<string> = new Set(['bagged', 'tied', 'wiped', 'away', 'loose']);
const isOut = (walk: Walk, step: Step): boolean => OUT.has(walk.world.old.get(at(step)) ?? 'in');

const feedOff =
  (key: StepKey): Effect =>
  ({ world, facts, blame }) => {
    if (ISOLATION[facts.feed].off !== key) blame({ kind: 'wrongFeed' });
    world.fed = false;
    world.run = 'off';
  };
const feedOn =
  (key: StepKey): Effect =>
  (walk) => {
    const { world, facts, blame } = walk;
    if (ISOLATION[facts.feed].on !== key) blame({ kind: 'wrongFeed' });
    const [opening] = containersOpen(world);
    if (opening) blame({ kind: 'runWhileOpen', opening });
    world.fed = true;
  };

const opensHousing: Effect = (walk, step) => {
  const { world, blame } = walk;
  handsIn(walk, step);
  beforeOpening(walk);
  if (world.screenedRunning) blame({ kind: 'openedAfterProof' });
  world.residue = true;
};

const closesInlet =
  (hoseOff: boolean): Effect =>
  (walk) => {
    const { world } = walk;
    world.inlet = 'stopped';
    if (!hoseOff) return;
    protectedNow(walk);
    world.hoseEnd = 'open';
  };
const opensInlet: Effect = ({ world, blame }) => {
  const shut = containersOpen(world).length === 0 && world.unlatched === 0 && world.run === 'off';
  if (!shut) blame({ kind: 'unplugEarly' });
  world.inlet = 'free';
  if (world.hoseEnd !== 'on') world.hoseEnd = 'on';
};

const closesOld: Effect = (walk, step) => {
  handsIn(walk, step);
  walk.world.old.set(at(step), 'closed');
};

/** In a stack what sits above comes off first, and where dust counts it is in bags by then. */
const fromStack: Effect = (walk, step) => {
  const { world, machine, blame } = walk;
  if (!wayAt(walk, step)?.lifts) return;
  const above = machine.stages.some(
    (s, i) => i < at(step) && !s.missing && wayOf(machine, s) === 'stacked' && !OUT.has(world.old.get(i) ?? 'in'),
  );
  if (above && world.above === 'in') blame({ kind: 'stackAbove' });
  if (guarded(walk) && world.above === 'open') blame({ kind: 'stackOpen' });
};

/** A part may move: shut, its fixings undone, nothing above it in the stack, its clean side seen. */
const movesOut: Effect = (walk, step) => {
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

const bagsOld: Effect = (walk, step) => {
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
const fits: Effect = (walk, step) => {
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

const putsBack: Effect = (walk, step) => {
  const { world, blame } = walk;
  handsIn(walk, step);
  if (!world.held.has(at(step))) blame({ kind: 'wasteReopened' });
  if (contained(walk)) blame({ kind: 'wasteReopened' });
  if (guarded(walk) && world.residue) blame({ kind: 'notWiped' });
  world.old.set(at(step), 'in');
  world.held.delete(at(step));
  world.seen.set(at(step), new Set());
};

const ties: Effect = (walk, step) => {
  protectedNow(walk);
  if (walk.world.old.get(at(step)) === 'bagged') walk.world.old.set(at(step), 'tied');
};
const wipesBag: Effect = (walk, step) => {
  const { world, blame } = walk;
  protectedNow(walk);
  if (world.old.get(at(step)) !== 'tied') blame({ kind: 'wasteOpen' });
  world.old.set(at(step), 'wiped');
  world.wipes = 'loose';
};

const wipesUp: Effect = (walk) => {
  const { world } = walk;
  protectedNow(walk);
  if (!contained(walk)) world.residue = false;
  world.wipes = 'loose';
};
const decontaminates: Effect = (walk) => {
  const { world, blame } = walk;
  protectedNow(walk);
  if (!world.done.has('wipe')) blame({ kind: 'notWiped' });
  world.residue = false;
  world.wipes = 'loose';
};

const tiesWaste = (walk: Walk): boolean => {
  const wanted = contained(walk) ? ['wiped', 'away', 'in', 'closed'] : ['tied', 'wiped', 'away', 'in', 'closed'];
  return [...walk.world.old.values()].every((w) => wanted.includes(w));
};

const disposes: Effect = (walk, step) => {
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

const wears =
  (...what: readonly ('respirator' | 'coverall' | 'gloves')[]): Effect =>
  (walk) => {
    for (const w of what) walk.world.worn.add(w);
    walk.world.undressed = false;
  };

/** Everything that carries dust comes off before the respirator, and no dust is open by then. */
const undresses: Effect = (walk) => {
  const { world, blame } = walk;
  const [opening] = containersOpen(world);
  if (opening) blame({ kind: 'leftOpen', opening });
  if (world.hoseEnd === 'open' || world.inlet === 'bare') blame({ kind: 'hoseOpen' });
  if (world.run !== 'off') blame({ kind: 'leftRunning' });
  if (!tiesWaste(walk)) blame({ kind: 'wasteOpen' });
  world.undressed = true;
};

const running: Effect = ({ world }, step) => {
  world.run = step.run;
};

/** Where the machine is switched on for a change, it is built for that way of running. */
const switchesOn: Effect = (walk, step) => {
  const { world, procedure, blame } = walk;
  if (!world.fed) blame({ kind: 'noFeed' });
  if (step.run === 'running' && procedure.school === 'off') runsShut(walk, { letIn: false });
  if (step.run !== 'running' && step.run !== procedure.school && procedure.school !== 'secondVacuum')
    blame({ kind: 'notBuiltForIt' });
  if (step.run === 'headAside' && !world.open.includes('head')) blame({ kind: 'notBuiltForIt' });
  running(walk, step);
};

const screens =
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

const onceDressed =
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

const opensPart: Effect = (walk, step) => {
  if (!step.opens) walk.blame({ kind: 'missing', step: step.key });
  opensHousing(walk, step);
};
const hasHousing: Effect = ({ world }, step) => {
  if (step.closes !== undefined && step.closes !== 'oldPart' && step.closes !== 'inlet') world.unlatched += 1;
};

/** Every step of a procedure. A new step without its effect does not compile. */
export const EFFECTS: Record<StepKey, Effect> = {
  askHazard: ({ world }) => {
    world.asked = true;
  },
  restrictArea: ({ world }) => {
    world.area = 'closed';
  },
  layOutSuitBag: ({ world }) => {
    world.suitBag = 'out';
  },
  putOnRespirator: (walk, step) => {
    wears('respirator')(walk, step);
    if (!contained(walk)) wears('gloves')(walk, step);
    if (walk.world.worn.has('coverall')) walk.blame({ kind: 'dressOrder' });
  },
  // The hood goes over the straps: the respirator is on first.
  putOnCoverall: (walk, step) => {
    if (!walk.world.worn.has('respirator')) walk.blame({ kind: 'dressOrder' });
    wears('coverall')(walk, step);
  },
  tapeGloves: (walk, step) => {
    if (!walk.world.worn.has('coverall')) walk.blame({ kind: 'dressOrder' });
    wears('gloves')(walk, step);
  },
  isolate: feedOff('isolate'),
  isolateBreaker: feedOff('isolateBreaker'),
  isolateAir: feedOff('isolateAir'),
  restorePlug: feedOn('restorePlug'),
  restoreBreaker: feedOn('restoreBreaker'),
  restoreAir: feedOn('restoreAir'),
  plugInlet: (walk, step) => {
    if (walk.facts.line === 'duct') walk.blame({ kind: 'notThere' });
    closesInlet(true)(walk, step);
  },
  hosesOff: (walk, step) => {
    if (!walk.facts.inletsClose) walk.blame({ kind: 'notThere' });
    closesInlet(true)(walk, step);
  },
  unplugInlet: opensInlet,
  hosesOn: opensInlet,
  closeGates: (walk, step) => {
    if (walk.facts.line !== 'duct') walk.blame({ kind: 'notThere' });
    closesInlet(false)(walk, step);
  },
  openGates: opensInlet,
  capHose: (walk) => {
    protectedNow(walk);
    if (walk.world.hoseEnd === 'open') walk.world.hoseEnd = 'capped';
  },
  switchOn: switchesOn,
  switchOff: ({ world }) => {
    world.run = 'off';
  },
  crackOpen: (walk, step) => {
    const { world, blame, procedure } = walk;
    if (procedure.school === 'off') blame({ kind: 'notBuiltForIt' });
    if (step.run !== 'off') blame({ kind: 'wrongState' });
    protectedNow(walk);
    beforeOpening(walk);
    world.residue = true;
  },
  open: opensPart,
  close: all(protectedNow, hasHousing, (walk, step) => {
    if (step.closes !== 'inlet') return;
    walk.world.inlet = 'free';
    walk.world.hoseEnd = 'on';
  }),
  latch: ({ world, procedure, blame }, step) => {
    if (procedure.school === 'headAside' && step.run !== 'headAside') blame({ kind: 'latchOrder' });
    if (procedure.school === 'secondVacuum' && step.run !== 'off') blame({ kind: 'latchOrder' });
    world.unlatched = Math.max(0, world.unlatched - 1);
  },
  setHeadAside: ({ world, blame }, step) => {
    if (world.run !== 'headAside' || step.run !== 'headAside') blame({ kind: 'wrongState' });
  },
  headOn: ({ world, blame }) => {
    if (world.second) blame({ kind: 'secondLeftOn' });
    if (world.port !== 'shut') blame({ kind: 'portOpen' });
    world.unlatched += 1;
  },
  connectSecond: ({ world, procedure, blame }) => {
    if (procedure.school !== 'secondVacuum') blame({ kind: 'notBuiltForIt' });
    world.port = 'connected';
  },
  startSecond: ({ world, blame }, step) => {
    if (world.port !== 'connected') blame({ kind: 'portOpen' });
    world.second = true;
    world.run = step.run;
  },
  removeSecond: (walk) => {
    protectedNow(walk);
    walk.world.port = 'open';
  },
  closePort: ({ world }) => {
    world.port = 'shut';
  },
  stopSecond: ({ world, blame }, step) => {
    if (world.port === 'connected') blame({ kind: 'secondLeftOn' });
    world.second = false;
    world.run = step.run;
  },
  breakSuction: ({ world, procedure, facts, blame }) => {
    if (procedure.school !== 'running' || !facts.inletsClose) blame({ kind: 'notBuiltForIt' });
    if (world.run !== 'running') blame({ kind: 'wrongState' });
  },
  letInletsClose: ({ facts, blame }) => {
    if (!facts.inletsClose) blame({ kind: 'notThere' });
  },
  capOld: closesOld,
  closeBreathers: (walk, step) => {
    handsIn(walk, step);
  },
  sealMouth: (walk, step) => {
    handsIn(walk, step);
    if (!walk.world.done.has('closeBreathers')) walk.blame({ kind: 'oldNotClosed' });
  },
  tieNeck: (walk, step) => {
    if (!walk.world.done.has('sealMouth')) walk.blame({ kind: 'oldNotClosed' });
    else closesOld(walk, step);
  },
  tieOff: (walk, step) => {
    const way = wayAt(walk, step);
    // The next section of film hangs in the place of the one that left.
    if (way === WAYS.liner && walk.procedure.id === 'linerSection') walk.world.fresh.set(at(step), 'in');
  },
  closeNeck: closesOld,
  drawIntoBag: closesOld,
  twistAndCut: (walk, step) => {
    opensHousing(walk, step);
    const whole = walk.procedure.id === 'decontamination' || walk.procedure.id === 'service';
    if (!walk.world.pulsed && !whole) walk.blame({ kind: 'missing', step: 'pulse' });
    closesOld(walk, step);
  },
  dropDust: NOTHING,
  emptyInto: (walk, step) => {
    // Dust that counts is never poured: it leaves in its own bag.
    if (guarded(walk)) walk.blame({ kind: 'oldNotClosed' });
    closesOld(walk, step);
  },
  releaseFixings: (walk, step) => {
    opensHousing(walk, step);
    if (wayAt(walk, step)?.fixing !== step.fixing) walk.blame({ kind: 'notThere' });
    walk.world.loose.add(at(step));
  },
  tightenFixings: (walk, step) => {
    const { world, blame, machine } = walk;
    const stage = stageAt(walk, step);
    const { orientation, seals } = stage?.spec.fit ?? { orientation: 'unmarked', seals: 0 };
    const seen = world.seen.get(at(step)) ?? new Set();
    const unseen =
      (orientation !== 'unmarked' && !(seen.has('arrowWithFlow') && seen.has('gasketSide'))) ||
      (seals >= 1 && !seen.has('seal1')) ||
      (seals >= 2 && !seen.has('seal2'));
    if (world.fresh.get(at(step)) === 'in' && unseen) blame({ kind: 'tightenedUnseen' });
    if (!machine.stages[at(step)]) blame({ kind: 'notThere' });
    world.loose.delete(at(step));
  },
  takeOut: (walk, step) => {
    handsIn(walk, step);
    fromStack(walk, step);
    const { world } = walk;
    world.residue = true;
    if (world.fresh.get(at(step)) === 'in') world.fresh.set(at(step), 'hand');
  },
  lookInside: handsIn,
  wipe: wipesUp,
  decontaminate: decontaminates,
  prepareNew: ({ world, blame }, step) => {
    if (containersOpen(world).length > 0) blame({ kind: 'wrongState' });
    world.fresh.set(at(step), 'hand');
  },
  fitNew: fits,
  drawDown: NOTHING,
  strapRim: (walk, step) => {
    const { world, blame } = walk;
    if (world.fresh.get(at(step)) !== 'in') return;
    if (!world.done.has('drawDown')) blame({ kind: 'missing', step: 'drawDown' });
    if (!world.done.has('tieOff')) blame({ kind: 'missing', step: 'tieOff' });
  },
  holdOld: bagsOld,
  bagOld: bagsOld,
  putOldBack: putsBack,
  returnNew: ({ world, blame }, step) => {
    if (world.fresh.get(at(step)) !== 'hand') blame({ kind: 'notInHand' });
    world.fresh.set(at(step), 'returned');
  },
  cutHair: (walk, step) => {
    if (!walk.machine.hasBrush) walk.blame({ kind: 'notThere' });
    handsIn(walk, step);
  },
  stripNozzle: (walk, step) => {
    handsIn(walk, step);
    if (guarded(walk) && walk.world.hoseEnd === 'open') walk.blame({ kind: 'hoseOpen' });
    walk.world.residue = true;
  },
  cleanCanister: ({ facts, world, blame }) => {
    if (!facts.collector) blame({ kind: 'notThere' });
    if (facts.emberLook && !world.embersSeen) blame({ kind: 'embers' });
    world.settled = false;
  },
  proveIndicator: (walk, step) => {
    const { facts, machine, blame, procedure } = walk;
    runsShut(walk, { letIn: true });
    running(walk, step);
    const stage = stageAt(walk, step);
    const light = facts.shows.light !== null && (stage === null || facts.shows.lightOf.some((k) => k === stage.kind));
    const gauge = facts.shows.gauge || (stage ?? machine.stages[0])?.spec.fit.gaugePa !== null;
    if (step.check === 'gaugeGreen' ? !gauge : !light) blame({ kind: 'notThere' });
    if (procedure.id === 'indicatorCheck' && step.check === 'lightOn' && !walk.world.done.has('discOn'))
      blame({ kind: 'missing', step: 'discOn' });
  },
  disposeOld: disposes,
  labelWaste: ({ world }) => {
    world.labelled = true;
  },
  secondBag: (walk) => {
    if (!tiesWaste(walk)) walk.blame({ kind: 'wasteOpen' });
    walk.world.secondBag = true;
  },
  wipesIntoWaste: ({ world }) => {
    world.wipes = 'tied';
  },
  runAndListen: (walk, step) => {
    runsShut(walk, { letIn: true });
    running(walk, step);
    walk.world.ran = true;
  },
  check: (walk, step) => {
    const { facts, machine, blame } = walk;
    if (step.check === 'selectorRight' && machine.hoseSelectorM === null) blame({ kind: 'notThere' });
    if (step.check === 'ringTight' && !facts.collector) blame({ kind: 'notThere' });
    if ((step.check === 'bristlesFree' || step.check === 'spinsFree') && !machine.hasBrush) blame({ kind: 'notThere' });
    if (step.check === 'cleanSideClean' && step.run !== 'off') blame({ kind: 'handsInRun' });
  },
  pulse: ({ world, blame }) => {
    if (world.run !== 'running') blame({ kind: 'noFeed' });
    if (world.inlet !== 'stopped') blame({ kind: 'inletOpen' });
    world.pulsed = true;
    world.settled = false;
  },
  readGauge: ({ facts, machine, blame }, step) => {
    const gauge = facts.shows.gauge || (step.stage !== null && machine.stages[step.stage]?.spec.fit.gaugePa !== null);
    if (!gauge) blame({ kind: 'notThere' });
  },
  wash: ({ world, blame }) => {
    if (world.held.size === 0) blame({ kind: 'notInHand' });
    if (containersOpen(world).length > 0 || world.unlatched > 0) blame({ kind: 'leftOpen', opening: 'lid' });
  },
  startDrying: NOTHING,
  reverseHose: (walk, step) => {
    handsIn(walk, step);
    walk.world.inlet = 'free';
    walk.world.hoseEnd = 'on';
  },
  reverseRun: (walk, step) => {
    runsShut(walk, { letIn: true });
    running(walk, step);
  },
  lookThrough: (walk, step) => {
    handsIn(walk, step);
    if (walk.world.hoseEnd === 'on') walk.blame({ kind: 'missing', step: 'plugInlet' });
    walk.world.residue = true;
  },
  discOn: (walk) => {
    protectedNow(walk);
    if (walk.world.run !== 'off') walk.blame({ kind: 'handsInRun' });
  },
  discOff: (walk) => {
    protectedNow(walk);
    if (walk.world.run !== 'off') walk.blame({ kind: 'handsInRun' });
  },
  packMachine: ({ world, blame }) => {
    if (world.inlet !== 'stopped') blame({ kind: 'inletOpen' });
  },
  bondFirst: NOTHING,
  measureBaseline: (walk, step) => {
    runsShut(walk, { letIn: true });
    running(walk, step);
    walk.world.measured = true;
  },
  startTimer: NOTHING,
  measureAfter: (walk, step) => {
    if (!walk.world.ran) walk.blame({ kind: 'notRun' });
    runsShut(walk, { letIn: true });
    running(walk, step);
    walk.world.measured = true;
  },
  integrityTest: screens('running'),
  screenCleanSide: screens('off'),
  wipeSuit: onceDressed('wipeSuit'),
  offOvershoes: onceDressed('offOvershoes'),
  offCoverall: onceDressed('offCoverall'),
  offGloves: onceDressed('offGloves'),
  tieSuitBag: ({ world, blame }) => {
    if (world.suit !== 'off') blame({ kind: 'undressOrder' });
    world.suitBag = 'tied';
  },
  washHands: ({ world, blame }) => {
    if (world.worn.has('gloves')) blame({ kind: 'undressOrder' });
    world.washed = true;
  },
  offRespirator: ({ world, blame }) => {
    if (world.worn.has('coverall') || world.worn.has('gloves') || !world.washed) blame({ kind: 'undressOrder' });
    world.worn.delete('respirator');
    world.undressed = true;
  },
  washFace: NOTHING,
  freeArea: ({ world, blame }) => {
    if (world.worn.size > 0) blame({ kind: 'undressOrder' });
    world.area = 'open';
  },
  tieBag: ties,
  wipeBag: wipesBag,
  lookCleanSide: (walk, step) => {
    handsIn(walk, step);
    const stage = stageAt(walk, step);
    if (!stage || !STAGE_KINDS[stage.kind].cleanSide) walk.blame({ kind: 'notThere' });
  },
  letSettle: ({ world }) => {
    world.settled = true;
  },
  lookForEmbers: ({ world }) => {
    world.embersSeen = true;
  },
  decontaminationNote: NOTHING,
  nameSpare: NOTHING,
  liftAbove: (walk, step) => {
    handsIn(walk, step);
    walk.world.above = 'open';
    walk.world.residue = true;
  },
  bagAbove: ({ world }) => {
    if (world.above === 'open') world.above = 'bagged';
  },
  backAbove: (walk, step) => {
    handsIn(walk, step);
    walk.world.above = 'in';
  },
  wipeOutside: (walk) => {
    protectedNow(walk);
    walk.world.wipes = 'loose';
  },
  cleanWalls: (walk, step) => {
    handsIn(walk, step);
    walk.world.cleaned.add(`stage ${at(step)}`);
    walk.world.wipes = 'loose';
  },
  cleanVessel: (walk, step) => {
    handsIn(walk, step);
    const inside = dustParts(walk.machine).filter((p) => p.at === 'stage' && p.place === 'part');
    // What is still in covers the walls that are to be seen.
    if (inside.some((p) => p.at === 'stage' && !OUT.has(walk.world.old.get(p.stage) ?? 'in')))
      walk.blame({ kind: 'seatTaken' });
    walk.world.cleaned.add('vessel');
    walk.world.wipes = 'loose';
  },
};
