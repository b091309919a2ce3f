import type { PathState } from './machine-path';
import { REFERENCE_AIR } from './model/air';
import { NOMINAL_DRIVE } from './model/fan';

/** Every stage clean and in place, no leak, the hose that is fitted, full drive, air at reference density. */
export const AS_NEW: PathState = { stages: {}, leaksM2: {}, hose: null, drive: NOMINAL_DRIVE, air: REFERENCE_AIR };
