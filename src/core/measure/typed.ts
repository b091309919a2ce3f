/** What was typed, with the unit a bare number takes. */
export interface Typed {
  readonly typed: string;
  readonly unit: string;
}
