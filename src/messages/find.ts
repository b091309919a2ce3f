import { LEAST_SAID, type Likelihood, likelihoodWord, MOST_SAID, standsOut } from '@/core/diagnose/likely';
import type { Complaint } from '@/core/diagnose/complaint';
import type { Fault, FaultKind } from '@/core/diagnose/fault';
import type { School } from '@/core/diagnose/next-test';
import type { Operation } from '@/core/diagnose/operation';
import type { Outcome } from '@/core/diagnose/outcome';
import type { Repair, RepairKind } from '@/core/diagnose/repair';
import type { ModelStage } from '@/core/path/machine-path';
import { type QuantityKind, show, showFine, type UnitSystem } from '@/core/units';
import { capital, PLACE_WORDS } from './words';

type Named = Pick<ModelStage, 'name' | 'kind'>;

const nameAt = (stages: readonly Named[], position: number): string => stages[position]?.name ?? 'stage';

export const COMPLAINT_WORDS: Record<Complaint, readonly [label: string, hint: string]> = {
  noSuction: ['No suction', 'it does not pick up'],
  light: ['The light is on', 'or the gauge is red'],
  dust: ['It blows dust', 'dust in the room, or behind the filter'],
  smell: ['It smells', 'at the outlet'],
  labours: ['It labours', 'pitch, noise, grumble'],
  round: ['Nobody complained', 'something seen on the round'],
};

export const SCHOOL_WORDS: Record<School, readonly [label: string, hint: string]> = {
  best: ['Best next', 'what settles most for its price'],
  nozzleInward: ['Nozzle inward', 'from the tool to the machine'],
  takeOut: ['Take out', 'coarse to fine, run after each'],
  swap: ['Swap in new', 'and watch the light or the flow'],
};

/** A fault as a short sentence without its full stop. */
export const sayFault = ({ kind, position }: Pick<Fault, 'kind' | 'position'>, stages: readonly Named[]): string => {
  const name = nameAt(stages, position);
  const WORDS: Record<FaultKind, string> = {
    blocked:
      stages[position]?.kind === 'hose' || stages[position]?.kind === 'duct' || position === 0
        ? `the ${name} is plugged`
        : `the ${name} is blocked`,
    missing: `the ${name} is not there`,
    torn: `the ${name} is torn or washed out`,
    misseated: `the ${name} does not sit: dust goes round it`,
    reversed: `the ${name} is in the wrong way round`,
    leakingSeal: `the seal at the ${name} leaks`,
    hoseHoled: `the ${name} has a hole`,
    weakFan: 'the fan is weak: worn brushes or motor',
    bearings: 'the bearings are going',
    lowVoltage: 'the line voltage is low',
    lowSupply: 'the supply air is low',
    wrongSetting: 'the speed or the bleed is set wrong',
    wrongSelector: 'the hose selector does not fit the hose',
    brushJammed: 'the belt or brush roll is jammed',
    indicatorOut: 'the indicator is out of adjustment',
    spentGas: `the ${name} is spent`,
  };
  return WORDS[kind];
};

const WHERE_TITLES = { flow: 'Open flow', hand: 'Feel the flow with a hand', sealed: 'Sealed suction' } as const;

