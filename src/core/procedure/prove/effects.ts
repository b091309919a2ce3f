import { dustParts } from '../../machine/dust-parts';
import { STAGE_KINDS } from '../../path/stage-kinds';
import type { StepKey } from '../step';
import { beforeOpening, handsIn, protectedNow, runsShut } from './hands';
import { WAYS } from '../ways';
import { contained, containersOpen, guarded, stageAt, wayAt } from './world';

import {
  type Effect,
  NOTHING,
  all,
  at,
  OUT,
  feedOff,
  feedOn,
  opensHousing,
  closesInlet,
  opensInlet,
  closesOld,
  fromStack,
  bagsOld,
  fits,
  putsBack,
  ties,
  wipesBag,
  wipesUp,
  decontaminates,
  tiesWaste,
  disposes,
  wears,
  running,
  switchesOn,
  screens,
  onceDressed,
  opensPart,
  hasHousing,
} from './acts';

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
    const shaken = walk.facts.emberLook && walk.world.done.has('cleanCanister');
    if (!walk.world.pulsed && !whole && !shaken) walk.blame({ kind: 'missing', step: 'pulse' });
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
    // A part that is still in hides the walls.
    if (inside.some((p) => p.at === 'stage' && !OUT.has(walk.world.old.get(p.stage) ?? 'in')))
      walk.blame({ kind: 'seatTaken' });
    walk.world.cleaned.add('vessel');
    walk.world.wipes = 'loose';
  },
};
