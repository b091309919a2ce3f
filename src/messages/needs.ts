import { dueWord } from '@/core/interval/due-word';
import { isChangeUnknown } from '@/core/interval/stage-due-word';
import type { RuleState, StageDue, UnknownBecause } from '@/core/interval/due';
import type { Rule } from '@/core/interval/rules';
import type { ClassGap } from '@/core/machine/machine';
import type { Need } from '@/core/status/machine-status';
import { show, showPercent, type UnitSystem } from '@/core/units';
import { capital } from './words';
import type { Tone } from './verdicts';
import { days, howFar } from './format';

export interface NeedStatement {
  readonly tone: Tone;
  readonly mark: string;
  readonly sentence: string;
}

const WHY_AGAIN = {
  changed: 'changed since the last test',
  cannotTell: 'last test inconclusive',
  never: 'no test on record',
} as const;

const WITHDRAWN_MARK = {
  missing: 'Missing',
  foreign: 'Foreign',
  reversed: 'Reversed',
  untested: 'To test',
  failed: 'Failed',
  unproven: 'To prove',
} as const;
const WITHDRAWN_WORD = {
  missing: 'missing',
  foreign: 'not the tested part',
  reversed: 'in back to front',
  untested: 'opened: screening due',
  failed: 'failed its test',
  unproven: 'screened: penetration test due',
} as const;

/** Why a machine's class may not be claimed now, in a sentence. */
export const sayGap = (
  { stage, because }: Pick<ClassGap, 'stage' | 'because'>,
  machineClass: string | null,
): string => {
  const what = {
    missing: `The ${stage.name} is missing`,
    foreign: `The ${stage.name} is not the part this machine was tested with`,
    reversed: `The ${stage.name} is in back to front`,
    untested: `The seat of the ${stage.name} was opened and has not been screened`,
    failed: `The ${stage.name} failed its test`,
    unproven: `The ${stage.name} has been screened but not penetration tested`,
  }[because];
  const proven = machineClass === 'H' || machineClass === 'HEPA' ? 'screened and penetration tested' : 'screened';
  const until = {
    missing: `back in, ${proven}`,
    foreign: `replaced by the right one, ${proven}`,
    reversed: `turned round, ${proven}`,
    untested: proven,
    failed: `repaired, ${proven}`,
    unproven: 'penetration tested by a competent person',
  }[because];
  if (machineClass === null) return `${what}: do not use it in this dust until it is ${until}.`;
  return `${what}: do not use it as ${machineClass === 'HEPA' ? 'a' : 'an'} ${machineClass} machine until it is ${until}.`;
};

/** The one thing a machine needs next, short enough for its tag on the board. */
export const sayNeed = (need: Need, system: UnitSystem): NeedStatement => {
  switch (need.kind) {
    case 'refused':
      return { tone: 'stop', mark: 'Stop', sentence: `Has collected ${need.dust}` };
    case 'missingStage':
      return {
        tone: 'stop',
        mark: WITHDRAWN_MARK[need.because],
        sentence: `${capital(need.stageName)} ${WITHDRAWN_WORD[need.because]}`,
      };
    case 'belowClassLimit':
      return {
        tone: 'stop',
        mark: 'Below limit',
        sentence: `${show('velocity', need.velocityMs, system)} in the hose: too slow`,
      };
    case 'lowFlow':
      return {
        tone: need.act ? 'stop' : 'watch',
        mark: need.act ? 'Act' : 'Falling',
        sentence: `${need.suction ? 'Suction' : 'Flow'} ${showPercent(need.lossFraction)} below baseline`,
      };
    case 'moreFlow':
      return { tone: 'watch', mark: 'Look', sentence: `${showPercent(need.gainFraction)} above baseline: filter in?` };
    case 'measureAgain':
      return { tone: 'open', mark: 'Measure', sentence: `Measure: ${WHY_AGAIN[need.because]}` };
    case 'due': {
      const word = dueWord(need.daysLeft);
      if (word === 'overdue' && !need.changeRecorded)
        return {
          tone: 'watch',
          mark: 'Unknown',
          sentence: `${capital(need.stageName)}: last change not known. Enter its date, or change it now.`,
        };
      return {
        tone: word === 'overdue' ? 'stop' : 'watch',
        mark: word === 'overdue' ? 'Overdue' : 'Due',
        sentence: `${capital(need.stageName)} ${dueIn(need.daysLeft)}`,
      };
    }
    case 'baselineOnly':
      return { tone: 'good', mark: 'Baseline', sentence: 'Baseline taken. No later test yet.' };
    case 'nothing':
      return {
        tone: 'good',
        mark: 'Fine',
        sentence:
          need.stageName === null || need.daysLeft === null
            ? 'Fine'
            : `Fine; ${need.stageName} in ${howFar(need.daysLeft)}`,
      };
  }
};

