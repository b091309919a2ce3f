import type { Constant } from '../constants/constant';
import { CLASS_HOSE_VELOCITY } from '../constants/limits';
import { fromSi, toSi } from '../units';
import { boreAreaM2 } from './bore-flow';
import { type Decision, decideAtLeast } from './decide';

export const FLOW_PER_WHEEL_INCH: Constant = {
  value: 25,
  unit: 'cfm/in',
  source: '29 CFR 1926.1153 Table 1: hand grinders on masonry, 25 cfm per inch of wheel diameter',
};

/**
 * Flow in m3/s that the task table wants for a hand grinder's wheel of a diameter in m.
 * Source: 29 CFR 1926.1153 Table 1. Valid: above 0; throws RangeError otherwise. One of the table's conditions only.
 * @example wheelNeedM3s(0.1143) // 112.5 cfm = 0.05309 m3/s
 */
export const wheelNeedM3s = (wheelM: number): number => {
  if (!(wheelM > 0)) throw new RangeError(`wheel ${wheelM} m is not above 0`);
  return toSi('flow', FLOW_PER_WHEEL_INCH.value * fromSi('length', wheelM, 'in'), 'cfm');
};

export interface BranchFlow {
  readonly wheelM: number;
  readonly flowM3s: number;
  readonly expandedM3s: number;
}

/** Each branch against its own wheel: on a Y a sum proves nothing. Source: 29 CFR 1926.1153; guarded, JCGM 106. */
export const judgeBranches = (
  branches: readonly BranchFlow[],
): readonly { readonly needM3s: number; readonly decision: Decision }[] =>
  branches.map(({ wheelM, flowM3s, expandedM3s }) => {
    const needM3s = wheelNeedM3s(wheelM);
    return { needM3s, decision: decideAtLeast({ value: flowM3s, expanded: expandedM3s, limit: needM3s }) };
  });

export const DUCT_LOADS = ['lightDry', 'woodChips', 'heavyOrMoist'] as const;
export type DuctLoad = (typeof DUCT_LOADS)[number];

/** Least transport velocities, m/s. Source: ACGIH Industrial Ventilation: 2500-3000, 3500-4000, 4000-4500 fpm and more. */
export const DUCT_VELOCITY: Record<DuctLoad, { readonly lowMs: number; readonly highMs: number }> = {
  lightDry: { lowMs: 12.7, highMs: 15 },
  woodChips: { lowMs: 18, highMs: 20 },
  heavyOrMoist: { lowMs: 20, highMs: 23 },
};

/**
 * Whether a duct carries its dust: pass above the high end of the range, fail below its low end, otherwise undecided.
 * Source: ACGIH Industrial Ventilation, transport velocities; guarded acceptance JCGM 106.
 */
export const judgeDuct = (input: {
  readonly load: DuctLoad;
  readonly velocityMs: number;
  readonly expandedMs: number;
}): Decision => {
  const { lowMs, highMs } = DUCT_VELOCITY[input.load];
  const against = (limit: number) => decideAtLeast({ value: input.velocityMs, expanded: input.expandedMs, limit });
  if (against(highMs) === 'pass') return 'pass';
  return against(lowMs) === 'fail' ? 'fail' : 'cannotTell';
};

export interface SelectorMismatch {
  readonly hoseM: number;
  readonly selectorM: number;
  /** Air velocity in the fitted hose at which the machine really warns. */
  readonly warnsAtMs: number;
  readonly warnFlowM3s: number;
}

/** Diameters nearer than this are one setting: hoses are sold by nominal size. A modelling choice. */
const SAME_SIZE = 0.04;

/**
 * A hose selector that does not match its hose: the machine warns at 20 m/s of the hose it believes in. Null when it
 * matches. Source: EN 60335-2-69 Annex AA and continuity: 36 mm on the 27 mm setting warns at 11.3 m/s.
 */
export const selectorMismatch = (input: {
  readonly hoseM: number;
  readonly selectorM: number;
}): SelectorMismatch | null => {
  const { hoseM, selectorM } = input;
  if (Math.abs(hoseM / selectorM - 1) <= SAME_SIZE) return null;
  const warnFlowM3s = CLASS_HOSE_VELOCITY.value * boreAreaM2(selectorM);
  return { hoseM, selectorM, warnFlowM3s, warnsAtMs: warnFlowM3s / boreAreaM2(hoseM) };
};

/** Deviation from the nominal voltage that is reported, share. Choice: Moorwind default, a modelling choice. */
export const VOLTAGE_SHARE = 0.02;

/**
 * The share of the nominal voltage a supply is off, and the flow to be expected of it; null within 2 %.
 * Source: fan laws, Q ~ N; N ~ sqrt V of a series motor on a fan load is a modelling choice: prefer to measure again.
 */
export const voltageNote = (input: {
  readonly volts: number;
  readonly nominalVolts: number;
}): { readonly off: number; readonly flowShare: number } | null => {
  const off = input.volts / input.nominalVolts - 1;
  return Math.abs(off) > VOLTAGE_SHARE ? { off, flowShare: Math.sqrt(input.volts / input.nominalVolts) - 1 } : null;
};
