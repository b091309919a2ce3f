import type { StageKind } from '@/core/path/stage-kinds';
import { type Likelihood, likelihoodWord, standsOut } from '@/core/diagnose/likely';
import type { Complaint } from '@/core/diagnose/complaint';
import type { Fault, FaultKind } from '@/core/diagnose/fault';
import type { School } from '@/core/diagnose/next-test';
import type { Operation } from '@/core/diagnose/operation';
import type { Outcome } from '@/core/diagnose/outcome';
import type { Repair, RepairKind } from '@/core/diagnose/repair';
import type { ModelStage } from '@/core/path/machine-path';
import { type QuantityKind, show, showFine, type UnitSystem } from '@/core/units';
import { capital, PLACE_WORDS } from './words';
import { aboutMinutes, sayProbability } from './format';

type Named = Pick<ModelStage, 'name' | 'kind'>;

const nameAt = (stages: readonly Named[], position: number): string => stages[position]?.name ?? 'stage';

export const COMPLAINT_WORDS: Record<Complaint, readonly [label: string, hint: string]> = {
  noSuction: ['No suction', 'it does not pick up'],
  light: ['The light is on', 'or the gauge is red'],
  dust: ['It leaks dust', 'dust in the room or behind the filter'],
  smell: ['It smells', 'at the outlet'],
  labours: ['Motor labouring', 'pitch, noise, rumble'],
  round: ['Found on a check', 'seen on the round'],
};

export const SCHOOL_WORDS: Record<School, readonly [label: string, hint: string]> = {
  best: ['Best next test', 'the most useful for the time'],
  nozzleInward: ['From the nozzle inward', 'tool first, machine last'],
  takeOut: ['Take filters out', 'coarse to fine, run after each'],
  swap: ['Swap in new parts', 'and watch the light or the flow'],
};

/** A fault as a short sentence without its full stop. */
export const sayFault = ({ kind, position }: Pick<Fault, 'kind' | 'position'>, stages: readonly Named[]): string => {
  const name = nameAt(stages, position);
  const WORDS: Record<FaultKind, string> = {
    blocked:
      stages[position]?.kind === 'hose' || stages[position]?.kind === 'duct' || position === 0
        ? `the ${name} is plugged`
        : `the ${name} is blocked`,
    missing: `the ${name} is missing`,
    torn: `the ${name} is torn or washed out`,
    misseated: `the ${name} is not seated: dust gets round it`,
    reversed: `the ${name} is in back to front`,
    leakingSeal: `the seal at the ${name} leaks`,
    hoseHoled: `the ${name} has a hole`,
    weakFan: 'the fan is weak: worn brushes or motor',
    bearings: 'the bearings are worn',
    lowVoltage: 'the line voltage is low',
    lowSupply: 'the supply air is low',
    wrongSetting: 'speed or bleed is set wrong',
    wrongSelector: 'the hose selector is not set to the hose',
    brushJammed: 'the belt or brush roll is jammed',
    indicatorOut: 'the indicator is out of adjustment (false light)',
    spentGas: `the ${name} is spent`,
  };
  return WORDS[kind];
};

const WHERE_TITLES = { flow: 'Open flow', hand: 'Feel the flow by hand', sealed: 'Sealed suction' } as const;

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
      return `Gauge on the ${nameAt(stages, op.position)}`;
    case 'purge':
      return `Gauge on the ${nameAt(stages, op.position)} after a purge`;
    case 'lookBag':
      return `Look in the compartment of the ${nameAt(stages, op.position)}`;
    case 'weigh':
      return `Weigh the ${nameAt(stages, op.position)}`;
    case 'takeOut':
      return `Run with the ${nameAt(stages, op.position)} taken out`;
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
      return 'Look through the hose';
    case 'lamp':
      return 'Look at the low-flow light';
    case 'lampCoverOff':
      return 'Check the light with the cover off';
    case 'disc':
      return 'Indicator check with the disc';
    case 'particles':
      return 'Count particles at the exhaust';
    case 'smell':
      return 'Smell at the outlet';
    case 'smoke':
      return 'Smoke test along seals and ring';
    case 'voltage':
      return 'Line voltage under load';
    case 'supply':
      return 'Supply pressure while running';
    case 'found':
      return `Found at the repair: "${sayFault({ kind: op.fault as FaultKind, position: op.position }, stages)}"`;
  }
};

