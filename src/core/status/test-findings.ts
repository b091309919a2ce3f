import type { MeasuredMachine } from '../machine/machine';
import { MACHINE_KINDS } from '../machine/kinds';
import { commonOf, type ReducedTest } from '../measure/reduce-test';
import { compareTests, type Comparison } from '../measure/compare-tests';
import type { Decision } from '../measure/decide';
import type { BaselineVerdict } from '../measure/judge-baseline';
import type { ClassVerdict } from '../measure/judge-class';
import {
  DUCT_VELOCITY,
  type DuctLoad,
  judgeBranches,
  judgeDuct,
  selectorMismatch,
  type SelectorMismatch,
  voltageNote,
} from '../measure/needs-of-use';
import { howToSettle, type HowToSettle } from '../measure/settle';
import type { TestUse } from '../record/records';

/** Further findings of a test, beside its verdicts. */
export type TestFinding =
  | { readonly kind: 'selector'; readonly mismatch: SelectorMismatch }
  | {
      readonly kind: 'wheel';
      readonly wheelM: number;
      readonly needM3s: number;
      readonly flowM3s: number;
      readonly decision: Decision | 'tooFew';
    }
  /** What this reading cannot say of a wheel or a duct, and why. */
  | {
      readonly kind: 'useNotJudged';
      readonly of: 'wheel' | 'duct';
      readonly because: 'branch' | 'hoseOff' | 'outlet' | 'biased';
    }
  | {
      readonly kind: 'duct';
      readonly load: DuctLoad;
      readonly lowMs: number;
      readonly highMs: number;
      readonly velocityMs: number;
      readonly decision: Decision | 'tooFew';
    }
  | { readonly kind: 'voltage'; readonly volts: number; readonly off: number; readonly flowShare: number }
  | { readonly kind: 'density'; readonly nowKgM3: number; readonly thenKgM3: number }
  | { readonly kind: 'rig' }
  | { readonly kind: 'settle'; readonly how: HowToSettle; readonly of: 'hoseVelocity' | 'loss' }
  | {
      readonly kind: 'previous';
      readonly comparison: Comparison;
      readonly measurand: ReducedTest['measurand'];
      readonly day: string;
    };

export interface TestFindingsInput {
  readonly now: ReducedTest;
  readonly machine: MeasuredMachine;
  readonly use: TestUse;
  readonly baseline: ReducedTest | null;
  readonly baselineVerdict: BaselineVerdict;
  readonly hose: ClassVerdict;
  readonly previous: { readonly reduced: ReducedTest; readonly day: string } | null;
}

/** A larger difference of density is reported. A modelling choice. */
const DENSITY_SHARE = 0.02;

const ofMachine = ({ now, machine }: TestFindingsInput): readonly TestFinding[] => {
  const { hoseBoreM } = now;
  const limited = MACHINE_KINDS[machine.kind].hoseVelocityLimit;
  const mismatch =
    limited && hoseBoreM !== null && machine.hoseSelectorM !== null
      ? selectorMismatch({ hoseM: hoseBoreM, selectorM: machine.hoseSelectorM })
      : null;
  const volts = now.volts === null ? null : voltageNote({ volts: now.volts, nominalVolts: machine.nominalVolts });
  return [
    ...(mismatch ? [{ kind: 'selector', mismatch } as const] : []),
    ...(volts && now.volts !== null ? [{ kind: 'voltage', volts: now.volts, ...volts } as const] : []),
  ];
};

type NotJudged = Extract<TestFinding, { kind: 'useNotJudged' }>['because'];

/**
 * The reason a reading does not show the flow at the tool: without the hose, behind the leaks, of all branches at once,
 * or at its best moment.
 */
const useBlocked = ({ now, machine }: TestFindingsInput, of: 'wheel' | 'duct'): NotJudged | null => {
  if (now.place === 'inlet') return 'hoseOff';
  if (now.place === 'outlet') return 'outlet';
  if (of === 'wheel' && now.place !== 'toolEnd' && machine.stages.some((s) => s.kind === 'wye')) return 'branch';
  return now.biased ? 'biased' : null;
};

