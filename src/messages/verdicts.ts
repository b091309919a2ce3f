import type { Comparison, Differs } from '@/core/measure/compare-tests';
import type { BaselineVerdict } from '@/core/measure/judge-baseline';
import type { ClassVerdict } from '@/core/measure/judge-class';
import type { Measurand } from '@/core/measure/methods';
import { show, showPercent, type UnitSystem } from '@/core/units';
import { againstBaseline, belowOrAbove, lossInterval, pValue, signedShare } from './format';

/** How a verdict is toned; the word beside it says the same without colour. */
export type Tone = 'good' | 'watch' | 'stop' | 'open';

export interface Statement {
  readonly tone: Tone;
  /** One word for the mark. */
  readonly mark: string;
  readonly sentence: string;
  readonly detail: string;
}

const NAME: Record<Measurand, string> = {
  flow: 'Flow',
  suction: 'Suction',
  stageDp: 'Pressure across the stage',
  mass: 'Weight',
  voltage: 'Line voltage',
  current: 'Current',
  supplyPressure: 'Supply pressure',
  speed: 'Brush speed',
  airPower: 'Air power',
  particles: 'Particles',
  word: 'Finding',
};

const PRESSING: Record<Tone, number> = { stop: 0, watch: 1, open: 2, good: 2 };

/** Stops first, then warnings, then the rest; equals keep their order. */
export const pressingFirst = (said: readonly Statement[]): readonly Statement[] =>
  [...said].sort((a, b) => PRESSING[a.tone] - PRESSING[b.tone]);

/** The verdict against the machine's own baseline as a sentence. */
export const sayBaseline = (v: BaselineVerdict, measurand: Measurand): Statement => {
  const name = NAME[measurand];
  switch (v.outcome) {
    case 'noBaseline':
      return {
        tone: 'open',
        mark: 'No baseline',
        sentence: `No baseline yet for ${name.toLowerCase()} by this method at this place.`,
        detail: 'When the machine is known to be in good order, mark the test as its baseline.',
      };
    case 'isBaseline':
      return { tone: 'good', mark: 'Baseline', sentence: 'This test is the baseline.', detail: '' };
    case 'notUsable':
      return {
        tone: 'open',
        mark: 'Not used',
        sentence: 'Does not count: a condition was not met.',
        detail: 'It stays on record. Meet the condition and measure again.',
      };
    case 'biased':
      return {
        tone: 'open',
        mark: 'Maximum hold',
        sentence: 'A maximum hold reads high and shows no spread: no verdict.',
        detail: 'Hold a settled mean instead, three times.',
      };
    case 'tooFew':
      return {
        tone: 'open',
        mark: 'No verdict',
        sentence: `A mean, no verdict: ${v.repeats} of ${v.needed} readings.`,
        detail: `So far ${showPercent(v.lossFraction)} ${belowOrAbove(v.lossFraction)} the baseline; too few readings to tell how much is noise.`,
      };
    case 'fine':
      return {
        tone: 'good',
        mark: 'Fine',
        sentence: `${name} OK, ${againstBaseline(v.lossFraction)} (warns at ${showPercent(v.warnsAt)}).`,
        detail: lossInterval(v),
      };
    case 'more':
      return {
        tone: 'watch',
        mark: 'High',
        sentence: `${name} is ${showPercent(v.lossFraction)} above baseline. Is every filter in and seated?`,
        detail: `A torn, missing or badly seated filter also flows well. ${lossInterval(v)}`,
      };
    case 'warn':
      return {
        tone: 'watch',
        mark: 'Falling',
        sentence: `${name} is ${showPercent(v.lossFraction)} below baseline: plan the change.`,
        detail: lossInterval(v),
      };
    case 'act':
      return {
        tone: 'stop',
        mark: 'Act',
        sentence: `${name} is ${showPercent(v.lossFraction)} below baseline: act now.`,
        detail: lossInterval(v),
      };
    case 'cannotTell':
      return {
        tone: 'open',
        mark: 'Cannot tell',
        sentence: `Cannot tell: ${showPercent(v.lossFraction)} ${belowOrAbove(v.lossFraction)} baseline, but the interval straddles the ${showPercent(v.straddles ?? 0)} line.`,
        detail: `${lossInterval(v)} Take more readings, or use a better meter.`,
      };
  }
};