/** The name of a test, with its place or stage. */
export const testTitle = (op: Operation, stages: readonly Named[]): string => {
  switch (op.kind) {
    case 'flow':
    case 'hand':
    case 'sealed':
      return `${WHERE_TITLES[op.kind]} at the ${PLACE_WORDS[op.place]}`;
    case 'stageDp':
      return `Pressure across the ${nameAt(stages, op.position)}`;
    case 'gauge':
      return `Gauge of the ${nameAt(stages, op.position)}`;
    case 'purge':
      return `Gauge of the ${nameAt(stages, op.position)} after a purge`;
    case 'lookBag':
      return `Look into the compartment of the ${nameAt(stages, op.position)}`;
    case 'weigh':
      return `Weigh the ${nameAt(stages, op.position)}`;
    case 'takeOut':
      return `Take the ${nameAt(stages, op.position)} out and run`;
    case 'swap':
      return `Fit a new ${nameAt(stages, op.position)} on trial`;
    case 'cleanSide':
      return `Look at the clean side of the ${nameAt(stages, op.position)}`;
    case 'listen':
      return 'Listen at the start';
    case 'settings':
      return 'Check speed, bleed, selector, brush';
    case 'lookNozzle':
      return 'Look under the nozzle';
    case 'lookHose':
      return 'Look through the hose to a light';
    case 'lamp':
      return 'Look at the low-flow light';
    case 'lampCoverOff':
      return 'Light with the compartment cover off';
    case 'disc':
      return 'Indicator check with the disc';
    case 'particles':
      return 'Count particles at the exhaust';
    case 'smell':
      return 'Smell at the outlet';
    case 'smoke':
      return 'Smoke along seals and ring';
    case 'voltage':
      return 'Line voltage under load';
    case 'supply':
      return 'Supply pressure while running';
    case 'found':
      return `At the repair, "${sayFault({ kind: op.fault as FaultKind, position: op.position }, stages)}"`;
  }
};

const HOW: Record<Operation['kind'], string> = {
  flow: 'Full speed, hose straight, settled. Read at that place with the meter the baseline was taken with.',
  hand: 'Hold a hand across the opening at full speed and compare with what this machine usually does. A hand cannot tell 10 to 20 %.',
  sealed:
    'Close the place tight with the gauge on it, full speed, read when it stands still. A blocked filter alone does not lower it.',
  stageDp: 'One hose of the gauge before the stage, one behind it, machine running as in use.',
  gauge: 'Machine running as in use, hose on. Low flow makes a dirty filter read green.',
  purge:
    'Run, hose off, close the inlet with its cover, 2 or 3 pulses, wait, read the gauge again. Back to green: carry on; not: change or inspect.',
  listen:
    'Start it and watch the body flex. Pitch up and labouring: blocked before the fan. Free-running with no flow: open path or leak.',
  settings: 'Speed on full, bleed closed, selector on the hose that is fitted, brush turning freely.',
  lookNozzle: 'Switch off. Dirt dropped under the nozzle means air no longer carries it.',
  lookHose:
    'Switch off, hose off, straighten it and look through it to a light. Poke nothing in: reverse it on the inlet, run, stretch it.',
  lookBag:
    'Cut it off from its feed, open the compartment. Loose dirt beside the bag: not seated, or torn. "Lid shut" does not prove "seated".',
  weigh: 'Out, on the scale, against the weight of a new one.',
  takeOut:
    'Cut it off from its feed, take it out into a bag, close, run, read the flow at the tool. It stays out until you say that it is back.',
  swap: 'Cut it off from its feed, hold the old part bagged and tagged, fit the new one, close, run 10 to 15 s, then look or read.',
  lamp: 'Full speed, 10 to 15 s after the start.',
  lampCoverOff:
    'Cut it off from its feed and take the cover off; plug in and run it a moment: lit means the indicator lies, out means a real restriction. No filter is touched. Hands, hair and cuffs away from the opening. Off and unplugged before the cover goes back.',
  disc: 'Fresh bag and filters first. The disc on the hose end, then off again: on, then off, is good.',
  cleanSide:
    'Cut it off from its feed, look behind the filter. Dirt at the edge came past the seat, dirt in the middle through a tear. Look that it is there, and at its arrow.',
  particles:
    'Room first, then the exhaust, as long each. A sound filter lets almost nothing through: fewer than the room alone clears nothing.',
  smell: 'Run it a minute and smell at the outlet. Flow never shows a spent gas stage.',
  smoke: 'The smoke pencil slowly along lid, seals and ring: drawn in or blown out is a leak.',
  voltage: 'At the socket while the machine runs. Live parts are not opened.',
  supply: 'At the inlet of the generator, all tools running.',
  found: '',
};

export const testHow = (op: Operation): string => HOW[op.kind];

