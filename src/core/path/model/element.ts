import type { FanCurve } from './fan';

export type LineFriction =
  /** Smooth or rough wall, height of the roughness in m. */
  | { readonly by: 'roughness'; readonly roughnessM: number }
  /** A fixed Darcy factor, as for a corrugated hose. */
  | { readonly by: 'factor'; readonly factor: number };

/** One resistance of an air path. All SI; every element is a place between two nodes. */
export type Element =
  /** dp = (K1 + K2 w) Q/A, w = dust/A. K1 in Pa s/m and K2 in Pa s m/kg, both at 20 degC. */
  | {
      readonly kind: 'medium';
      readonly k1PaSM: number;
      readonly k2PaSMKg: number;
      readonly areaM2: number;
      readonly dustKg: number;
    }
  /** dp = K rho v^2 / 2, v in the bore. */
  | { readonly kind: 'fitting'; readonly lossK: number; readonly boreM: number }
  /** An opening that drops the air's velocity pressure: dp = rho/2 (Q / (C A))^2. */
  | { readonly kind: 'nozzle'; readonly areaM2: number; readonly coefficient: number }
  /** Hose or duct by Darcy-Weisbach with its entry and exit loss. */
  | {
      readonly kind: 'line';
      readonly boreM: number;
      readonly lengthM: number;
      readonly friction: LineFriction;
      readonly entryK: number;
      readonly exitK: number;
    }
  /** dp = K rho v^2 / 2, v in its inlet. */
  | { readonly kind: 'cyclone'; readonly lossK: number; readonly inletAreaM2: number }
  /** dp = R1 Q + R2 Q^2, R1 at 20 degC and R2 at 1.2 kg/m3. */
  | { readonly kind: 'resistance'; readonly r1PaSM3: number; readonly r2PaS2M6: number }
  /** A flap that opens at a pressure, then drops R2 Q^2. */
  | { readonly kind: 'check'; readonly crackPa: number; readonly r2PaS2M6: number }
  /** Several as one place, as a medium and the dust in it. */
  | { readonly kind: 'series'; readonly parts: readonly Element[] }
  /** Ways side by side between the same two nodes, as of twin filters; each is a series of elements. */
  | { readonly kind: 'parallel'; readonly ways: readonly (readonly Element[])[] }
  | { readonly kind: 'fan'; readonly curve: FanCurve };

/** A stage that is not there: the node stays, the resistance is gone. */
export const OPEN_PLACE: Element = { kind: 'resistance', r1PaSM3: 0, r2PaS2M6: 0 };

/** Elements in the order of the air, and the leak area to the room at each node: one more node than elements. */
export interface Chain {
  readonly elements: readonly Element[];
  /** m2; the first and the last node of a whole path lie in the room, where a leak means nothing. */
  readonly leaksM2: readonly number[];
}

/** Chain without leaks. */
export const tightChain = (elements: readonly Element[]): Chain => ({
  elements,
  leaksM2: Array.from({ length: elements.length + 1 }, () => 0),
});
