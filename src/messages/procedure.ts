import type { DustHazard } from '@/core/dust/level';
import { STAGE_KINDS, type StageKind } from '@/core/path/stage-kinds';
import type { Violation } from '@/core/procedure/violation';
import type { CautionKey, CheckKind, OpenedPart, ProcedureId, RunState, Step, StepKey } from '@/core/procedure/step';

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
  restrictArea: () => 'Close off the area and keep others out.',
  putOnRespirator: () => 'Put the respirator on.',
  putOnCoverall: () => 'Put on coverall and overshoes. Tape the gloves over the cuffs.',
  isolate: () => 'Switch off, pull the plug and keep it in sight.',
  isolateBreaker: () => 'Switch off. Lock off the breaker or isolator, or pull the plug and keep it in sight.',
  isolateAir: () => 'Shut off the air supply, vent it, disconnect it.',
  plugInlet: () => 'Plug the inlet.',
  unplugInlet: () => 'Machine closed, latched and off: take the plug out of the inlet.',
  switchOn: () => 'Switch on.',
  switchOff: () => 'Switch off.',
  crackOpen: () => 'Unlatch and lift it a crack. Keep the machine off.',
  open: (name) => `Open at the ${name}.`,
  close: (name) => `Close at the ${name}.`,
  latch: () => 'Latch it. Count the latches.',
  setHeadAside: () => 'Set the running head down beside the tank.',
  headOn: () => 'Set the head back on.',
  connectSecond: () =>
    'Leave the hose on the dirty inlet. Connect the service hose from the clean machine to the port.',
  startSecond: () => 'Start the clean machine.',
  stopSecond: () => 'Switch off the clean machine.',
  removeSecond: () => 'Take the service hose off the port.',
  breakSuction: () => 'Open an inlet or two to break the suction on the door.',
  capOld: (name) => `Cap or close the old ${name} before it moves.`,
  closeBreathers: () => 'Cover the breather holes, only while you take it out.',
  sealMouth: () => 'Seal the mouth of the bag.',
  tieOff: () => 'Tie it off 100 to 125 mm (4 to 5 in) above the end.',
  twistAndCut: () => 'Twist the film above the dust, put on two ties, cut between them.',
  dropDust: () => 'Pulse once more, let the dust drop, switch off.',
  drawIntoBag: (name) =>
    `Pull a disposal bag inside out over both arms, hold its mouth at the opening and draw the ${name} into it.`,
  releaseFixings: (name) => `Undo the fixings of the ${name} with the right tool.`,
  tightenFixings: (name) => `Tighten the fixings of the ${name}.`,
  takeOut: (name) => `Take the ${name} off.`,
  lookInside: () => 'Look in the compartment: loose dirt means a bad seal or a tear.',
  wipe: () => 'Wipe the opening with a damp cloth.',
  decontaminate: () => 'Decontaminate what was touched, and the floor.',
  prepareNew: (name) => `Take a new ${name} from the shelf and lay it ready.`,
  fitNew: (name) => `Fit the ${name} in its guides and push it fully home.`,
  drawDown: () => 'Draw the film down.',
  strapRim: () => 'Pull the upper end over the rim, strap it and buckle it.',
  holdOld: (name) => `Bag and tag the old ${name}. Keep it until the new one is proven.`,
  bagOld: (name) => `Bag the old ${name} and tie it off.`,
  putOldBack: (name) => `Put the old ${name} back in.`,
  returnNew: (name) => `Put the new ${name} back on the shelf, marked as opened.`,
  cutHair: () => 'Take out the brush roll, drive end last. Cut the hair along the groove.',
  stripNozzle: () => 'Take nozzle and wand apart, clear them, put them together again.',
  cleanCanister: () => 'Turn the flaps of the canister, or pulse it.',
  proveIndicator: () => 'Run it for 10 to 15 s and look at the light.',
  disposeOld: (name) => `Take the old ${name} to the waste store, tied off.`,
  labelWaste: () => 'Label the waste: contents, machine, date, hazard.',
  runAndListen: () => 'Run it, listen, check again.',
  check: () => 'Look.',
  pulse: () => 'Give it two or three pulses, then wait.',
  readGauge: () => 'Read the gauge again.',
  wash: (name) => `Wash or rinse the ${name}.`,
  startDrying: () => 'Hang it up to dry. The machine is out of service until it is dry.',
  emptyInto: () => 'Empty it through a liner pulled up round the bag as a funnel.',
  reverseHose: () => 'Turn the hose end for end on the inlet, plug in, run, pull it straight.',
  lookThrough: () => 'Hold it up to a light and look through. Check the bag too.',
  discOn: () => 'Put the disc on the hose end. Leave the inlet open.',
  packMachine: () => 'Put the whole machine in a transport bag with its inlet plugged. Seal it and label it.',
  bondFirst: () => 'Bonding lead first: snap it on and clamp it to an earthed point.',
  measureBaseline: () => 'Measure the baseline.',
  startTimer: () => 'Start the timers at first use, not at purchase.',
  integrityTest: (name) => `Screen the ${name}: clean side, smoke, particle count.`,
  measureAfter: () => 'Measure again at the same place, the same way.',
  wipeSuit: () => 'At the edge of the area, wipe down the coverall and the outside of the gloves.',
  offOvershoes: () => 'Take off the overshoes.',
  offCoverall: () => 'Take off the coverall, rolled inside out with the gloves, into a waste bag. Tie the bag.',
  offGloves: () => 'Take off the gloves inside out, into the waste.',
  washHands: () => 'Wash your hands.',
  offRespirator: () => 'Take off the respirator, last of all.',
  washFace: () => 'Wash hands and face before you eat or smoke.',
  freeArea: () => 'Take the waste to its store by your local rules, then open the area again.',
  tieBag: () => 'Twist the neck of the bag, fold it over and tie it.',
  wipeBag: () => 'Wipe the bag.',
  wipesIntoWaste: () => 'Bag the wipes and tie off: same waste as the part.',
  secondBag: () => 'Put it all in a second bag and tie it off.',
  lookCleanSide: (name) =>
    `Lift the old ${name} with its bag held under it. Look at its clean side and at the space behind it.`,
  letInletsClose: () => 'Let the inlets close.',
  closeGates: () => 'Close the blast gates.',
  openGates: () => 'Open the blast gates again.',
  letSettle: () => 'Wait for the dust to settle.',
  lookForEmbers: () => 'Look and smell for embers before you empty it.',
  capHose: () => 'Cap the inlet, and both ends of the hose until it goes back on.',
  discOff: () => 'Take the disc off again.',
  decontaminationNote: () => 'Write the decontamination note: what it held, what was done, what could not be cleaned.',
  nameSpare: () => 'Name the machine that stands in for it and reserve the days.',
  liftAbove: (name) => `Lift off what sits above the ${name}, top down, and lay it out in order.`,
  backAbove: () => 'Put back what sat above it, in order. Check each arrow.',
  wipeOutside: () => 'Wipe down the outside, hose and cable too.',
};

