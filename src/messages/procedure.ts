import type { DustHazard } from '@/core/dust/level';
import type { StageKind } from '@/core/path/stage-kinds';
import type { Violation } from '@/core/procedure/violation';
import type { CautionKey, CheckKind, Opening, ProcedureId, RunState, Step, StepKey } from '@/core/procedure/step';

export const PROCEDURE_WORDS: Record<ProcedureId, string> = {
  plainBag: 'Bag',
  safetyBag: 'Sealed safety bag',
  endlessLiner: 'Endless liner, new cassette',
  cycloneBag: 'Cyclone bag under suction',
  filterBags: 'Filter bags behind the cyclone',
  tankBagHeadAside: 'Tank bag, running head set aside',
  tankBagSecondVacuum: 'Tank bag, with a second vacuum',
  prefilterWrap: 'Pre-filter wrap',
  screwHepa: 'Screw-on HEPA',
  boltedMainFilter: 'Bolted main filter',
  stackedFilter: 'Stacked filter, held until proven',
  gasStage: 'Gas stage',
  purge: 'Purge by pulse',
  wash: 'Wash and dry',
  collectorEmpty: 'Empty the collector',
  centralCan: 'Can of a central unit',
  plainFilter: 'Filter',
  hosePlug: 'Hose plug',
  service: 'Send away for service',
  indicatorCheck: 'Indicator check',
  commissioning: 'Commissioning',
  fullSet: 'Full set: bag, filters, brush roll',
  linerSection: 'Section off the liner',
  decontamination: 'Decontamination',
};

