import { STAGE_KINDS, type StageKind } from '@/core/path/stage-kinds';
import type { MachineClass } from '@/core/filter/machine-class';
import type { IntegrityTest } from '@/core/machine/integrity';
import type { CautionKey, CheckKind, OpenedPart, ProcedureId, RunState, Step } from '@/core/procedure/step';

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
  preMotorClean: 'Is this filter clean and dry? (Rinsing it is a separate job.)',
  nothingLeft: 'Is all dust gone, in seams and seals and behind the filter too?',
  wallsClean: 'Shine a light in, to the far end. Is it clean inside?',
  vesselClean: 'Shine a light in. Is it clean inside, seats and seams too?',
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
  plugFirst: 'First of all: before you open anything.',
  sharp: "Don't push anything in: it may hold a pin. Keep hands off the inlet while it runs.",
  hotSeal:
    'Hands under the can before you undo the latches: a warm seal can stick, then drop. Twist it off its notches.',
  liveParts: 'Do not open live parts.',
  bandClamp: 'Do not drag the band clamp over the bag: it can chafe a hole.',
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

/** The changed thing at a stage, by its name: the bag of a cyclone, the liner of a drop chamber. */
export const thingAt = ({ kind, name }: { readonly kind: StageKind; readonly name: string }): string => {
  const { carries } = STAGE_KINDS[kind];
  return carries === '' || name.includes(carries) ? name : `${name} ${carries}`;
};

/** Says when the class may be used again after its filter was opened; null when it was not opened. */
export const sayClassWaits = (machineClass: MachineClass | null, tests: readonly IntegrityTest[]): string | null => {
  if (tests.length === 0) return null;
  if (machineClass === 'H' || machineClass === 'HEPA')
    return `The screening proves no class. Do not call it ${machineClass} until a competent person has done the penetration test and it is on record.`;
  return machineClass === null
    ? 'Do not use it in this dust until the screening is passed and on record.'
    : `Do not call it ${machineClass} class until the screening is passed and on record.`;
};

/** What "no" means at a check, beyond "put it right". */
export const IF_NOT: Partial<Record<CheckKind, string>> = {
  cleanSideClean:
    'Breakthrough: dust got past it. Wipe out everything behind it, up to the fan. A gas stage behind it is spoilt: change it too. Tell everyone who worked with this machine. Answer yes once it is clean.',
  noEmbers: 'Leave it shut, keep away and call the fire service. Do not empty anything today.',
  nothingLeft:
    'Wipe again. Dust that cannot be reached stays: then give this job up. The machine is not decontaminated.',
  wallsClean: 'Wipe again. If it cannot be cleaned, give this job up: the machine keeps its dust.',
  vesselClean: 'Wipe again. If it cannot be cleaned, give this job up: the machine keeps its dust.',
};

export const OPENING_WORDS: Record<OpenedPart, string> = {
  lid: 'the lid',
  door: 'the door',
  head: 'the head',
  ring: 'the ring',
  fixings: 'the fixings',
  can: 'the can',
  oldPart: 'the old part',
  disposalBag: 'the disposal bag',
  inlet: 'the inlet',
};
