import type { Medium } from '../constants/media';

export const UPGRADE_KINDS = [
  'medium',
  'bag',
  'fineLayer',
  'hepa',
  'separator',
  'hose',
  'exhaust',
  'seal',
  'takeOut',
  'container',
] as const;
export type UpgradeKind = (typeof UPGRADE_KINDS)[number];

/** One thing that is changed about a machine for good. SI. */
export type UpgradeChange =
  /** Another filter or canister in a stage's place. */
  | { readonly kind: 'medium'; readonly stageId: number; readonly medium: Medium; readonly areaM2: number }
  /** Added in front of the existing filters, or behind the last one. */
  | { readonly kind: 'bag' | 'fineLayer' | 'hepa'; readonly areaM2: number }
  /** A cyclone before the machine; the share of the dust's mass it takes, 0 to 1. */
  | { readonly kind: 'separator'; readonly lossK: number; readonly inletBoreM: number; readonly share: number }
  | { readonly kind: 'hose'; readonly boreM: number; readonly lengthM: number }
  | { readonly kind: 'exhaust'; readonly lossK: number; readonly boreM: number }
  /** The leak that is left when it is sealed, m2. */
  | { readonly kind: 'seal'; readonly leakM2: number }
  /** A part of the maker's goes out. */
  | { readonly kind: 'takeOut'; readonly stageId: number }
  /** Another bottom container, m3. */
  | { readonly kind: 'container'; readonly volumeM3: number };