export const CHECK_WORDS: Record<CheckKind, string> = {
  seal1: 'Is the seal sound and in its groove?',
  seal2: 'Is the second seal sound and in its groove?',
  collarStraight: 'Is the collar straight and fully home?',
  arrowWithFlow: 'Does the arrow point with the flow?',
  gasketSide: 'Is the gasket on the right side?',
  undersideClean: 'Is the underside clean?',
  nothingPinched: 'Is nothing pinched?',
  contactClear: 'Is the antistatic contact clear?',
  latchCount: 'Are all latches closed?',
  threadFlush: 'Does it sit flush all round?',
  wrapAllRound: 'Does it cover the filter all round?',
  breathersInside: 'Are the breather holes inside the container, and open?',
  compartmentClean: 'Is the compartment free of loose dirt?',
  bagCount: 'Are all the bags in, against the wall?',
  ringTight: 'Is the ring tight? Check with smoke.',
  bristlesFree: 'Are the bristles sound and clear?',
  dry: 'Is it dry?',
  bonded: 'Is the lead on an earthed point?',
  hoseLocked: 'Does the hose hold when you tug it?',
  lightOut: 'Has the light stayed out for 10 to 15 s?',
  lightOn: 'Did the light come on within 10 to 15 s?',
  gaugeGreen: 'Is the gauge in the green, 10 to 15 s after the start, with full air?',
  cleanSideClean: 'Is the clean side clean?',
  noEmbers: 'No smoke, no burning smell, nothing warm?',
  seamRear: 'Is the seam of the bag to the rear?',
  tabFlush: 'Does the tab lie flush?',
  filtersFresh: 'Are bag and filters fresh? A loaded filter also turns the light on.',
  preMotorClean: 'Is the pre-motor filter clean and dry? (Rinsing it is a separate job.)',
  nothingLeft: 'Is all dust gone, in seams and seals and behind the filter too?',
  spinsFree: 'Is the roll in, drive end first, and does it spin freely?',
  selectorRight: 'Is the selector set to this hose?',
};

