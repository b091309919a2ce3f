import type { Machine } from '../machine/machine';
import { MACHINE_KINDS } from '../machine/kinds';
import { commonOf, type ReducedTest } from '../measure/reduce-test';
import { compareTests, type Comparison } from '../measure/compare-tests';
import type { Decision } from '../measure/decide';
import type { BaselineVerdict } from '../measure/judge-baseline';
import type { ClassVerdict } from '../measure/judge-class';
import { DUCT_VELOCITY, type DuctLoad, judgeBranches, judgeDuct, selectorMismatch, type SelectorMismatch, voltageNote } from '../measure/needs-of-use';
import { howToSettle, type HowToSettle } from '../measure/settle';
import type { TestUse } from '../record/records';

/** What else there is to say of a test, beside its verdicts. */
export type Finding =
  | { readonly kind: 'selector'; readonly mismatch: SelectorMismatch }
  | { readonly kind: 'wheel'; readonly wheelM: number; readonly needM3s: number; readonly flowM3s: number; readonly decision: Decision | 'tooFew' }
  | { readonly kind: 'duct'; readonly load: DuctLoad; readonly lowMs: number; readonly highMs: number; readonly velocityMs: number; readonly decision: Decision | 'tooFew' }
  | { readonly kind: 'voltage'; readonly volts: number; readonly off: number; readonly flowShare: number }
  | { readonly kind: 'density'; readonly nowKgM3: number; readonly thenKgM3: number }
  | { readonly kind: 'rig' }
  | { readonly kind: 'settle'; readonly how: HowToSettle; readonly of: 'hoseVelocity' | 'loss' }
  | { readonly kind: 'previous'; readonly comparison: Comparison; readonly measurand: ReducedTest['measurand']; readonly day: string };

export interface FindingsInput {
  readonly now: ReducedTest;
  readonly machine: Machine;
  readonly use: TestUse;
  readonly baseline: ReducedTest | null;
  readonly baselineVerdict: BaselineVerdict;
  readonly hose: ClassVerdict;
  readonly previous: { readonly reduced: ReducedTest; readonly day: string } | null;
}

/** Densities further apart than this are said. A modelling choice. */
const DENSITY_SHARE = 0.02;

const ofMachine = ({ now, machine }: FindingsInput): readonly Finding[] => {
  const { hoseBoreM } = now;
  const limited = MACHINE_KINDS[machine.kind].hoseVelocityLimit;
  const mismatch = limited && hoseBoreM !== null && machine.hoseSelectorM !== null ? selectorMismatch({ hoseM: hoseBoreM, selectorM: machine.hoseSelectorM }) : null;
  const volts = now.volts === null ? null : voltageNote({ volts: now.volts, nominalVolts: machine.nominalVolts });
  return [
    ...(mismatch ? [{ kind: 'selector', mismatch } as const] : []),
    ...(volts && now.volts !== null ? [{ kind: 'voltage', volts: now.volts, ...volts } as const] : []),
  ];
};

const ofUse = ({ now, use }: FindingsInput): readonly Finding[] => {
  if (now.measurand !== 'flow' || !now.usable) return [];
  const findings: Finding[] = [];
  const { mean: flowM3s, expanded } = now.repeats;
  if (use.wheelM !== null) {
    const [branch] = judgeBranches([{ wheelM: use.wheelM, flowM3s, expandedM3s: expanded ?? 0 }]);
    if (branch) findings.push({ kind: 'wheel', wheelM: use.wheelM, flowM3s, needM3s: branch.needM3s, decision: expanded === null ? 'tooFew' : branch.decision });
  }
  if (use.ductLoad !== null && now.hoseVelocityMs !== null) {
    const velocityMs = now.hoseVelocityMs;
    const decision = now.hoseVelocityExpandedMs === null ? 'tooFew' : judgeDuct({ load: use.ductLoad, velocityMs, expandedMs: now.hoseVelocityExpandedMs });
    findings.push({ kind: 'duct', load: use.ductLoad, ...DUCT_VELOCITY[use.ductLoad], velocityMs, decision });
  }
  return findings;
};

const ofBaseline = ({ now, baseline }: FindingsInput): readonly Finding[] => {
  if (!baseline || now.measurand !== 'flow') return [];
  const [nowKgM3, thenKgM3] = [now.densityKgM3, baseline.densityKgM3];
  return [
    ...(Math.abs(nowKgM3 / thenKgM3 - 1) > DENSITY_SHARE ? [{ kind: 'density', nowKgM3, thenKgM3 } as const] : []),
    ...(commonOf(now, baseline).rig ? [] : [{ kind: 'rig' } as const]),
  ];
};

/** How to settle whichever verdict could not tell: the class limit first, since work hangs on it. */
const ofDoubt = ({ now, baseline, baselineVerdict, hose }: FindingsInput): readonly Finding[] => {
  const { deviation, n, instrumentUncertainty, rigUncertainty, mean } = now.repeats;
  if (deviation === null) return [];
  if (hose.outcome === 'cannotTell') {
    const perFlow = hose.velocityMs / mean;
    const fixed = Math.hypot(instrumentUncertainty ?? 0, rigUncertainty) * perFlow;
    const how = howToSettle({ deviation: deviation * perFlow, fixed, n, distance: Math.abs(hose.velocityMs - hose.limitMs) });
    return [{ kind: 'settle', how, of: 'hoseVelocity' }];
  }
  if (baselineVerdict.outcome !== 'cannotTell' || !baseline || baselineVerdict.straddles === null) return [];
  const b = baseline.repeats;
  const common = commonOf(now, baseline);
  const own = Math.hypot(common.instrument ? 0 : (instrumentUncertainty ?? 0), common.rig ? 0 : rigUncertainty) / b.mean;
  const theirs = (mean / b.mean ** 2) * Math.hypot(b.repeatUncertainty ?? 0, common.instrument ? 0 : (b.instrumentUncertainty ?? 0), common.rig ? 0 : b.rigUncertainty);
  const distance = Math.abs(baselineVerdict.lossFraction - baselineVerdict.straddles);
  return [{ kind: 'settle', of: 'loss', how: howToSettle({ deviation: deviation / b.mean, fixed: Math.hypot(own, theirs), n, distance }) }];
};

const ofPrevious = ({ now, previous }: FindingsInput): readonly Finding[] => {
  if (!previous) return [];
  const comparison = compareTests({ before: previous.reduced, after: now });
  return comparison.outcome === 'notComparable' || comparison.outcome === 'notUsable'
    ? []
    : [{ kind: 'previous', comparison, measurand: now.measurand, day: previous.day }];
};

/** Everything else there is to say of a series test, most pressing first. Source: as each judgement names it. */
export const findingsOf = (input: FindingsInput): readonly Finding[] => [
  ...ofMachine(input),
  ...ofUse(input),
  ...ofDoubt(input),
  ...ofBaseline(input),
  ...ofPrevious(input),
];