const WORD_LABELS: Partial<Record<Operation['kind'], Readonly<Record<string, string>>>> = {
  hand: { none: 'None', weak: 'Weak', normal: 'As usual', strong: 'Stronger' },
  gauge: { green: 'Green', amber: 'Amber', red: 'Red' },
  purge: { green: 'Back to green', amber: 'Amber', red: 'Red' },
  listen: { normal: 'As usual', blocked: 'Labours, pitch up', free: 'Free-running', grumble: 'Grumbles' },
  settings: {
    right: 'All right',
    setting: 'Speed or bleed was wrong',
    selector: 'Selector was wrong',
    brush: 'Brush or belt jams',
  },
  lookNozzle: { dirtDropped: 'Dirt dropped there', clean: 'Clean' },
  lookHose: { blocked: 'Blocked', clear: 'Clear' },
  lookBag: {
    clean: 'Clean, not full',
    full: 'Full',
    looseDirt: 'Loose dirt beside it',
    torn: 'Torn',
    missing: 'Not there',
  },
  weigh: { nearNew: 'Near new', heavier: 'Heavier', severalTimes: 'Several times a new one' },
  lamp: { lit: 'Lit', out: 'Out' },
  lampCoverOff: { lit: 'Still lit', out: 'Goes out' },
  disc: { good: 'On, then off: good', bad: 'Anything else' },
  cleanSide: {
    clean: 'Clean',
    edge: 'Dirt at the edge',
    middle: 'Dirt in the middle',
    missing: 'Not there',
    reversed: 'Arrow the wrong way',
  },
  particles: { below: 'Fewer than the room', notShown: 'Not shown', above: 'More than the room' },
  smell: { smells: 'It smells', none: 'Nothing' },
  smoke: { leak: 'Drawn in or blown out', tight: 'Tight' },
  found: { yes: 'it was so', no: 'it looked right' },
};

/** Every word a test may give; empty for a reading. */
export const wordsOfTest = (op: Operation): readonly string[] => Object.keys(WORD_LABELS[op.kind] ?? {});

export const OTHER_WORD = 'I saw something else';

export const wordLabel = (op: Operation, word: string): string =>
  word === 'other' ? OTHER_WORD : (WORD_LABELS[op.kind]?.[word] ?? word);

export const sayOutcome = (
  op: Operation,
  outcome: Outcome,
  { kind, units }: { readonly kind: QuantityKind | undefined; readonly units: UnitSystem },
): string =>
  outcome.kind === 'word'
    ? wordLabel(op, outcome.word)
    : kind
      ? showFine(kind, outcome.valueSi, units)
      : String(outcome.valueSi);

/** Why a test comes next, in a sentence. */
export const sayWhy = (
  op: Operation,
  told: { readonly minutes: number; readonly exposure: number; readonly pending: boolean },
): string => {
  if (told.pending) return "The complaint's own measure, at the complaint's own place: nothing is closed without it.";
  const time =
    told.minutes < 1 ? `${Math.round(told.minutes * 60)} seconds` : `${Number(told.minutes.toFixed(1))} minutes`;
  const touched =
    told.exposure === 0
      ? 'nothing dusty is opened'
      : told.exposure === 1
        ? 'little is opened'
        : 'it opens the dirty side';
  const splits: Partial<Record<Operation['kind'], string>> = {
    lampCoverOff: 'It splits a lying indicator from a real restriction',
    flow: 'It shows on which side of that place the air is lost',
    hand: 'It shows roughly on which side of that place the air is lost',
    sealed: 'It splits a leak or a weak fan from a restriction',
    stageDp: 'It shows whether that stage holds the air back',
    settings: 'It rules out a reading that was never valid',
    listen: 'It tells blocked, leaking and worn apart by ear',
    lookBag: 'A bag that does not sit hides behind every reading of flow',
    cleanSide: 'What gets past a filter hides behind every reading of flow',
    particles: 'It shows whether dust leaves the machine',
    smoke: 'It finds the leak itself',
    voltage: 'It explains a weak fan, or clears it',
    supply: 'It explains a weak generator, or clears it',
  };
  return `${splits[op.kind] ?? 'It settles most for its price'}, in ${time}, and ${touched}.`;
};

