/** Classes a maker can have tested a machine to. */
export const MACHINE_CLASSES = ['L', 'M', 'H', 'HEPA'] as const;
export type MachineClass = (typeof MACHINE_CLASSES)[number];