const WORDS: Record<StepKey, (name: string) => string> = {
  askHazard: () => 'What has it collected since it was last decontaminated?',
  restrictArea: () => 'Close the area off, others out.',
  putOnRespirator: () => 'Put the respirator on.',
  putOnCoverall: () => 'Put coverall and overshoes on, gloves taped over the cuffs.',
  isolate: () => 'Switch off and pull the plug; keep it in sight.',
  isolateBreaker: () => 'Switch off; breaker or isolator off and locked, or the plug out and in sight.',
  isolateAir: () => 'Shut the air supply, vent it, take it off.',
  plugInlet: () => 'Plug the inlet.',
  unplugInlet: () => 'Closed, latched, off: now the plug comes out of the inlet.',
  switchOn: () => 'Switch on.',
  switchOff: () => 'Switch off.',
  crackOpen: () => 'Unlatch and lift it a crack, still off.',
  open: (name) => `Open at the ${name}.`,
  close: (name) => `Close at the ${name}.`,
  latch: () => 'Latch it; count the latches.',
  setHeadAside: () => 'Set the running head down beside the tank.',
  headOn: () => 'Set the head back on.',
  connectSecond: () => 'Hose on the dirty inlet; service hose from the clean machine to the port.',
  startSecond: () => 'Start the clean machine.',
  stopSecond: () => 'Clean machine off.',
  removeSecond: () => 'Service hose off the port.',
  breakSuction: () => 'Open an inlet or two to break the suction on the door.',
  capOld: (name) => `Cap or close the old ${name} before it moves.`,
  closeBreathers: () => 'Covers on the breather holes: only for taking it out.',
  sealMouth: () => 'Close the mouth of the bag.',
  tieOff: () => 'Tie it, 100 to 125 mm above the end.',
  twistAndCut: () => 'Twist the film above the dust, two ties, cut between them.',
  dropDust: () => 'Pulse once more, let the dust drop, machine off.',
  drawIntoBag: (name) =>
    `Draw the ${name} into a disposal bag worn inside out over both arms, its mouth kept at the opening.`,
  releaseFixings: (name) => `Release the fixings of the ${name} with the tool.`,
  tightenFixings: (name) => `Tighten the fixings of the ${name}.`,
  takeOut: (name) => `Take the ${name} off.`,
  lookInside: () => 'Look into the compartment: loose dirt means it did not sit, or is torn.',
  wipe: () => 'Wipe the opening with a damp cloth.',
  decontaminate: () => 'Decontaminate what was touched, and the floor.',
  prepareNew: (name) => `Take a new ${name} from the shelf and lay it ready.`,
  fitNew: (name) => `Fit the ${name} by its guides, fully home.`,
  drawDown: () => 'Draw the film down.',
  strapRim: () => 'Upper end over the rim, strap and buckle.',
  holdOld: (name) => `Hold the old ${name}, bagged and tagged.`,
  bagOld: (name) => `Old ${name} into its bag, closed at once.`,
  putOldBack: (name) => `Put the old ${name} back in, the one that was held.`,
  returnNew: (name) => `New ${name} back to the shelf, marked as opened.`,
  cutHair: () => 'Brush roll out, drive end last; cut the hair along the groove.',
  stripNozzle: () => 'Nozzle and wand: apart, clear, together again.',
  cleanCanister: () => 'Turn the flaps of the canister, or pulse it.',
  proveIndicator: () => 'Run 10 to 15 s and look at the light.',
  disposeOld: (name) => `Old ${name} to the waste store, closed.`,
  labelWaste: () => 'Label the waste: what, machine, date, hazard.',
  runAndListen: () => 'Run it, listen, look again.',
  check: () => 'Look.',
  pulse: () => 'Two or three pulses, then wait.',
  readGauge: () => 'Read the gauge again.',
  wash: (name) => `Wash or rinse the ${name}.`,
  startDrying: () => 'Hang it to dry: out of service until it is.',
  emptyInto: () => 'Empty through a liner drawn up round the bag as a funnel.',
  reverseHose: () => 'Reverse the hose on the inlet, plug in, run, stretch it straight.',
  lookThrough: () => 'Look through it to a light, and look at the bag.',
  discOn: () => 'Disc on the hose end; inlet open, not plugged.',
  packMachine: () => 'Whole machine into a transport bag, its plug in, sealed, labelled.',
  bondFirst: () => 'Bonding lead first: snap it home, clamp it to a bonded point.',
  measureBaseline: () => 'Measure the baseline.',
  startTimer: () => 'Start the timers: at first use, not at purchase.',
  integrityTest: (name) => `Screen the ${name}: clean side, smoke, particle count.`,
  measureAfter: () => 'Measure again, same place, same way.',
  wipeSuit: () => 'At the edge of the area: wipe the coverall and the outside of the gloves.',
  offOvershoes: () => 'Overshoes off.',
  offCoverall: () => 'Coverall off, rolled inside out, the gloves with it, into a waste bag: tie it.',
  offGloves: () => 'Gloves off, inside out, into the waste.',
  washHands: () => 'Wash the hands.',
  offRespirator: () => 'Respirator off, last of all.',
  washFace: () => 'Wash hands and face; no eating or smoking before.',
  freeArea: () => 'Waste to its store by your local rules; open the area again.',
  tieBag: () => 'Twist the bag, bend the neck over, tie it.',
  wipeBag: () => 'Wipe the bag.',
  wipesIntoWaste: () => 'Wipes into a bag, tied: the same waste as the part.',
  secondBag: () => 'All of it into a second bag, tied.',
  lookCleanSide: (name) => `Lift the old ${name}, its bag held under it: look at its clean side, and behind it.`,
  letInletsClose: () => 'Let the inlets close.',
  closeGates: () => 'Shut the gates.',
  openGates: () => 'Open the gates again.',
  letSettle: () => 'Wait for the dust to settle.',
  lookForEmbers: () => 'Look and smell before it is emptied.',
  capHose: () => 'Cap the inlet, and both ends of the hose until it goes back on.',
  discOff: () => 'Disc off again.',
  decontaminationNote: () => 'Write the decontamination note: what it held, what was done, what could not be cleaned.',
  nameSpare: () => 'Name the machine that does its work meanwhile; reserve the days.',
  liftAbove: (name) => `Lift off what stands above the ${name}, top down, and lay it in order.`,
  backAbove: () => 'What stood above goes back in its order, each arrow seen.',
  wipeOutside: () => 'Wipe the outside, hose and cable too.',
};

export const CHECK_WORDS: Record<CheckKind, string> = {
  seal1: 'Is the seal whole and in its groove?',
  seal2: 'Is the second seal whole and in its groove?',
  collarStraight: 'Is the collar straight and fully home?',
  arrowWithFlow: 'Does the arrow point with the flow?',
  gasketSide: 'Is the gasket on its side?',
  undersideClean: 'Is the underside clean?',
  nothingPinched: 'Is nothing pinched?',
  contactClear: 'Is the antistatic contact clear?',
  latchCount: 'Are all latches home?',
  threadFlush: 'Does it sit flush all round?',
  wrapAllRound: 'Does it cover the filter all round?',
  breathersInside: 'Are the breather holes inside the container, and open?',
  compartmentClean: 'Is the compartment free of loose dirt?',
  bagCount: 'Are all bags in, against the wall?',
  ringTight: 'Is the ring tight? Smoke shows it.',
  bristlesFree: 'Are the bristles whole and free?',
  dry: 'Is it dry?',
  bonded: 'Is the lead on a bonded point?',
  hoseLocked: 'Does the hose hold a tug?',
  lightOut: 'Has the light stayed out for 10 to 15 s?',
  lightOn: 'Did the light come on within 10 to 15 s?',
  gaugeGreen: 'Is the gauge in the green, 10 to 15 s after the start, with full air?',
  cleanSideClean: 'Is it clean there?',
  noEmbers: 'No smoke, no smell of burning, nothing warm?',
  seamRear: 'Is the seam of the bag to the rear?',
  tabFlush: 'Does the tab lie flush?',
  filtersFresh: 'Are bag and filters fresh? A loaded filter lights it rightly.',
  preMotorClean: 'Is the pre-motor filter clean and dry? Rinsing it is a job of its own.',
  nothingLeft: 'Is nothing of the dust left, in seams, seals and behind the filter?',
  spinsFree: 'Is the roll in, drive end first, and does it spin freely?',
  selectorRight: 'Does the selector stand on this hose?',
};

