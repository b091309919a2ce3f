import type { Violation, Worn } from '@/core/procedure/violation';
import { CHECK_WORDS, OPENING_WORDS } from './procedure';
import { WORDS } from './step-words';

const WORN_WORDS: Record<Worn, string> = {
  respirator: 'the respirator',
  coverall: 'the coverall',
  gloves: 'the gloves',
};

type FaultWords = { readonly [K in Violation['kind']]: (v: Extract<Violation, { readonly kind: K }>) => string };

const FAULT_WORDS: FaultWords = {
  unprotected: (v) => `dust is in the open without ${WORN_WORDS[v.need]}.`,
  areaOpen: () => 'dust is in the open and the area is not closed off.',
  hazardNotAsked: () => 'nobody asked what the machine has collected.',
  notIsolated: () => 'hands go in before the machine is isolated, or after a run without isolating it again.',
  wrongFeed: () => 'it is isolated by, or connected to, a feed this machine does not have.',
  noFeed: () => 'it is switched on while it is still isolated.',
  runWhileOpen: (v) => `it runs, or gets its feed back, with ${OPENING_WORDS[v.opening]} open.`,
  runUnlatched: () => 'it runs before it is latched.',
  runBlind: () => 'it runs with the inlet shut.',
  runWithout: () => 'it runs with a part out of its seat.',
  handsInRun: () => 'hands go in while it runs.',
  notBuiltForIt: () => 'this machine was not built to run like that.',
  wrongState: () => 'the machine is in the wrong state for this.',
  inletOpen: () => 'the inlet is open to the room.',
  hoseOpen: () => 'an end of the dirty hose is open to the room, or the hose is not back on.',
  unplugEarly: () => 'the inlet is opened before the machine is closed, latched and off.',
  portOpen: () => 'the service port is open or not connected.',
  secondLeftOn: () => 'the second vacuum is still connected or running.',
  latchOrder: () => 'latch and off are the wrong way round for this method.',
  closedOutOfOrder: (v) => `it closes ${OPENING_WORDS[v.opening]}, and something else was opened after that.`,
  leftOpen: (v) => `left open: ${OPENING_WORDS[v.opening]}.`,
  notLatched: () => 'the machine is left unlatched.',
  oldNotClosed: () => 'the old part moves, or is poured, before its openings are shut.',
  fixingTight: () => 'the part is moved before it is reached or its fixings are undone.',
  fixingLoose: () => 'a fixing is left loose.',
  stackAbove: () => 'the parts above it in the stack are still in.',
  stackOpen: () => 'parts of the stack lie open.',
  seatTaken: () => 'another part is still in that place.',
  notInHand: () => 'the part is not in the hand.',
  partWithoutFate: (v) => `the ${v.part} part is not accounted for: fitted, returned, held or disposed of.`,
  notWiped: () => 'the new part goes in before the opening is wiped.',
  wrapFirst: () => 'the wrap is on before the filter that it covers.',
  checkMissing: (v) => `a check is missing: ${CHECK_WORDS[v.check]}`,
  tightenedUnseen: () => 'it is tightened before arrow, gasket and seat are checked.',
  wasteOpen: () => 'waste is not tied, or not wiped.',
  wasteReopened: () => 'tied waste is opened again.',
  wasteUnlabelled: () => 'waste leaves without its second bag or its label.',
  wipesLoose: () => 'used wipes are not in a tied bag.',
  goneUnproven: () => 'the old part leaves before the new one is measured and screened.',
  embers: () => 'nobody looked for embers first.',
  notSettled: () => 'the dust has not settled.',
  dressOrder: () =>
    'protective equipment goes on in the wrong order: respirator, coverall with its hood over the straps, gloves.',
  undressOrder: () =>
    'protective equipment comes off in the wrong order: what carries dust first, the respirator last.',
  dustAfterUndressing: () => 'dust is touched after undressing.',
  notUndressed: () => 'protective equipment is never taken off.',
  areaLeftClosed: () => 'the area is never opened again.',
  suitWithoutBag: () => 'the coverall has no labelled bag, or its bag is not tied.',
  notRun: () => 'the machine is never run.',
  notMeasured: () => 'nothing is measured after the work.',
  notScreened: () => 'the filter that guards the room is not screened.',
  openedAfterProof: () => 'it is opened again after its proof.',
  leftRunning: () => 'the machine is left running.',
  dustLeft: (v) =>
    v.part.at === 'vessel'
      ? 'the space around the parts still holds dust.'
      : `stage ${v.part.stage + 1} of the path still holds dust.`,
  notThere: () => 'it speaks of something this machine does not have.',
  missing: (v) => `a step is missing or out of order: ${v.step in WORDS ? WORDS[v.step]('part') : v.step}`,
};

const sayFault = (v: Violation): string => (FAULT_WORDS[v.kind] as (v: Violation) => string)(v);

/** Says one violation in a sentence, with its step. */
export const sayViolation = (v: Violation): string =>
  `${v.at === null ? 'At the end' : `Step ${v.at + 1}`}: ${sayFault(v)}`;