const HOW: Record<Operation['kind'], string> = {
  flow: 'Full speed, hose straight. Let it settle, then read with the same meter as the baseline.',
  hand: 'Hold your hand across the opening at full speed and compare with how it usually feels. A hand cannot feel a loss of 10 to 20 %.',
  sealed:
    'Seal the opening with the gauge on it, run at full speed, read when the needle is steady. A blocked filter alone does not lower it.',
  stageDp: 'One gauge hose before the stage, one after it. Run the machine as in use.',
  gauge: 'Run the machine as in use, hose on. At low flow even a dirty filter reads green.',
  purge:
    'Run, take the hose off, close the inlet with its cover, give it 2 or 3 pulses, wait, read the gauge again. Back to green: carry on. Not green: change or inspect.',
  listen:
    'Start it and listen. High pitch and labouring: blocked before the fan. Free-running with no flow: open path or leak.',
  settings: 'Full speed, bleed closed, selector set to the hose that is fitted, brush turning freely.',
  lookNozzle: 'Switch off. Dirt dropped under the nozzle means the air no longer carries it.',
  lookHose:
    "Switch off, take the hose off, pull it straight and look through it at a light. Don't push anything in: turn it end for end on the inlet, run, pull it straight.",
  lookBag:
    'Isolate it and open the compartment. Loose dirt beside the bag: not seated, or torn. A shut lid does not prove a seated bag.',
  weigh: 'Isolate it, take the part out, weigh it and compare with a new one.',
  takeOut:
    'Isolate it, take the part out into a bag, close, run, read the flow at the tool. It counts as out until you say it is back in.',
  swap: 'Isolate it, bag and tag the old part, fit the new one, close, run 10 to 15 s, then look or read.',
  lamp: 'At full speed, 10 to 15 s after the start.',
  lampCoverOff:
    'Isolate it and take the cover off. Give it its feed again and run it briefly. Still lit: false light. Out: a real restriction. Do not touch any filter. Keep hands, hair and cuffs away from the opening. Switch off and isolate it before the cover goes back.',
  disc: 'Fit a fresh bag and filters first. Put the disc on the hose end, then take it off: light on, then off, is good.',
  cleanSide:
    'Isolate it and look behind the filter. Dirt at the edge came past the seat, dirt in the middle came through a tear. Check that the filter is there, and its arrow.',
  particles:
    'Count the room first, then the exhaust, for the same time. A good filter lets almost nothing through: fewer than the room is not enough to clear it.',
  smell: 'Run it for a minute and smell at the outlet. Flow never shows a spent gas stage.',
  smoke: 'Move the smoke pencil slowly along lid, seals and ring. Smoke drawn in or blown away shows a leak.',
  voltage: 'At the socket while the machine runs. Do not open live parts.',
  supply: 'At the inlet of the generator, with all tools running.',
  found: '',
};

export const testHow = (op: Operation): string => HOW[op.kind];