export const CAUTION_WORDS: Record<CautionKey, string> = {
  unplug: 'A switch is not an isolation. Again after every run, before hands go in.',
  locked: 'Your own lock on it. Again after every run, before hands go in.',
  vented: 'Pressure left in the line can start it. Again after every run, before hands go in.',
  respirator: 'FFP2 or FFP3 (N95 or P100), fit-tested to this face; gloves; eyes where dust flies.',
  p3: 'P3 or P100, fit-tested to this face; eyes. It stays on until all is proven and the coverall is off.',
  suit: 'Type 5/6. It carries the dust: it comes off before the respirator.',
  respiratorLast: 'Outside the area, after the coverall: never the other way round.',
  sparks:
    'Bonded to earth, no sparks, no lamp that is not closed. Anything warm: leave it shut and call for fire help.',
  innerFilter: 'Leave the inner weighted filter where it is.',
  makersWay: 'Only where the maker built it for that: its own instructions come first.',
  hoseStays:
    'The hose stays on the dirty inlet: an open inlet would draw its air there, and not in through the opening you work at.',
  aloneRunning: 'It runs while it is open: stay with it, and nobody else touches it.',
  noBrushNoAir: 'No dry brushing, no compressed air.',
  plugFirst: 'The inlet is plugged before anything opens.',
  sharp: 'Poke nothing in: a pin may come out of it. Hands off the inlet while it runs.',
  hotSeal: 'Hands under the can before the latches: a hot seal can stick, then drop. Twist it off its notches.',
  liveParts: 'Live parts stay closed.',
  bandClamp: 'Leave the band clamp alone: it chafes holes.',
  leftHanded: 'Some threads are left-handed: look at the part.',
  localWaste: 'Out by your local rules.',
  noBlowing: 'Never blow it out.',
  bearWeight: 'It is heavy when full.',
  bristles: 'Cut off from its feed; spare the bristles.',
};

export const RUN_WORDS: Record<RunState, string> = {
  off: 'off',
  running: 'running, air into the opening',
  headAside: 'running head set aside',
  secondVacuum: 'second vacuum drawing',
};

export const WHY_WORDS: Record<Step['because'], string> = {
  method: 'the method',
  controlled: 'controlled dust',
  contained: 'contained dust',
  seat: 'the seat is seen, not believed',
  stock: 'every part has a fate',
  proof: 'proof that it works',
  safety: 'before anything else',
};

/** What is changed at a stage, by its name: the bag of a cyclone, the liner of a drop chamber. */
export const thingAt = ({ kind, name }: { readonly kind: StageKind; readonly name: string }): string => {
  const carries = kind === 'cyclone' ? 'bag' : kind === 'dropChamber' ? 'liner' : '';
  return carries === '' || name.includes(carries) ? name : `${name} ${carries}`;
};

/** The sentences that are a method's own. */
const OWN: Partial<Record<ProcedureId, Partial<Record<StepKey, (name: string) => string>>>> = {
  safetyBag: { tieOff: () => 'Cable tie round its neck.' },
  tankBagHeadAside: {
    switchOn: () => 'Switch the head on, lifted a crack.',
    latch: () => 'Still running, latch it; count the latches.',
  },
  tankBagSecondVacuum: {
    connectSecond: () => 'Hose on the dirty inlet; service hose from the clean machine to the port.',
    switchOn: () => 'Start the dirty machine, lid a crack.',
    switchOff: () => 'Dirty machine off, before it is latched.',
  },
  prefilterWrap: {
    switchOn: () => 'Switch the head on, lifted a crack.',
    latch: () => 'Still running, latch it; count the latches.',
  },
  filterBags: {
    crackOpen: () => 'Lid up a crack before it is started.',
    switchOn: () => 'Open the air: start it with the lid a crack up.',
  },
  cycloneBag: { switchOn: () => 'Keep it running, or open the air and start it.' },
  centralCan: { open: () => 'Hands under the can, latches off, twist it off its notches.' },
  collectorEmpty: { open: (name) => `Take the ${name} off its ring.` },
  indicatorCheck: { switchOn: () => 'Full speed, hose on.' },
  endlessLiner: {
    unplugInlet: () => 'Off, film on: cover off the inlet, hose on again.',
    plugInlet: () => 'Close the inlet with its cover, still running.',
    drawDown: () => 'Draw the film down from the new cassette.',
  },
  linerSection: {
    unplugInlet: () => 'Off and tied: cover off the inlet, hose on again.',
    plugInlet: () => 'Close the inlet with its cover, still running.',
    drawDown: () => 'Draw the next section down.',
  },
  hosePlug: { close: () => 'Hose and nozzle back on, tight.' },
  purge: {
    plugInlet: () => 'Hose off, close the inlet with its cover, still running.',
    unplugInlet: () => 'Off: cover off, hose on again.',
  },
};

