/** How a machine is opened after a dust: three levels, from nuisance dust to the dusts that must not get out. */
export const DUST_HAZARDS = ['plain', 'controlled', 'contained'] as const;
export type DustHazard = (typeof DUST_HAZARDS)[number];

/** The worse of some levels; plain for none. */
export const worst = (levels: readonly DustHazard[]): DustHazard =>
  DUST_HAZARDS[Math.max(0, ...levels.map((l) => DUST_HAZARDS.indexOf(l)))] ?? 'contained';

/** Whether one level asks for less than another. */
export const isBelow = (level: DustHazard, than: DustHazard): boolean =>
  DUST_HAZARDS.indexOf(level) < DUST_HAZARDS.indexOf(than);
