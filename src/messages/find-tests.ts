import type { FaultKind } from '@/core/diagnose/fault';
import type { Operation } from '@/core/diagnose/operation';
import { PLACE_WORDS } from './words';
import { type Named, nameAt, sayFault } from './fault-names';

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
