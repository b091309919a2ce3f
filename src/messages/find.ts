import { type Likelihood, likelihoodWord, standsOut } from '@/core/diagnose/likely';
import type { Complaint } from '@/core/diagnose/complaint';
import type { Fault, FaultKind } from '@/core/diagnose/fault';
import type { School } from '@/core/diagnose/next-test';
import type { Operation } from '@/core/diagnose/operation';
import type { Outcome } from '@/core/diagnose/outcome';
import { type QuantityKind, show, showFine, type UnitSystem } from '@/core/units';
import { capital } from './words';
import { aboutMinutes, sayProbability } from './format';
import { type Named, sayFault } from './fault-names';
import { wordLabel } from './find-tests';

export const COMPLAINT_WORDS: Record<Complaint, readonly [label: string, hint: string]> = {
  noSuction: ['No suction', 'it does not pick up'],
  light: ['The light is on', 'or the gauge is red'],
  dust: ['It leaks dust', 'dust in the room or behind the filter'],
  smell: ['It smells', 'at the outlet'],
  labours: ['Motor labouring', 'pitch, noise, rumble'],
  round: ['Found on a check', 'seen on the round'],
};

/** Said after repairs in a row that changed nothing. */
export const NOTHING_FITS = {
  sentence: 'The last repairs changed nothing. The fault may be one that Moorwind does not know.',
  caution:
    'Unplug the machine. Treat its outlet as dusty: where a filter leaked, the same dust lies behind it. Wear the mask for that dust, and wipe damp.',
  look: 'Then look behind the fan: a covered outlet, a blocked muffler, a blocked outlet duct or outlet filter, a full bag behind the fan. Take the complaint reading once more, at the same place, with the same meter. Buy no further part on a guess: test on, or hand the machine on.',
} as const;

export const SCHOOL_WORDS: Record<School, readonly [label: string, hint: string]> = {
  best: ['Best next test', 'the most useful for the time'],
  nozzleInward: ['From the nozzle inward', 'tool first, machine last'],
  takeOut: ['Take filters out', 'coarse to fine, run after each'],
  swap: ['Swap in new parts', 'and watch the light or the flow'],
};

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