const ofWheel = (input: TestFindingsInput, wheelM: number): TestFinding => {
  const because = useBlocked(input, 'wheel');
  if (because) return { kind: 'useNotJudged', of: 'wheel', because };
  const { mean: flowM3s, expanded } = input.now.repeats;
  const [branch] = judgeBranches([{ wheelM, flowM3s, expandedM3s: expanded ?? 0 }]);
  return {
    kind: 'wheel',
    wheelM,
    flowM3s,
    needM3s: branch?.needM3s ?? 0,
    decision: expanded === null || !branch ? 'tooFew' : branch.decision,
  };
};

const ofDuct = (input: TestFindingsInput, load: DuctLoad): readonly TestFinding[] => {
  const because = useBlocked(input, 'duct');
  if (because) return [{ kind: 'useNotJudged', of: 'duct', because }];
  const { hoseVelocityMs: velocityMs, hoseVelocityExpandedMs: expandedMs } = input.now;
  if (velocityMs === null) return [];
  return [
    {
      kind: 'duct',
      load,
      ...DUCT_VELOCITY[load],
      velocityMs,
      decision: expandedMs === null ? 'tooFew' : judgeDuct({ load, velocityMs, expandedMs }),
    },
  ];
};

const ofUse = (input: TestFindingsInput): readonly TestFinding[] => {
  const { now, use } = input;
  if (now.measurand !== 'flow' || !now.usable) return [];
  return [
    ...(use.wheelM === null ? [] : [ofWheel(input, use.wheelM)]),
    ...(use.ductLoad === null ? [] : ofDuct(input, use.ductLoad)),
  ];
};

const ofBaseline = ({ now, baseline }: TestFindingsInput): readonly TestFinding[] => {
  if (!baseline || now.measurand !== 'flow') return [];
  const [nowKgM3, thenKgM3] = [now.densityKgM3, baseline.densityKgM3];
  return [
    ...(Math.abs(nowKgM3 / thenKgM3 - 1) > DENSITY_SHARE ? [{ kind: 'density', nowKgM3, thenKgM3 } as const] : []),
    ...(commonOf(now, baseline).rig ? [] : [{ kind: 'rig' } as const]),
  ];
};

/** Ways to settle the verdict that could not tell: the class limit first, because work depends on it. */
const ofDoubt = ({ now, baseline, baselineVerdict, hose }: TestFindingsInput): readonly TestFinding[] => {
  const { deviation, n, instrumentUncertainty, rigUncertainty, mean } = now.repeats;
  if (deviation === null) return [];
  if (hose.outcome === 'cannotTell') {
    const perFlow = hose.velocityMs / mean;
    const fixed = Math.hypot(instrumentUncertainty ?? 0, rigUncertainty) * perFlow;
    const how = howToSettle({
      deviation: deviation * perFlow,
      fixed,
      n,
      distance: Math.abs(hose.velocityMs - hose.limitMs),
    });
    return [{ kind: 'settle', how, of: 'hoseVelocity' }];
  }
  if (baselineVerdict.outcome !== 'cannotTell' || !baseline || baselineVerdict.straddles === null) return [];
  const b = baseline.repeats;
  const common = commonOf(now, baseline);
  const own =
    Math.hypot(common.instrument ? 0 : (instrumentUncertainty ?? 0), common.rig ? 0 : rigUncertainty) / b.mean;
  const theirs =
    (mean / b.mean ** 2) *
    Math.hypot(
      b.repeatUncertainty ?? 0,
      common.instrument ? 0 : (b.instrumentUncertainty ?? 0),
      common.rig ? 0 : b.rigUncertainty,
    );
  const distance = Math.abs(baselineVerdict.lossFraction - baselineVerdict.straddles);
  return [
    {
      kind: 'settle',
      of: 'loss',
      how: howToSettle({ deviation: deviation / b.mean, fixed: Math.hypot(own, theirs), n, distance }),
    },
  ];
};

const ofPrevious = ({ now, previous }: TestFindingsInput): readonly TestFinding[] => {
  if (!previous) return [];
  const comparison = compareTests({ before: previous.reduced, after: now });
  return comparison.outcome === 'notComparable' || comparison.outcome === 'notUsable'
    ? []
    : [{ kind: 'previous', comparison, measurand: now.measurand, day: previous.day }];
};

/** Everything else there is to say of a series test, most pressing first. Source: as each judgement names it. */
export const testFindingsOf = (input: TestFindingsInput): readonly TestFinding[] => [
  ...ofMachine(input),
  ...ofUse(input),
  ...ofDoubt(input),
  ...ofBaseline(input),
  ...ofPrevious(input),
];