/** Where the level says it otherwise than the method does. */
const BY_LEVEL: Record<Exclude<DustHazard, 'plain'>, Partial<Record<StepKey, (name: string) => string>>> = {
  controlled: {
    switchOff: () => 'Switch off.',
    putOnRespirator: () => 'Put mask and gloves on.',
    offRespirator: () => 'Mask off, last of all, away from the dust.',
  },
  // Nobody carries it to the store in the coverall it was packed in.
  contained: {
    switchOff: () => 'Switch off.',
    disposeOld: (name) => `Old ${name}, wiped, set down at the edge of the area: it goes to the store last.`,
  },
};

const byLevel = ({ because, key }: Step) =>
  because === 'controlled' || because === 'contained' ? BY_LEVEL[because][key] : undefined;

/** A step in words, in the sentence its method has for it; a check is its question. */
export const sayStepOf = (step: Step, name: string, method?: ProcedureId): string =>
  step.check && (step.key === 'check' || step.key === 'proveIndicator')
    ? CHECK_WORDS[step.check]
    : (byLevel(step) ?? (method ? OWN[method]?.[step.key] : undefined) ?? WORDS[step.key])(name);

/** What "no" means at a check, beyond "put it right". */
export const IF_NOT: Partial<Record<CheckKind, string>> = {
  cleanSideClean:
    'Breakthrough: it let dust past. Wipe out what lies behind it, to the fan; a gas stage behind it is spoilt and changed too. It was not holding: whoever worked with it is told. Answer yes when it is clean.',
  noEmbers: 'Leave it shut, keep away, call for fire help. Nothing is emptied today.',
  nothingLeft: 'Wipe again. What cannot be cleaned is sealed, or the machine goes in a bag.',
};

export const OPENING_WORDS: Record<Opening, string> = {
  lid: 'the lid',
  door: 'the door',
  head: 'the head',
  fixings: 'the fixings',
  can: 'the can',
  oldPart: 'the old part',
  disposalBag: 'the disposal bag',
  inlet: 'the inlet',
};

/** What is wrong with a procedure, in a sentence. */
export const sayViolation = (v: Violation): string => {
  switch (v.kind) {
    case 'leftOpen':
      return `${OPENING_WORDS[v.opening]} is left open.`.replace(/^./, (x) => x.toUpperCase());
    case 'closedOutOfOrder':
      return `Step ${v.at + 1} closes ${OPENING_WORDS[v.opening]}, which is not what was opened last.`;
    case 'dustyInWrongState':
      return `Step ${v.at + 1} works on open dust with the machine ${RUN_WORDS[v.run]}.`;
    case 'notIsolated':
      return `Step ${v.at + 1} puts hands in before the machine is cut off from its feed, or after a run without doing so again.`;
    case 'runWhileOpen':
      return `Step ${v.at + 1} runs the machine while it stands open.`;
    case 'partWithoutFate':
      return `The ${v.part} part has no fate: fitted, returned, held or disposed of.`;
    case 'checkMissing':
      return `A check is missing: ${CHECK_WORDS[v.check]}`;
    case 'hazardStepMissing':
      return `This hazard needs a step that is missing: ${WORDS[v.step]('part')}`;
    case 'tooLate':
      return `Too late for that: ${WORDS[v.step]('part')}`;
    case 'secondLeftOn':
      return 'The second vacuum is not off the port and stopped before the head goes on.';
    case 'latchOrder':
      return 'Latch and off are the wrong way round for this method.';
    case 'integrityMissing':
      return 'A fine filter was changed without being screened.';
    case 'undressOrder':
      return 'Protective equipment comes off in the wrong order: what carries dust first, the respirator last.';
    case 'wrongIsolation':
      return 'It is cut off by something this machine does not have.';
    case 'unplugEarly':
      return 'The plug comes out of the inlet before the machine is closed, latched and off.';
    case 'tightenedUnseen':
      return 'It is tightened before arrow, gasket and seat are seen.';
    case 'openedAfterProof':
      return 'It is opened again after its proof.';
    case 'methodOrder':
      return `This method lacks, or has out of its order: ${v.what in WORDS ? WORDS[v.what as StepKey]('part') : CHECK_WORDS[v.what as CheckKind]}`;
  }
};
