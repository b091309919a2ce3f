import type { StageKind } from '@/core/path/stage-kinds';
import type { Violation } from '@/core/procedure/prove';
import type { CautionKey, CheckKind, Opening, ProcedureId, RunState, Step, StepKey } from '@/core/procedure/step';

export const PROCEDURE_WORDS: Record<ProcedureId, string> = {
  plainBag: 'Bag',
  safetyBag: 'Sealed safety bag',
  endlessLiner: 'Endless liner',
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
};

const WORDS: Record<StepKey, (name: string) => string> = {
  askHazard: () => 'What has it collected since it was last decontaminated?',
  restrictArea: () => 'Close the area off.',
  putOnRespirator: () => 'Put the respirator on.',
  putOnCoverall: () => 'Put the coverall on.',
  isolate: () => 'Switch off and pull the plug.',
  plugInlet: () => 'Plug the inlet.',
  unplugInlet: () => 'Take the plug out of the inlet.',
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
  closeBreathers: () => 'Close the breather holes with their covers.',
  sealMouth: () => 'Seal the mouth.',
  tieOff: () => 'Tie it, 100 to 125 mm above the end.',
  twistAndCut: () => 'Twist, two ties, cut between them.',
  dropDust: () => 'Pulse once more, let the dust drop, machine off.',
  drawIntoBag: (name) => `Draw the ${name} into a disposal bag worn inside out over both arms, its mouth kept at the opening.`,
  releaseFixings: (name) => `Release the fixings of the ${name} with the tool.`,
  tightenFixings: (name) => `Tighten the fixings of the ${name}.`,
  takeOut: (name) => `Take the ${name} out.`,
  lookInside: () => 'Look into the compartment: loose dirt means it did not sit, or is torn.',
  wipe: () => 'Wipe the opening with a damp cloth.',
  decontaminate: () => 'Decontaminate what was touched.',
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
  cleanCanister: () => 'Canister: turn the flaps or pulse it, let the dust fall into the liner.',
  proveIndicator: () => 'Run 10 to 15 s and look at the light.',
  disposeOld: (name) => `Old ${name} to its waste.`,
  labelWaste: () => 'Label the waste.',
  runAndListen: () => 'Run it, listen, look again.',
  check: () => 'Look.',
  pulse: () => 'Two or three pulses, then wait.',
  readGauge: () => 'Read the gauge again.',
  wash: (name) => `Wash or rinse the ${name}.`,
  startDrying: () => 'Hang it to dry: out of service until it is.',
  emptyInto: () => 'Empty through a liner drawn up round the bag as a funnel.',
  reverseHose: () => 'Reverse the hose on the inlet, run, stretch it straight.',
  lookThrough: () => 'Look through it to a light, and look at the bag.',
  discOn: () => 'Disc on the hose end.',
  packMachine: () => 'Whole machine into a transport bag, sealed, labelled.',
  bondFirst: () => 'Bonding lead first: snap it home, clamp it to a bonded point.',
  measureBaseline: () => 'Measure the baseline.',
  startTimer: () => 'Start the timers: at first use, not at purchase.',
  integrityTest: (name) => `Integrity test of the ${name}.`,
  measureAfter: () => 'Measure again, same place, same way.',
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
  breathersInside: 'Are the breather holes inside the container?',
  compartmentClean: 'Is the compartment free of loose dirt?',
  bagCount: 'Are all bags in, against the wall?',
  ringTight: 'Is the ring tight? Smoke shows it.',
  bristlesFree: 'Are the bristles whole and free?',
  dry: 'Is it dry?',
  bonded: 'Is the lead on a bonded point?',
  hoseLocked: 'Does the hose hold a tug?',
  lightOut: 'Has the light stayed out for 10 to 15 s?',
  spinsFree: 'Is the roll in, drive end first, and does it spin freely?',
  selectorRight: 'Does the selector stand on this hose?',
};

export const CAUTION_WORDS: Record<CautionKey, string> = {
  unplug: 'Pull the plug: a switch is not an isolation.',
  respirator: 'Respirator on before anything is touched.',
  suit: 'Coverall on, off last.',
  noBrushNoAir: 'No dry brushing, no compressed air.',
  plugFirst: 'The inlet is plugged before anything opens.',
  sharp: 'Poke nothing in: a pin may come out of it.',
  hotSeal: 'Hands under the can before the latches: a hot seal can stick, then drop.',
  liveParts: 'Live parts stay closed.',
  bandClamp: 'Leave the band clamp alone: it chafes holes.',
  leftHanded: 'Some threads are left-handed: look at the part.',
  localWaste: 'Waste by your local rules.',
  noBlowing: 'Never blow it out.',
  bearWeight: 'It is heavy when full.',
  bristles: 'Unplugged; spare the bristles.',
};

export const RUN_WORDS: Record<RunState, string> = { off: 'off', running: 'running, air into the opening', headAside: 'running head set aside', secondVacuum: 'second vacuum drawing' };

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

/** A step in words; a check is its question. */
export const sayStepOf = (step: Step, name: string): string => (step.check && (step.key === 'check' || step.key === 'proveIndicator') ? CHECK_WORDS[step.check] : WORDS[step.key](name));

export const OPENING_WORDS: Record<Opening, string> = { lid: 'the lid', door: 'the door', head: 'the head', fixings: 'the fixings', can: 'the can', oldPart: 'the old part', disposalBag: 'the disposal bag', inlet: 'the inlet' };

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
      return `Step ${v.at + 1} comes before the plug is pulled.`;
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
      return 'A fine filter was changed without its integrity test.';
  }
};