const STATES = { off: 'switched off', running: 'running', open: 'off, then open' } as const;
const OWN_STATE: Partial<Record<Operation['kind'], string>> = {
  takeOut: 'off to take it out, closed, then running',
  swap: 'off to swap it, closed, then running',
  lampCoverOff: 'off to take the cover off, then running a moment',
};

/** What to do with the machine for a test, in one phrase that fits all of it. */
export const stateWords = ({ kind }: Operation, state: keyof typeof STATES): string =>
  `machine ${OWN_STATE[kind] ?? STATES[state]}`;

/** How the machine stands for the caution of a test. */
export const standingOf = (state: keyof typeof STATES): 'cutOff' | 'running' =>
  state === 'running' ? 'running' : 'cutOff';

/** Why parts are not taken out in this dust. */
export const NO_TAKE_OUT =
  'With plain dust only: elsewhere pressure across each stage, a new part swapped in or a look inside the containment answers the same.';

const REPAIR_WORDS: Record<RepairKind, (name: string) => string> = {
  newPart: (name) => `Fit a new ${name}`,
  reseat: (name) => `Seat the ${name} again, the right way round`,
  clear: (name) => `Clear the ${name}`,
  newHose: (name) => `Replace or shorten the ${name}`,
  newSeal: (name) => `Renew the seal at the ${name}`,
  serviceFan: () => 'Send it for brushes and bearings, or to those trained for it',
  supply: () => 'Put the supply right: cable, socket, compressor',
  settings: () => 'Set speed, bleed and selector right',
  indicator: () => 'Send the indicator for adjustment: live adjustment is for trained persons',
  brush: () => 'Free the belt and brush roll, unplugged',
};

export const sayRepair = ({ kind, position }: Repair, stages: readonly Named[]): string =>
  REPAIR_WORDS[kind](nameAt(stages, position));

const HOW_REPAIR: Partial<Record<RepairKind, string>> = {
  clear:
    'Before poking anything in: reverse the hose on the inlet, run, stretch it straight. Then look again, and look at the bag: a pin or a clip may have pierced it.',
  newPart: 'The change page shows its containment and takes the part from stock; then come back here.',
  reseat: 'Look at collar, thread or latches, and at every seal, one by one.',
};

export const sayHowRepair = ({ kind }: Repair): string => HOW_REPAIR[kind] ?? '';

/** A probability as a person says it: never 0 or 100 %. */
export const sayProbability = (p: number): string =>
  p > MOST_SAID ? 'over 99 %' : p < LEAST_SAID ? 'under 1 %' : `${Math.round(100 * p)} %`;

const LIKELIHOOD_WORDS: Readonly<Record<Likelihood, string>> = {
  allButSure: 'almost certain',
  likely: 'likely',
  even: 'about even',
  possible: 'possible',
  unlikely: 'unlikely',
};

/** A word for a probability, beside its number. */
export const likelyWord = (p: number): string => LIKELIHOOD_WORDS[likelihoodWord(p)];

export const EXPOSURE_WORDS = ['no dust', 'a little dust', 'dusty', 'very dusty'] as const;

/** What a test would read on the sound machine, in words. */
export const sayExpected = (kind: QuantityKind, soundSi: number, units: UnitSystem): string =>
  `${show(kind, soundSi, units)} when sound`;

/** What an outcome would make of the likeliest cause. */
export const sayMeaning = (
  top: { readonly kind: FaultKind; readonly position: number; readonly probability: number } | null,
  stages: readonly Named[],
): string =>
  top === null || !standsOut(top.probability)
    ? 'nothing stands out'
    : `${sayFault(top, stages)}, ${sayProbability(top.probability)}`;

export const sayCause = (f: Pick<Fault, 'kind' | 'position'>, stages: readonly Named[]): string =>
  capital(sayFault(f, stages));
