import type { DustHazard } from '@/core/dust/level';
import type { Fixing } from '@/core/machine/part-ways';
import { capital } from './words';
import type { ProcedureId, Step, StepKey } from '@/core/procedure/step';
import { CHECK_WORDS } from './procedure';

export const WORDS: Record<StepKey, (name: string) => string> = {
  askHazard: () => 'What has it collected since it was last decontaminated?',
  restrictArea: () => 'Close off the area and keep others out.',
  putOnRespirator: () => 'Put the respirator on and check that it seals to your face.',
  putOnCoverall: () => 'Put on coverall and overshoes. Pull the hood over the straps of the respirator.',
  tapeGloves: () => 'Put on gloves and tape them to the cuffs.',
  layOutSuitBag: () => 'At the edge, open a waste bag for coverall, gloves and late wipes. Label it first.',
  tieSuitBag: () => 'Put on fresh gloves, tie that bag, take the gloves off.',
  isolate: () => 'Switch off, pull the plug and keep it in sight.',
  isolateBreaker: () => 'Switch off. Lock off the breaker or isolator, or pull the plug and keep it in sight.',
  isolateAir: () => 'Shut off the air supply, vent it, disconnect it.',
  plugInlet: () => 'Take the hose off and plug the inlet at once.',
  unplugInlet: () => 'Machine closed, latched and off: take plug and cap off and put the hose back on.',
  hosesOff: () => 'Take the hoses off. See that the flaps of the inlets are shut.',
  hosesOn: () => 'Machine closed and off: put the hoses back on.',
  restorePlug: () => 'Hands out. Plug it in again.',
  restoreBreaker: () => 'Hands out. Take your lock off and switch the breaker on again.',
  restoreAir: () => 'Hands out. Connect the air supply and open it slowly.',
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
  removeSecond: () => 'With the clean machine running, take the service hose off the port and cap its end.',
  closePort: () => 'Close the service port.',
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
  tieNeck: () => 'Put a cable tie round its neck.',
  closeNeck: (name) => `Gather the neck of the ${name}, twist it, fold it over and tie it before it moves.`,
  takeOut: (name) => `Take the ${name} off.`,
  lookInside: () => 'Look in the compartment: loose dirt means a bad seal or a tear.',
  wipe: () => 'Wipe the opening with a damp cloth.',
  decontaminate: () => 'Decontaminate what was touched, and the floor.',
  prepareNew: (name) => `Take a new ${name} from the shelf and lay it ready.`,
  fitNew: (name) => `Fit the ${name} in its guides and push it fully home.`,
  drawDown: () => 'Draw the film down.',
  strapRim: () => 'Pull the upper end over the rim, strap it and buckle it.',
  holdOld: (name) => `Bag and tag the old ${name}, in a bag of its own. Keep it until the new one is proven.`,
  bagOld: (name) => `Put the old ${name} into its bag.`,
  putOldBack: (name) => `Put the old ${name} back in.`,
  returnNew: (name) => `Put the new ${name} into its bag and back on the shelf, marked as opened.`,
  cutHair: () => 'Take out the brush roll, drive end last. Cut the hair along the groove.',
  stripNozzle: () =>
    'Take nozzle and wand apart over an open bag. Take out what sits there, wipe them damp, put them together.',
  cleanCanister: () => 'Turn the flaps of the canister, or pulse it.',
  proveIndicator: () => 'Run it for 10 to 15 s and look at the light.',
  disposeOld: (name) => `Take the old ${name} to the waste store, its bag shut.`,
  labelWaste: () => 'Label the waste: contents, machine, date, hazard.',
  runAndListen: () => 'Run it, listen, check again.',
  check: () => 'Look.',
  pulse: () => 'Give it two or three pulses, then wait.',
  readGauge: () => 'Read the gauge again.',
  wash: (name) => `Wash or rinse the ${name}.`,
  startDrying: () => 'Hang it up to dry. The machine is out of service until it is dry.',
  emptyInto: () => 'Let it run out slowly into the liner. Keep its mouth against the bag.',
  reverseHose: () => 'Take the nozzle off and the plug out. Put the hose on the inlet end for end.',
  reverseRun: () => 'Switch on. Pull the hose straight while it runs.',
  lookThrough: () => 'Hold the hose to a light and look through. Check the bag too: a pin may have pierced it.',
  discOn: () => 'Put the disc on the hose end. Leave the inlet open.',
  packMachine: () => 'Put the whole machine in a transport bag with its inlet plugged. Seal it and label it.',
  bondFirst: () => 'Bonding lead first: snap it on and clamp it to an earthed point.',
  measureBaseline: () => 'Measure the baseline.',
  startTimer: () => 'Start the timers on the day of first use. Do not start them on the day of purchase.',
  screenCleanSide: (name) =>
    `Machine off: look at the clean side of the ${name} from the exhaust, with a light and a damp white cloth.`,
  integrityTest: (name) =>
    `Screen the ${name} while it runs closed: smoke along the seals, and a particle count where it is due.`,
  measureAfter: () => 'Measure again at the same place, the same way.',
  wipeSuit: () => 'At the edge of the area, wipe down the coverall and the outside of the gloves.',
  offOvershoes: () => 'Take off the overshoes.',
  offCoverall: () =>
    'Take off the coverall, hood first, rolled inside out with the gloves in it, into the labelled bag.',
  offGloves: () => 'Take off the gloves inside out, into a small bag, and tie it: same waste.',
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
  lookForEmbers: () => 'Look and smell for embers before anything is opened.',
  capHose: () => 'Cap both ends of the hose.',
  discOff: () => 'Take the disc off and wipe it.',
  decontaminationNote: () => 'Write the decontamination note: what it held, what was done, what could not be cleaned.',
  nameSpare: () => 'Name the machine that replaces it and reserve the days.',
  liftAbove: (name) => `Lift off what sits above the ${name}, top down. Remember the order.`,
  bagAbove: () => 'Put each of these parts into a clean bag of its own and fold it shut. Number the bags.',
  backAbove: () => 'Put back what sat above it, in order, straight out of its bag. Check each arrow.',
  wipeOutside: () => 'Wipe down the outside, hose and cable too.',
  cleanWalls: (name) => `Wipe the inside of the ${name} with damp cloths until a cloth stays clean.`,
  cleanVessel: () => 'Wipe the inside of the drum or container, with all seats and seams, until a cloth stays clean.',
};

