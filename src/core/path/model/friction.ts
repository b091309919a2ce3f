import { LAMINAR_LIMIT, TURBULENT_FROM } from '../../constants/path';

const LN10 = Math.LN10;
const LAMINAR = LAMINAR_LIMIT.value;
const TURBULENT = TURBULENT_FROM.value;

/** 1/sqrt f by Newton on Colebrook-White from Haaland's start, or from a near one: a few steps bring it to working precision. */
const inverseRoot = (reynolds: number, roughTerm: number, near: number): number => {
  let x = near > 0 ? near : -1.8 * Math.log10(roughTerm ** 1.11 + 6.9 / reynolds);
  for (let i = 0; i < 6; i += 1) {
    const inside = roughTerm + (2.51 * x) / reynolds;
    const step = (x + 2 * Math.log10(inside)) / (1 + (2 * 2.51) / (LN10 * reynolds * inside));
    x -= step;
    // Newton squares its error: after a step this small the next would change nothing.
    if (Math.abs(step) < 1e-7 * x) break;
  }
  return x;
};

/** f Re^2 and its slope in Re: what the pressure drop is proportional to, so that zero flow needs no special case. */
export interface FrictionGroup {
  value: number;
  slope: number;
  /** 1/sqrt f of the last turbulent answer, where the next search starts; 0 before the first. */
  root: number;
}

const turbulent = (reynolds: number, roughTerm: number, out: FrictionGroup): void => {
  const x = inverseRoot(reynolds, roughTerm, out.root);
  out.root = x;
  const inside = roughTerm + (2.51 * x) / reynolds;
  const k = 2 / LN10 / inside;
  // From Colebrook-White differentiated: dx/dRe.
  const dx = (k * 2.51 * x) / reynolds ** 2 / (1 + (k * 2.51) / reynolds);
  out.value = (reynolds / x) ** 2;
  out.slope = (2 * reynolds) / x ** 2 - (2 * reynolds ** 2 * dx) / x ** 3;
};

const laminarEnd = 64 * LAMINAR;

/**
 * Writes f Re^2 and its slope for a Reynolds number of 0 or more: 64/Re to 2300, Colebrook-White from 4000, and a
 * straight line in f Re^2 between, so that the drop keeps rising. `roughTerm` is the relative roughness over 3.7.
 * Source: Colebrook 1939; Haaland 1983 for the start. Valid: relative roughness 0 to 0.1.
 */
export const frictionGroup = (reynolds: number, roughTerm: number, out: FrictionGroup): void => {
  if (reynolds <= LAMINAR) {
    out.value = 64 * reynolds;
    out.slope = 64;
    return;
  }
  if (reynolds >= TURBULENT) {
    turbulent(reynolds, roughTerm, out);
    return;
  }
  turbulent(TURBULENT, roughTerm, out);
  out.slope = (out.value - laminarEnd) / (TURBULENT - LAMINAR);
  out.value = laminarEnd + out.slope * (reynolds - LAMINAR);
};

/**
 * Darcy friction factor of a round pipe.
 * Source: 64/Re (Hagen-Poiseuille) and Colebrook-White, as in Moody 1944. Valid: Reynolds number above 0, relative
 * roughness 0 to 0.1; throws RangeError outside. @example darcyFactor({ reynolds: 1e5, relativeRoughness: 0 }) // 0.0180
 */
export const darcyFactor = ({
  reynolds,
  relativeRoughness,
}: {
  reynolds: number;
  relativeRoughness: number;
}): number => {
  if (!(reynolds > 0)) throw new RangeError(`Reynolds number ${reynolds} is not above 0`);
  if (!(relativeRoughness >= 0 && relativeRoughness <= 0.1))
    throw new RangeError(`relative roughness ${relativeRoughness} is not 0 to 0.1`);
  const group = { value: 0, slope: 0, root: 0 };
  frictionGroup(reynolds, relativeRoughness / 3.7, group);
  return group.value / reynolds ** 2;
};