const WORD_LABELS: Partial<Record<Operation['kind'], Readonly<Record<string, string>>>> = {
  hand: { none: 'None', weak: 'Weak', normal: 'As usual', strong: 'Stronger' },
  gauge: { green: 'Green', amber: 'Amber', red: 'Red' },
  purge: { green: 'Back to green', amber: 'Amber', red: 'Red' },
  listen: { normal: 'As usual', blocked: 'Labouring, high pitch', free: 'Free-running', grumble: 'Rumbles' },
  settings: {
    right: 'All right',
    setting: 'Speed or bleed was wrong',
    selector: 'Selector was wrong',
    brush: 'Brush or belt jammed',
  },
  lookNozzle: { dirtDropped: 'Dirt dropped there', clean: 'Clean' },
  lookHose: { blocked: 'Blocked', clear: 'Clear' },
  lookBag: {
    clean: 'Clean, not full',
    full: 'Full',
    looseDirt: 'Loose dirt beside it',
    torn: 'Torn',
    missing: 'Missing',
  },
  weigh: { nearNew: 'Near new', heavier: 'Heavier', severalTimes: 'Several times a new one' },
  lamp: { lit: 'Lit', out: 'Out' },
  lampCoverOff: { lit: 'Still lit', out: 'Goes out' },
  disc: { good: 'On, then off: good', bad: 'Anything else' },
  cleanSide: {
    clean: 'Clean',
    edge: 'Dirt at the edge',
    middle: 'Dirt in the middle',
    missing: 'Missing',
    reversed: 'Arrow points the wrong way',
  },
  particles: { below: 'Fewer than the room', notShown: 'Cannot tell', above: 'More than the room' },
  smell: { smells: 'It smells', none: 'Nothing' },
  smoke: { leak: 'Drawn in or blown away', tight: 'Tight' },
  found: { yes: 'fault confirmed', no: 'part OK' },
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
  test: {
    readonly minutes: number;
    readonly exposure: number;
    readonly pending: boolean;
    /** It was done before, and nothing was repaired since. */
    readonly again: boolean;
  },
): string => {
  if (test.pending) return 'Repeat the complaint reading at the same place: the case cannot close without it.';
  if (test.again && op.kind === 'settings')
    return 'Look once more before the fan goes for service: one look misses a bleed slid open now and then.';
  const time = aboutMinutes(test.minutes);
  const touched =
    test.exposure === 0
      ? 'nothing dusty is opened'
      : test.exposure === 1
        ? 'little dust is opened'
        : 'it opens the dirty side';
  const splits: Partial<Record<Operation['kind'], string>> = {
    lampCoverOff: 'It tells a false light from a real restriction',
    flow: 'It shows on which side of that place the air is lost',
    hand: 'It shows roughly on which side of that place the air is lost',
    sealed: 'It tells a leak or a weak fan from a restriction',
    stageDp: 'It shows whether that stage holds the air back',
    settings: 'It rules out a wrong setting',
    listen: 'It tells blocked, leaking and worn apart by ear',
    lookBag: 'A flow reading does not show a bag that is not seated',
    cleanSide: 'A flow reading does not show what gets past a filter',
    particles: 'It shows whether dust leaves the machine',
    smoke: 'It finds the leak itself',
    voltage: 'It explains a weak fan, or rules it out',
    supply: 'It explains a weak generator, or rules it out',
  };
  return `${splits[op.kind] ?? 'Most useful test for the time'}. Takes ${time}; ${touched}.`;
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

/** The state of the machine, for the caution of a test. */
export const standingOf = (state: keyof typeof STATES): 'cutOff' | 'running' =>
  state === 'running' ? 'running' : 'cutOff';

/** Why parts are not taken out in this dust. */
export const NO_TAKE_OUT =
  'Taking filters out is for plain dust only. With other dust, read the pressure across each stage, swap in a new part, or look inside under containment.';

const REPAIR_WORDS: Record<RepairKind, (name: string) => string> = {
  newPart: (name) => `Fit a new ${name}`,
  reseat: (name) => `Reseat the ${name}, the right way round`,
  clear: (name) => `Clear the ${name}`,
  newHose: (name) => `Replace or shorten the ${name}`,
  newSeal: (name) => `Renew the seal at the ${name}`,
  serviceFan: () => 'Send it to a trained repairer for brushes and bearings',
  supply: () => 'Fix the supply: cable, socket, compressor',
  settings: () => 'Set speed, bleed and selector',
  indicator: () => 'Send the indicator for adjustment: only a trained person adjusts it live',
  brush: () => 'Unplug it and free the belt and brush roll',
};

export const sayRepair = ({ kind, position }: Repair, stages: readonly Named[]): string =>
  REPAIR_WORDS[kind](nameAt(stages, position));

const HOW_REPAIR: Partial<Record<RepairKind, string>> = {
  newPart: 'The change page shows the containment and takes the part from stock. Then come back here.',
  reseat: 'Check collar, thread or latches, and every seal, one by one.',
  newSeal: 'Wipe the seat clean before the new seal goes in. Close it and see that it sits all round.',
  serviceFan: 'Before it leaves: clean the outside, cap the inlet, and write on it what it collected.',
};

const HOW_CLEAR_ELSE =
  'Isolate it: plug, breaker or air. Take out what sits there, into a bag; push and blow nothing inwards.';
const POURED = 'Empty it as you change a bag: into a bag, closed before it is carried.';
const HOW_CLEAR: Readonly<Record<StageKind, string>> = {
  hose: "Don't push anything in: turn the hose end for end on the inlet, run, pull it straight. Then check it again, and check the bag: a pin or clip may have pierced it.",
  duct: "Don't push anything further in: open it at the nearest clean-out or joint and take it out there. Then check the bag: a pin or clip may have pierced it.",
  dropChamber: POURED,
  cyclone: POURED,
  nozzle: HOW_CLEAR_ELSE,
  shroud: HOW_CLEAR_ELSE,
  hood: HOW_CLEAR_ELSE,
  wye: HOW_CLEAR_ELSE,
  inlet: HOW_CLEAR_ELSE,
  ring: HOW_CLEAR_ELSE,
  bag: HOW_CLEAR_ELSE,
  foam: HOW_CLEAR_ELSE,
  cloth: HOW_CLEAR_ELSE,
  prefilter: HOW_CLEAR_ELSE,
  mainFilter: HOW_CLEAR_ELSE,
  canister: HOW_CLEAR_ELSE,
  hepa: HOW_CLEAR_ELSE,
  gas: HOW_CLEAR_ELSE,
  fan: HOW_CLEAR_ELSE,
  exhaustFilter: HOW_CLEAR_ELSE,
  muffler: HOW_CLEAR_ELSE,
  exhaust: HOW_CLEAR_ELSE,
};

/** How a repair is done, in a line or two. */
export const sayHowRepair = ({ kind, position }: Repair, stages: readonly Named[]): string => {
  const stage = stages[position]?.kind;
  if (kind === 'clear') return stage ? HOW_CLEAR[stage] : HOW_CLEAR_ELSE;
  return HOW_REPAIR[kind] ?? '';
};

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

/** The reading of a test on the sound machine, in words. */
export const sayExpected = (kind: QuantityKind, soundSi: number, units: UnitSystem): string =>
  `${show(kind, soundSi, units)} on a good machine`;

/** The effect of an outcome on the likeliest cause. */
export const sayMeaning = (
  top: { readonly kind: FaultKind; readonly position: number; readonly probability: number } | null,
  stages: readonly Named[],
): string =>
  top === null || !standsOut(top.probability)
    ? 'nothing stands out'
    : `${sayFault(top, stages)}, ${sayProbability(top.probability)}`;

export const sayCause = (f: Pick<Fault, 'kind' | 'position'>, stages: readonly Named[]): string =>
  capital(sayFault(f, stages));
