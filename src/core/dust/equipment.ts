import type { DustStanding } from './assess';
import type { DustHazard } from './level';

/** Protective equipment. */
export const EQUIPMENT = ['eyes', 'halfMask', 'p3', 'gloves', 'coverall', 'tapedGloves', 'overshoes'] as const;
export type Equipment = (typeof EQUIPMENT)[number];

/** Protective equipment by level. Source: HSE and OSHA guidance for lead and asbestos work, from memory; handbook, section 18. */
export const EQUIPMENT_OF: Record<DustHazard, readonly Equipment[]> = {
  plain: ['eyes'],
  controlled: ['halfMask', 'gloves', 'eyes'],
  contained: ['p3', 'coverall', 'tapedGloves', 'overshoes', 'eyes'],
};

/** Words for the waste label of a machine's dusts, each once. */
export const wasteOf = ({ dusts }: Pick<DustStanding, 'dusts'>): readonly string[] => [
  ...new Set(dusts.map((d) => d.waste)),
];