const NOT_JUDGED: Record<Extract<ClassVerdict, { outcome: 'notJudged' }>['because'], string> = {
  noLimit: '',
  suction: '',
  hoseOff: 'Measured with the hose off: the velocity in the hose is not judged.',
  outlet: 'Measured at the outlet, leaks included: the hose is not judged.',
  noHose: 'No hose bore given: the velocity in it cannot be judged.',
  notUsable: '',
  biased: '',
};

/** The verdict on the air velocity in the fitted hose; null where there is nothing to say. */
export const sayHose = (v: ClassVerdict, system: UnitSystem): Statement | null => {
  if (v.outcome === 'notJudged') {
    const sentence = NOT_JUDGED[v.because];
    return sentence === ''
      ? null
      : { tone: 'open', mark: 'Not judged', sentence, detail: 'Measure at the hose end or the tool end.' };
  }
  const limit = show('velocity', v.limitMs, system);
  const velocity = show('velocity', v.velocityMs, system);
  switch (v.outcome) {
    case 'tooFew':
      return {
        tone: 'open',
        mark: 'No verdict',
        sentence: `${velocity} in the hose so far; at least ${limit} is needed.`,
        detail: 'Three readings or more for a verdict.',
      };
    case 'pass':
      return {
        tone: 'good',
        mark: 'Above limit',
        sentence: `${velocity} in the fitted hose, above the ${limit} of its class.`,
        detail: band(v.expandedMs, system),
      };
    case 'fail':
      return {
        tone: 'stop',
        mark: 'Below limit',
        sentence: `${velocity} in the fitted hose: below the ${limit} of its class.`,
        detail: band(v.expandedMs, system),
      };
    case 'cannotTell':
      return {
        tone: 'open',
        mark: 'Cannot tell',
        sentence: `Cannot tell: ${velocity} in the fitted hose, and the interval straddles the ${limit} of its class.`,
        detail: band(v.expandedMs, system),
      };
  }
};

const band = (expandedMs: number, system: UnitSystem): string =>
  `± ${show('velocity', expandedMs, system)} at 95 %. Limit: EN 60335-2-69 Annex AA.`;

export const DIFFERS_WORDS: Record<Differs, string> = {
  place: 'the place',
  method: 'the method',
  stage: 'the stage',
  instrument: 'the instrument',
  rig: 'the rig',
  hose: 'the hose',
  voltage: 'the line voltage',
  bagState: 'the state of bag and filters',
  maxHold: 'a maximum hold on one side',
};

/** Before and after in one plain sentence. */
export const sayComparison = (c: Comparison, measurand: Measurand): Statement => {
  const name = NAME[measurand];
  const differs = c.differs.map((d) => DIFFERS_WORDS[d]).join(', ');
  const step = c.displayLimited ? " Readings that are all the same: the display's step is the least doubt." : '';
  const caution = `${step}${c.differs.length > 0 ? ` Not the same in both: ${differs}.` : ''}`;
  const change = c.relative === null ? 'from nothing' : signedShare(c.relative);
  const by = c.relative === null ? change : `by ${change}`;
  switch (c.outcome) {
    case 'notComparable':
      return {
        tone: 'open',
        mark: 'Not comparable',
        sentence: `Before and after cannot be compared: ${differs} changed.`,
        detail: 'Measure again at the same place by the same method.',
      };
    case 'notUsable':
      return {
        tone: 'open',
        mark: 'Not used',
        sentence: 'One of the two tests does not count: a condition was not ticked.',
        detail: caution.trim(),
      };
    case 'tooFew':
      return {
        tone: 'open',
        mark: 'Cannot tell',
        sentence: `${name} changed ${by}; too few readings to tell how much is noise.`,
        detail: `Three readings or more on both sides.${caution}`,
      };
    case 'noRealDifference':
      return {
        tone: 'open',
        mark: 'No real difference',
        sentence: `${name} changed ${by}, which is within the noise.`,
        detail: p(c) + caution,
      };
    case 'more':
      return {
        tone: 'good',
        mark: 'Real gain',
        sentence: `${name} is up ${c.relative === null ? change : change.slice(1)}, and the gain is real.`,
        detail: p(c) + caution,
      };
    case 'less':
      return {
        tone: 'stop',
        mark: 'Real loss',
        sentence: `${name} is down ${change.slice(1)}, and the loss is real.`,
        detail: p(c) + caution,
      };
  }
};

const p = (c: Comparison): string => (c.p === null ? '' : `Welch's t: p ${pValue(c.p)}.`);
