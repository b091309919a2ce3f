/** Where on the machine a reading is taken. */
export const PLACES = ['toolEnd', 'hoseEnd', 'inlet', 'outlet'] as const;
export type Place = (typeof PLACES)[number];