/** The sentences that are a method's own. */
const OWN: Partial<Record<ProcedureId, Partial<Record<StepKey, (name: string) => string>>>> = {
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
  collectorEmpty: { open: (name) => `Draw a liner up round the ${name} as a funnel, then open it at the bottom.` },
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
  hosePlug: {
    close: () => 'Take the plug out. Put hose and nozzle back on, tight.',
  },
  purge: {
    plugInlet: () => 'Take the hose off and close the inlet with its cover while it runs.',
    unplugInlet: () => 'Machine off: take the cover off and put the hose back on.',
  },
  decontamination: {
    plugInlet: () => 'Take the hose off and plug the inlet at once.',
    unplugInlet: () => 'Machine closed, latched and off: take the plug out. The old hose does not go back on.',
    prepareNew: (name) =>
      name.includes('hose')
        ? 'Lay a new hose ready, or one that was washed out wet and dried.'
        : `Take a new ${name} from the shelf and lay it ready.`,
    fitNew: (name) =>
      name.includes('hose')
        ? 'Put that hose on the inlet and lock it.'
        : `Fit the ${name} in its guides and push it fully home.`,
  },
  wash: { holdOld: (name) => `Put the ${name} into a bag of its own and carry it in that to the wash place.` },
  commissioning: { open: (name) => `Open it to see the ${name}.` },
};