export const CAUTION_WORDS: Record<CautionKey, string> = {
  unplug: 'The switch alone is not enough. Pull the plug again after every run, before hands go in.',
  locked: 'Put your own lock on it. Lock it off again after every run, before hands go in.',
  vented: 'Pressure left in the line can start it. Vent it again after every run, before hands go in.',
  respirator: 'FFP2 or FFP3 (N95 or P100), face-fit tested. Gloves. Eye protection where dust flies.',
  p3: 'P3 or P100, face-fit tested. Eye protection. Keep it on until the tests are done and the coverall is off.',
  suit: 'Type 5/6. It carries the dust, so it comes off before the respirator.',
  respiratorLast: 'Outside the area, after the coverall. Never the other way round.',
  sparks: 'Earthed, no sparks, enclosed lamps only. If anything is warm, leave it shut and call the fire service.',
  innerFilter: 'Leave the inner weighted filter in place.',
  makersWay: "Only if the maker built it for that. The maker's instructions come first.",
  hoseStays:
    'Leave the hose on the dirty inlet. An open inlet would draw its air there instead of through the opening you work at.',
  aloneRunning: 'It runs while open: stay with it and let nobody else touch it.',
  noBrushNoAir: 'No dry brushing. No compressed air.',
  plugFirst: 'Plug the inlet before you open anything.',
  sharp: "Don't push anything in: it may hold a pin. Keep hands off the inlet while it runs.",
  hotSeal:
    'Hands under the can before you undo the latches: a warm seal can stick, then drop. Twist it off its notches.',
  liveParts: 'Do not open live parts.',
  bandClamp: 'Do not move the band clamp: it can chafe a hole.',
  leftHanded: 'Some threads are left-handed: check the part.',
  localWaste: 'Dispose of it by your local rules.',
  noBlowing: 'Never blow it out.',
  bearWeight: 'Heavy when full.',
  bristles: 'Isolate it first. Do not cut the bristles.',
};

export const RUN_WORDS: Record<RunState, string> = {
  off: 'off',
  running: 'running, drawing air into the opening',
  headAside: 'running, head set aside',
  secondVacuum: 'on the second vacuum',
};

export const WHY_WORDS: Record<Step['because'], string> = {
  method: 'part of the method',
  controlled: 'controlled dust',
  contained: 'contained dust',
  seat: 'check the seal',
  stock: 'account for all parts',
  proof: 'check that it works',
  safety: 'safety first',
};

/** What is changed at a stage, by its name: the bag of a cyclone, the liner of a drop chamber. */
export const thingAt = ({ kind, name }: { readonly kind: StageKind; readonly name: string }): string => {
  const { carries } = STAGE_KINDS[kind];
  return carries === '' || name.includes(carries) ? name : `${name} ${carries}`;
};

