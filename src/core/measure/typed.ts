/** A typed text, with the unit of a bare number. */
export interface Typed {
  readonly typed: string;
  readonly unit: string;
}
