import type { TraversePlan } from './traverse';

/**
 * A plate: its hole, its coefficient (null: that of ISO 5167-2, for a plate in a pipe), and the pipe it sits in (null: it
 * draws from the free room). Lengths in m.
 */
export interface Plate {
  readonly orificeM: number;
  readonly coefficient: number | null;
  readonly pipeM: number | null;
}

export const HAND_FEELS = ['none', 'weak', 'normal', 'strong'] as const;
export type HandWord = (typeof HAND_FEELS)[number];
export const GAUGE_ZONES = ['green', 'amber', 'red'] as const;
export type GaugeZone = (typeof GAUGE_ZONES)[number];
export const LIGHT_STATES = ['off', 'steady', 'flashing'] as const;
export type LightState = (typeof LIGHT_STATES)[number];

/** The inputs of a method besides its readings; one member per method. All SI. */
export type MethodDetail =
  | { readonly kind: 'none' }
  | { readonly kind: 'traverse'; readonly plan: TraversePlan }
  | { readonly kind: 'plate'; readonly plate: Plate }
  /** One reading slot per opening; 0 m is sealed. */
  | { readonly kind: 'curve'; readonly orificesM: readonly number[]; readonly coefficient: number }
  | { readonly kind: 'stage'; readonly stageId: number }
  | { readonly kind: 'mass'; readonly stageId: number; readonly newMassKg: number }
  /** Slot 0 counts the exhaust, slot 1 the room; several counts of one slot add up. */
  | {
      readonly kind: 'particles';
      readonly sizeUm: number;
      readonly flowM3s: number;
      readonly exhaustS: number;
      readonly roomS: number;
    }
  | { readonly kind: 'zone'; readonly stageId: number; readonly zone: GaugeZone }
  | { readonly kind: 'hand'; readonly word: HandWord }
  | { readonly kind: 'light'; readonly name: string; readonly light: LightState; readonly afterS: number };

/** Slots of a particle test. */
export const EXHAUST_SLOT = 0;
export const ROOM_SLOT = 1;
