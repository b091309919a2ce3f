import type { Deserved } from './deserved-class';
import type { MachineClass } from './machine-class';

/**
 * How strict a class is; HEPA, by its own limit, ranks with H. Source: EN/IEC 60335-2-69 Annex AA; 29 CFR 1926.1153.
 */
const STRICTNESS: Readonly<Record<MachineClass, number>> = { L: 1, M: 2, H: 3, HEPA: 3 };

/** Whether the filters as recorded fall short of the class on the plate. */
export const fallsShort = (label: MachineClass, { dustClass, usHepa }: Deserved): boolean =>
  label === 'HEPA' ? !usHepa : dustClass === null || STRICTNESS[dustClass] < STRICTNESS[label];

/** Whether the filters alone would bear a higher class than the plate says: never a reason to say it. */
export const wouldBearMore = (label: MachineClass | null, { dustClass }: Deserved): boolean =>
  dustClass !== null && (label === null || (label !== 'HEPA' && STRICTNESS[dustClass] > STRICTNESS[label]));
