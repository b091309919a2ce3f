import type { DuctLoad } from '@/core/measure/needs-of-use';
import type { Finding } from '@/core/status/findings';
import { show, showPercent, type UnitSystem } from '@/core/units';
import { type Said, sayComparison } from './verdicts';

export const DUCT_WORDS: Record<DuctLoad, string> = {
  lightDry: 'light dry dust',
  woodChips: 'wood chips, average dust',
  heavyOrMoist: 'heavy or moist dust',
};

const WHEEL_RESERVE =
  'Flow is one part of that table only: it also wants the listed shroud, a filter of at least 99 %, a cyclonic pre-separator or a filter-cleaning mechanism, and by task and hours a respirator. On a Y, each branch needs its own flow. 29 CFR 1926.1153 Table 1.';

const sayWheel = (f: Extract<Finding, { kind: 'wheel' }>, units: UnitSystem): Said => {
  const need = `${show('flow', f.needM3s, units)} that a ${show('length', f.wheelM, units)} wheel wants`;
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

const sayDuct = (f: Extract<Finding, { kind: 'duct' }>, units: UnitSystem): Said => {
  const range = `${show('velocity', f.lowMs, units)} to ${show('velocity', f.highMs, units)} for ${DUCT_WORDS[f.load]}`;
  const velocity = show('velocity', f.velocityMs, units);
  const detail = `Transport velocity ${range}. ACGIH Industrial Ventilation.`;
  switch (f.decision) {
    case 'pass':
      return {
        tone: 'good',
        mark: 'It carries',
        sentence: `${velocity} in the duct carries ${DUCT_WORDS[f.load]}.`,
        detail,
      };
    case 'fail':
      return {
        tone: 'stop',
        mark: 'It settles',
        sentence: `${velocity} in the duct: ${DUCT_WORDS[f.load]} will settle in it.`,
        detail,
      };
    case 'cannotTell':
      return {
        tone: 'open',
        mark: 'In the range',
        sentence: `${velocity} in the duct lies in the range where ${DUCT_WORDS[f.load]} may settle.`,
        detail,
      };
    case 'tooFew':
      return { tone: 'open', mark: 'No verdict', sentence: `${velocity} in the duct so far.`, detail };
  }
};

const goodTo = (f: Extract<Finding, { kind: 'settle' }>, units: UnitSystem): string => {
  if (f.how.by !== 'method') return '';
  return f.of === 'loss' ? showPercent(f.how.neededExpanded) : show('velocity', f.how.neededExpanded, units);
};

const saySettle = (f: Extract<Finding, { kind: 'settle' }>, units: UnitSystem): Said =>
  f.how.by === 'repeats'
    ? {
        tone: 'open',
        mark: 'To settle it',
        sentence: `${f.how.more} more ${f.how.more === 1 ? 'reading' : 'readings'} would settle it, if they spread like these.`,
        detail: 'Counted from the spread and the distance to the line.',
      }
    : {
        tone: 'open',
        mark: 'To settle it',
        sentence: 'More readings will not settle it: the meter or the rig is not good enough so near the line.',
        detail: `It takes a method good to ± ${goodTo(f, units)} at 95 %: a meter with a smaller error, or a traverse for a centre point.`,
      };

const USE_NOT_JUDGED: Record<
  Extract<Finding, { kind: 'useNotJudged' }>['because'],
  readonly [sentence: string, detail: string]
> = {
  branch: [
    'Read behind the Y it is the flow of all branches together: it says nothing of this wheel.',
    'Measure at the tool end of this branch, the other one open.',
  ],
  hoseOff: [
    'Read at the bare inlet it lacks the hose: it says nothing of what reaches the tool.',
    'Measure at the tool end, through the hose that is used.',
  ],
  outlet: [
    'Read at the outlet it holds every leak: it says nothing of what reaches the tool.',
    'Measure at the tool end.',
  ],
  biased: [
    'A maximum-hold reading is the best moment, not the flow: no verdict rests on it.',
    'Take settled readings.',
  ],
};

/** A finding in words. */
export const sayFinding = (f: Finding, units: UnitSystem): Said => {
  switch (f.kind) {
    case 'selector':
      return {
        tone: 'stop',
        mark: 'Hose selector',
        sentence: `The selector stands at ${show('length', f.mismatch.selectorM, units)}, the hose is ${show('length', f.mismatch.hoseM, units)}: the warning would come only at ${show('velocity', f.mismatch.warnsAtMs, units)}.`,
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
        sentence: `${f.volts.toFixed(0)} V, ${showPercent(f.off)} ${f.off < 0 ? 'below' : 'above'} nominal: of itself that is about ${showPercent(f.flowShare)} ${f.off < 0 ? 'less' : 'more'} flow.`,
        detail: 'An estimate (speed with the root of the voltage): better measure again on a good supply.',
      };
    case 'density':
      return {
        tone: 'open',
        mark: 'Other air',
        sentence: `Air of ${show('density', f.nowKgM3, units)} today, ${show('density', f.thenKgM3, units)} at the baseline.`,
        detail: 'The actual volume flow is compared, because a fan moves a constant volume.',
      };
    case 'rig':
      return {
        tone: 'watch',
        mark: 'Another rig',
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
