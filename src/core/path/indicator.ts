import type { GaugeZone } from '../measure/detail';

/** The zone of a coloured gauge at a differential pressure in Pa. Limits belong to the higher zone. */
export const gaugeZone = (
  dropPa: number,
  { amberPa, redPa }: { readonly amberPa: number; readonly redPa: number },
): GaugeZone => (dropPa >= redPa ? 'red' : dropPa >= amberPa ? 'amber' : 'green');

/** A low-flow warning lamp: it is set to a hose diameter and warns below a velocity in it. */
export interface FlowLamp {
  /** The setting of the selector, m; it may differ from the fitted hose. */
  readonly selectorM: number;
  readonly belowMs: number;
}

/**
 * Whether the low-flow lamp is lit, and at which velocity in the hose that is really fitted it would light.
 * Source: EN 60335-2-69 Annex AA (20 m/s in the hose); the lamp knows only the selected bore.
 * Valid: bores above 0; throws RangeError otherwise. Flow in m3/s. @example 36 mm hose on 27 mm: it warns at 11.25 m/s
 */
export const flowLamp = (
  { selectorM, belowMs }: FlowLamp,
  { flowM3s, hoseM }: { readonly flowM3s: number; readonly hoseM: number },
): { readonly lit: boolean; readonly warnsAtMs: number } => {
  if (!(selectorM > 0 && hoseM > 0)) throw new RangeError(`bores ${selectorM} and ${hoseM} m are not above 0`);
  const limitM3s = (belowMs * Math.PI * selectorM ** 2) / 4;
  return { lit: flowM3s < limitM3s, warnsAtMs: (limitM3s * 4) / (Math.PI * hoseM ** 2) };
};