/** The sentences that are a method's own. */
const OWN: Partial<Record<ProcedureId, Partial<Record<StepKey, (name: string) => string>>>> = {
  safetyBag: { tieOff: () => 'Put a cable tie round its neck.' },
  tankBagHeadAside: {
    switchOn: () => 'Switch the head on with the lid lifted a crack.',
    latch: () => 'Latch it while it runs. Count the latches.',
  },
  tankBagSecondVacuum: {
    connectSecond: () =>
      'Leave the hose on the dirty inlet. Connect the service hose from the clean machine to the port.',
    switchOn: () => 'Start the dirty machine with the lid lifted a crack.',
    switchOff: () => 'Switch off the dirty machine before you latch it.',
  },
  prefilterWrap: {
    switchOn: () => 'Switch the head on with the lid lifted a crack.',
    latch: () => 'Latch it while it runs. Count the latches.',
  },
  filterBags: {
    crackOpen: () => 'Lift the lid a crack before you start it.',
    switchOn: () => 'Open the air: start it with the lid lifted a crack.',
  },
  cycloneBag: { switchOn: () => 'Keep it running, or open the air and start it.' },
  centralCan: { open: () => 'Hands under the can, undo the latches, twist it off its notches.' },
  collectorEmpty: { open: (name) => `Take the ${name} off its ring.` },
  indicatorCheck: { switchOn: () => 'Run at full speed with the hose on.' },
  endlessLiner: {
    unplugInlet: () => 'Machine off, film on: take the cover off the inlet and put the hose back on.',
    plugInlet: () => 'Close the inlet with its cover while it runs.',
    drawDown: () => 'Draw the film down from the new cassette.',
  },
  linerSection: {
    unplugInlet: () => 'Machine off, film tied: take the cover off the inlet and put the hose back on.',
    plugInlet: () => 'Close the inlet with its cover while it runs.',
    drawDown: () => 'Draw the next section down.',
  },
  hosePlug: { close: () => 'Put hose and nozzle back on, tight.' },
  purge: {
    plugInlet: () => 'Take the hose off and close the inlet with its cover while it runs.',
    unplugInlet: () => 'Machine off: take the cover off and put the hose back on.',
  },
};

/** Where the level says it otherwise than the method does. */
const BY_LEVEL: Record<Exclude<DustHazard, 'plain'>, Partial<Record<StepKey, (name: string) => string>>> = {
  controlled: {
    switchOff: () => 'Switch off.',
    putOnRespirator: () => 'Put on mask and gloves.',
    offRespirator: () => 'Take off the mask last, away from the dust.',
  },
  // Nobody carries it to the store in the coverall it was packed in.
  contained: {
    switchOff: () => 'Switch off.',
    disposeOld: (name) =>
      `Wipe the bagged old ${name} and set it down at the edge of the area. It goes to the store last.`,
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
    'Breakthrough: dust got past it. Wipe out everything behind it, up to the fan. A gas stage behind it is spoilt: change it too. Tell everyone who worked with this machine. Answer yes once it is clean.',
  noEmbers: 'Leave it shut, keep away and call the fire service. Do not empty anything today.',
  nothingLeft: 'Wipe again. Seal what cannot be cleaned, or bag the machine.',
};

export const OPENING_WORDS: Record<OpenedPart, string> = {
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
      return `Step ${v.at + 1} puts hands in before the machine is isolated, or after a run without isolating it again.`;
    case 'runWhileOpen':
      return `Step ${v.at + 1} runs the machine while it is open.`;
    case 'partWithoutFate':
      return `The ${v.part} part is not accounted for: fitted, returned, held or disposed of.`;
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
      return 'It is isolated by something this machine does not have.';
    case 'unplugEarly':
      return 'The plug comes out of the inlet before the machine is closed, latched and off.';
    case 'tightenedUnseen':
      return 'It is tightened before arrow, gasket and seat are checked.';
    case 'openedAfterProof':
      return 'It is opened again after its proof.';
    case 'methodOrder':
      return `This method lacks, or has out of its order: ${v.what in WORDS ? WORDS[v.what as StepKey]('part') : CHECK_WORDS[v.what as CheckKind]}`;
  }
};