/** Where the level says it otherwise than the method does. */
const BY_LEVEL: Record<Exclude<DustHazard, 'plain'>, Partial<Record<StepKey, (name: string) => string>>> = {
  controlled: {
    switchOff: () => 'Switch off.',
    putOnRespirator: () => 'Put on the mask, check that it seals to your face, then the gloves.',
    offRespirator: () => 'Take off the mask last, away from the dust.',
  },
  // The coverall of the packing is not worn to the store.
  contained: {
    switchOff: () => 'Switch off.',
    disposeOld: (name) =>
      `Wipe the bagged old ${name} and set it down at the edge of the area. It goes to the store last.`,
  },
};

const CAPPED: Partial<Record<StepKey, (name: string) => string>> = {
  reverseHose: () =>
    'Take the nozzle off into a bag. Take caps and plug off and put the hose on the inlet end for end at once.',
  lookThrough: () =>
    'Over an open bag, take the caps off the hose, hold it to a light and look through. Cap it again. Check the bag in the machine at its next change: a pin may have pierced it.',
  close: () => 'Take caps and plug off. Put hose and nozzle back on at once, tight.',
};

const byLevel = ({ because, key }: Step) => {
  if (because === 'safety' && key === 'switchOff') return () => 'Switch off.';
  return because === 'controlled' || because === 'contained' ? (BY_LEVEL[because][key] ?? CAPPED[key]) : undefined;
};

const FIXING_WORDS: Record<Fixing, readonly [undo: (name: string) => string, tighten: (name: string) => string]> = {
  cartridgeNut: [() => 'Undo the nut of the cartridge.', () => 'Tighten the nut of the cartridge by hand.'],
  filterFrame: [() => 'Undo the frame of the filter.', () => 'Close the frame of the filter all round.'],
  bolts: [
    (name) => `Undo the fixings of the ${name} with the tool they were made for.`,
    (name) => `Tighten the fixings of the ${name} evenly, crosswise.`,
  ],
  coneNut: [() => 'Undo the nut of the cone.', () => 'Tighten the nut of the cone.'],
  thread: [
    (name) => `Unscrew the ${name} counter-clockwise.`,
    (name) => `Turn the ${name} clockwise until it sits flush.`,
  ],
  gasLidScrews: [
    () => 'Undo the screws of the gas lid on both sides.',
    () => 'Tighten the screws of the gas lid on both sides.',
  ],
  ringLatches: [
    (name) => `Hold the ${name}, then open its latches on the ring.`,
    (name) => `Set the ${name} on the ring and close every latch.`,
  ],
  bandClamp: [
    () => 'The neck is tied: now open the band clamp and take the bag off.',
    () => 'Pull the new bag over the ring and close the band clamp.',
  ],
  binClamp: [
    () => 'Hold the bin, undo its clamp or lift, and lower it.',
    () => 'Lift the bin to the cone and close its clamp.',
  ],
};

const fixingOf = ({ fixing, key }: Step): ((name: string) => string) | undefined =>
  fixing === undefined ? undefined : FIXING_WORDS[fixing][key === 'releaseFixings' ? 0 : 1];

/** Procedures that see the seats of several parts: each question names its part. */
const MANY_SEATS: ReadonlySet<ProcedureId> = new Set<ProcedureId>([
  'commissioning',
  'decontamination',
  'fullSet',
  'screwHepa',
]);

/** A step in words, in the sentence its method has for it; a check is its question. */
export const sayStepOf = (step: Step, name: string, method?: ProcedureId): string =>
  step.check && (step.key === 'check' || step.key === 'proveIndicator')
    ? `${method && step.stage !== null && step.key === 'check' && MANY_SEATS.has(method) ? `${capital(name)}: ` : ''}${CHECK_WORDS[step.check]}`
    : (byLevel(step) ?? fixingOf(step) ?? (method ? OWN[method]?.[step.key] : undefined) ?? WORDS[step.key])(name);
