/** What the maker tested the machine as. */
export const MACHINE_CLASSES = ['L', 'M', 'H', 'HEPA'] as const;
export type MachineClass = (typeof MACHINE_CLASSES)[number];
