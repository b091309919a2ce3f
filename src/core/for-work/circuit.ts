import type { RuleSet } from '../dust/dust';

/** A load on one circuit, from its plate; null where it was not read. */
export interface Load {
  readonly amps: number | null;
  readonly watts: number | null;
  /** From the plate; 1 where the plate gives none. */
  readonly powerFactor: number | null;
}

export interface CircuitQuestion {
  readonly ruleSet: RuleSet;
  /** At the socket with nothing running, V. */
  readonly supplyV: number;
  /** Rating of the breaker or fuse, A; null where it was not read. */
  readonly breakerA: number | null;
  readonly machine: Load;
  readonly tool: Load;
  /** Rating of the machine's own socket, W; null without one, or where it was not read. */
  readonly socketW: number | null;
  /** The tool is plugged into the machine's socket. */
  readonly throughMachine: boolean;
  /** Lead from the wall to the machine; null for none. */
  readonly lead: { readonly lengthM: number; readonly sectionMm2: number } | null;
  readonly hours: number | null;
  /** Continuous rating of the generator, VA; null on the mains. */
  readonly generatorVA: number | null;
}

export const CIRCUIT_CHECKS = [
  'machineShare',
  'toolShare',
  'continuous',
  'breaker',
  'socket',
  'generator',
  'drop',
] as const;
export interface CircuitCheck {
  readonly check: (typeof CIRCUIT_CHECKS)[number];
  readonly value: number;
  readonly limit: number;
  readonly holds: boolean;
}

export interface CircuitAnswer {
  /** A; null where neither amperes nor watts were read. */
  readonly machineA: number | null;
  readonly toolA: number | null;
  readonly togetherA: number | null;
  /** One of them was worked out from watts: a plate's amperes are truer. */
  readonly fromWatts: boolean;
  readonly checks: readonly CircuitCheck[];
  /** Lost in the lead, V; null without a lead or without amperes. */
  readonly dropV: number | null;
  readonly machineV: number;
}

/**
 * Resistivity of copper in normal service, ohm mm2/m: 1.25 times that at 20 degC. Source: IEC 60364-5-52:2009 Annex G,
 * from memory.
 */
export const COPPER_OHM_MM2_M = 0.0225;
/** Out and back. Source: IEC 60364-5-52:2009 Annex G, single-phase. */
const BOTH_WAYS = 2;
/** Source: NEC 210.23(A)(1) and 210.20(A), numbering by edition: a US rule. */
export const CIRCUIT_SHARE = 0.8;
/** From so many hours a load counts as continuous. Source: NEC article 100. */
export const CONTINUOUS_HOURS = 3;
/**
 * Share of the supply voltage that a lead may drop without a warning. Common practice after IEC 60364-5-52 Annex G (5
 * %).
 */
const MOST_DROP = 0.05;
/** Starting load of a motor, times its running VA. Common practice, no published source; a soft start takes less. */
export const START_FACTOR = 3;

const above0 = (value: number): boolean => value > 0;

/** Amperes of a plate: its own, or watts over volts and power factor; null where neither was read. */
const ampsOf = ({ amps, watts, powerFactor }: Load, volts: number): number | null =>
  amps !== null ? amps : watts === null ? null : watts / (volts * (powerFactor ?? 1));

const sum = (a: number | null, b: number | null): number | null => (a === null ? b : b === null ? a : a + b);

const check = (name: CircuitCheck['check'], value: number | null, limit: number | null): readonly CircuitCheck[] =>
  value === null || limit === null ? [] : [{ check: name, value, limit, holds: value <= limit * (1 + 1e-9) }];

/**
 * Voltage lost in a lead, V: u = 2 rho L I / S, the resistance of copper in normal service, power factor 1.
 * Source: IEC 60364-5-52:2009 Annex G, from memory. Valid: length 0 and more m, section above 0 mm2, current 0 and more A.
 * @example leadDropV({ lengthM: 25, sectionMm2: 1.5, amps: 10 }) // 7.5 V
 */
export const leadDropV = ({
  lengthM,
  sectionMm2,
  amps,
}: {
  readonly lengthM: number;
  readonly sectionMm2: number;
  readonly amps: number;
}): number => {
  if (!(lengthM >= 0 && sectionMm2 > 0 && amps >= 0))
    throw new RangeError(`lead of ${lengthM} m, ${sectionMm2} mm2 with ${amps} A`);
  return (BOTH_WAYS * COPPER_OHM_MM2_M * lengthM * amps) / sectionMm2;
};

/**
 * Whether tool and machine fit one circuit, and what reaches the machine. The plate, local code and a licensed
 * electrician decide. Amperes count at the plate's voltage. Source: NEC 210.23(A)(1) and 210.20(A)
 * under US rules; else the breaker itself; IEC 60364-5-52 Annex G for the lead. Valid: supply above 0 V; unread values
 * are left out of the checks. Throws RangeError for a supply that is not above 0.
 */
export const judgeCircuit = (q: CircuitQuestion): CircuitAnswer => {
  if (!above0(q.supplyV)) throw new RangeError(`supply ${q.supplyV} V is not above 0`);
  const [machineA, toolA] = [ampsOf(q.machine, q.supplyV), ampsOf(q.tool, q.supplyV)];
  const togetherA = sum(machineA, toolA);
  const us = q.ruleSet === 'us';
  const share = q.breakerA === null ? null : CIRCUIT_SHARE * q.breakerA;
  const continuous = q.hours !== null && q.hours >= CONTINUOUS_HOURS;
  // The lead carries the tool too where it is plugged into the machine.
  const inLead = q.throughMachine ? togetherA : machineA;
  const dropV = q.lead && inLead !== null ? leadDropV({ ...q.lead, amps: inLead }) : null;
  const largest = machineA === null ? toolA : toolA === null ? machineA : Math.max(machineA, toolA);
  const starting =
    togetherA === null || largest === null ? null : (togetherA + (START_FACTOR - 1) * largest) * q.supplyV;
  return {
    machineA,
    toolA,
    togetherA,
    fromWatts: [q.machine, q.tool].some((l) => l.amps === null && l.watts !== null),
    checks: [
      ...(us ? check('machineShare', machineA, share) : []),
      ...(us ? check('toolShare', toolA, share) : []),
      ...(us && continuous ? check('continuous', togetherA, share) : []),
      ...check('breaker', togetherA, q.breakerA),
      ...(q.throughMachine
        ? check('socket', q.tool.watts ?? (toolA === null ? null : toolA * q.supplyV), q.socketW)
        : []),
      ...check('generator', starting, q.generatorVA),
      ...check('drop', dropV, MOST_DROP * q.supplyV),
    ],
    dropV,
    machineV: Math.max(0, q.supplyV - (dropV ?? 0)),
  };
};
