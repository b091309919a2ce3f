/** What the maker tested the machine as. */
export type MachineClass = 'L' | 'M' | 'H' | 'HEPA';