/** When a part is due, in words; days left, null without a date. */
export const dueIn = (daysLeft: number | null): string => {
  switch (dueWord(daysLeft)) {
    case 'overdue':
      return `overdue by ${days(daysLeft ?? 0)}`;
    case 'today':
      return 'due today';
    case 'thisWeek':
    case 'later':
      return daysLeft === 1 ? 'due tomorrow' : `due in ${howFar(daysLeft ?? 0)}`;
    case 'undated':
      return 'no date yet';
  }
};

/** A rule as a technician would say it. */
export const sayRule = (rule: Rule): string => {
  switch (rule.kind) {
    case 'calendarDays':
      return `every ${days(rule.days)}`;
    case 'countOfChanges':
      return `every ${rule.count} changes of the ${rule.countedStageName}`;
    case 'runHours':
      return `every ${rule.hours} run hours`;
    case 'fill':
      return `at ${showPercent(rule.share)} full`;
    case 'flowLost':
      return `at ${showPercent(rule.share)} flow loss`;
    case 'gaugeZone':
      return `when the gauge is ${rule.zone}`;
    case 'hoseVelocity':
      return 'when hose velocity is below its class';
    case 'indicator':
      return 'when the light comes on';
    case 'examination':
      return `examination by a competent person every ${rule.months} months`;
    case 'sight':
      return `when seen: ${rule.what}`;
    case 'occurrence':
      return `after any ${rule.what}`;
    case 'together':
      return rule.how === 'onlyWith' ? `only with the ${rule.stageName}` : `only right after the ${rule.stageName}`;
  }
};

const BECAUSE: Record<UnknownBecause, string> = {
  noHours: 'no date: no run hours on record',
  noLook: 'no date: fill level not checked yet',
  byTest: 'no fixed date: a test or gauge decides, see the forecast',
  bySight: 'no date: decided by looking',
  withAnother: 'no date of its own',
};

/** The state of one rule today. */
export const sayRuleState = (state: RuleState): string => {
  const { rule } = state;
  const counted = rule.kind === 'countOfChanges' ? `, ${state.counted ?? 0} of ${rule.count} so far` : '';
  switch (state.dateIs) {
    case 'fixed':
      return `${sayRule(rule)}${counted}: ${rule.kind === 'countOfChanges' ? 'reached' : ''} ${state.dueOn ?? ''}`.replace(
        ':  ',
        ': ',
      );
    case 'expected':
      return `${sayRule(rule)}${counted}: expected ${state.dueOn ?? ''}`;
    case 'unknown':
      return `${sayRule(rule)}${counted}: ${state.because === null ? 'no date yet, too few changes on record' : BECAUSE[state.because]}`;
  }
};

/** Why a stage is due, with the binding rule named. */
export const sayDue = (due: StageDue): string => {
  if (due.daysLeft === null) return capital(sayRuleState(due.binding));
  if (isChangeUnknown(due))
    return `Last change not known: look at it, then enter the day of its change or change it. In use since ${due.changedOn}; ${sayRule(due.binding.rule)}`;
  const counted =
    due.changeRecorded || due.binding.rule.kind === 'examination'
      ? ''
      : ' (counted from the first use: no change is on record)';
  const stop =
    due.binding.rule.kind === 'examination' && dueWord(due.daysLeft) === 'overdue'
      ? '. Do not use the machine until it is examined'
      : '';
  return `${capital(dueIn(due.daysLeft))}: ${sayRule(due.binding.rule)}${counted}${stop}`;
};
