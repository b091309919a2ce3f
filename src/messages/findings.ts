import type { DuctLoad } from '@/core/measure/needs-of-use';
import type { TestFinding } from '@/core/status/test-findings';
import { show, showPercent, type UnitSystem, fixed } from '@/core/units';
import { type Statement, sayComparison } from './verdicts';
import { belowOrAbove, lessOrMore } from './format';

export const DUCT_WORDS: Record<DuctLoad, string> = {
  lightDry: 'light dry dust',
  woodChips: 'wood chips, average dust',
  heavyOrMoist: 'heavy or moist dust',
};

const WHEEL_RESERVE =
  'Flow is one part of that table only: it also needs the listed shroud, a filter of at least 99 %, a cyclone or filter cleaning and, by task and hours, a respirator. On a Y, each branch needs its own flow. 29 CFR 1926.1153 Table 1.';

const sayWheel = (f: Extract<TestFinding, { kind: 'wheel' }>, units: UnitSystem): Statement => {
  const need = `${show('flow', f.needM3s, units)} that a ${show('length', f.wheelM, units)} wheel needs`;
  const flow = show('flow', f.flowM3s, units);
  switch (f.decision) {
    case 'pass':
      return {
        tone: 'good',
        mark: 'Enough flow for the wheel',
        sentence: `${flow} at this wheel, above the ${need}.`,
        detail: WHEEL_RESERVE,
      };
    case 'fail':
      return {
        tone: 'stop',
        mark: 'Too little for the wheel',
        sentence: `${flow} at this wheel, below the ${need}.`,
        detail: WHEEL_RESERVE,
      };
    case 'cannotTell':
      return {
        tone: 'open',
        mark: 'Cannot tell',
        sentence: `${flow} at this wheel; the interval straddles the ${need}.`,
        detail: WHEEL_RESERVE,
      };
    case 'tooFew':
      return {
        tone: 'open',
        mark: 'No verdict',
        sentence: `${flow} so far; the ${need} is judged from three readings on.`,
        detail: WHEEL_RESERVE,
      };
  }
};

const sayDuct = (f: Extract<TestFinding, { kind: 'duct' }>, units: UnitSystem): Statement => {
  const range = `${show('velocity', f.lowMs, units)} to ${show('velocity', f.highMs, units)} for ${DUCT_WORDS[f.load]}`;
  const velocity = show('velocity', f.velocityMs, units);
  const detail = `Transport velocity ${range}. ACGIH Industrial Ventilation.`;
  switch (f.decision) {
    case 'pass':
      return {
        tone: 'good',
        mark: 'Fast enough',
        sentence: `${velocity} in the duct carries ${DUCT_WORDS[f.load]}.`,
        detail,
      };
    case 'fail':
      return {
        tone: 'stop',
        mark: 'Too slow',
        sentence: `${velocity} in the duct: ${DUCT_WORDS[f.load]} will settle in it.`,
        detail,
      };
    case 'cannotTell':
      return {
        tone: 'open',
        mark: 'Borderline',
        sentence: `${velocity} in the duct lies in the range where ${DUCT_WORDS[f.load]} may settle.`,
        detail,
      };
    case 'tooFew':
      return { tone: 'open', mark: 'No verdict', sentence: `${velocity} in the duct so far.`, detail };
  }
};

const goodTo = (f: Extract<TestFinding, { kind: 'settle' }>, units: UnitSystem): string => {
  if (f.how.by !== 'method') return '';
  return f.of === 'loss' ? showPercent(f.how.neededExpanded) : show('velocity', f.how.neededExpanded, units);
};

const saySettle = (f: Extract<TestFinding, { kind: 'settle' }>, units: UnitSystem): Statement =>
  f.how.by === 'repeats'
    ? {
        tone: 'open',
        mark: 'To be sure',
        sentence: `${f.how.more} more ${f.how.more === 1 ? 'reading' : 'readings'} should decide it, if they scatter like these.`,
        detail: 'Counted from the spread and the distance to the line.',
      }
    : {
        tone: 'open',
        mark: 'To be sure',
        sentence: 'More readings will not decide it: meter or rig is not accurate enough this close to the limit.',
        detail: `It needs ± ${goodTo(f, units)} at 95 %: use a better meter, or a traverse instead of one centre point.`,
      };

const USE_NOT_JUDGED: Record<
  Extract<TestFinding, { kind: 'useNotJudged' }>['because'],
  readonly [sentence: string, detail: string]
> = {
  branch: [
    'Read after the Y, this is the flow of all branches together: it does not show what this wheel gets.',
    'Measure at the tool end of this branch, the other one open.',
  ],
  hoseOff: [
    'Read at the bare inlet, without the hose: it does not show what reaches the tool.',
    'Measure at the tool end, through the hose that is used.',
  ],
  outlet: ['Read at the outlet, leaks included: it does not show what reaches the tool.', 'Measure at the tool end.'],
  biased: ['A maximum hold is the best moment, not the flow: no verdict from it.', 'Take settled readings.'],
};

/** A finding in words. */
export const sayFinding = (f: TestFinding, units: UnitSystem): Statement => {
  switch (f.kind) {
    case 'selector':
      return {
        tone: 'stop',
        mark: 'Hose selector',
        sentence: `The selector stands at ${show('length', f.mismatch.selectorM, units)}, the hose is ${show('length', f.mismatch.hoseM, units)}: the light would come on only at ${show('velocity', f.mismatch.warnsAtMs, units)}.`,
        detail: `It warns at ${show('flow', f.mismatch.warnFlowM3s, units)}. Set the selector to the hose. EN 60335-2-69 Annex AA.`,
      };
    case 'wheel':
      return sayWheel(f, units);
    case 'useNotJudged': {
      const [sentence, detail] = USE_NOT_JUDGED[f.because];
      return { tone: 'open', mark: f.of === 'wheel' ? 'Wheel not judged' : 'Duct not judged', sentence, detail };
    }
    case 'duct':
      return sayDuct(f, units);
    case 'voltage':
      return {
        tone: 'watch',
        mark: 'Line voltage',
        sentence: `${fixed(f.volts, 0)} V, ${showPercent(f.off)} ${belowOrAbove(-f.off)} nominal: that alone is about ${showPercent(f.flowShare)} ${lessOrMore(f.off)} flow.`,
        detail: 'An estimate (speed goes with the square root of the voltage). Measure again on a good supply.',
      };
    case 'density':
      return {
        tone: 'open',
        mark: 'Air density',
        sentence: `Air of ${show('density', f.nowKgM3, units)} today, ${show('density', f.thenKgM3, units)} at the baseline.`,
        detail: 'The actual volume flow is compared, because a fan moves a constant volume.',
      };
    case 'rig':
      return {
        tone: 'watch',
        mark: 'Different rig',
        sentence: 'The baseline was taken with another rig, or this one was moved since.',
        detail: 'The error of both rigs is in the interval.',
      };
    case 'settle':
      return saySettle(f, units);
    case 'previous': {
      const said = sayComparison(f.comparison, f.measurand);
      return { tone: 'open', mark: `Since ${f.day}`, sentence: said.sentence, detail: said.detail };
    }
  }
};
