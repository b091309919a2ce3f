import { toDigits } from '@/core/units';
import type { MeterLine } from '@/contracts/meter-line';

/** The stand-in meter: approaches a settled value, in a unit, with noise and dropped readings. */
export interface StandIn {
  readonly quantity: MeterLine['quantity'];
  readonly unit: string;
  readonly target: number;
  /** Relative noise of one sample. */
  readonly noise: number;
}

/** Seconds in which the shown value covers 63 % of the way: a vane and its display. */
const SETTLING_S = 2.2;
const DROP_CHANCE = 0.02;

/** One line of the stand-in, some seconds after its start. `uniform` gives numbers from 0 to 1. */
export const standInLine = (
  meter: StandIn,
  input: { readonly seconds: number; readonly t: string; readonly uniform: () => number },
): MeterLine => {
  const { seconds, t, uniform } = input;
  const base = { t, quantity: meter.quantity, unit: meter.unit };
  if (uniform() < DROP_CHANCE) return { ...base, value: null };
  const normal = Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform());
  const settled = meter.target * (1 - Math.exp(-seconds / SETTLING_S));
  return { ...base, value: toDigits(settled * (1 + meter.noise * normal), 5) };
};
