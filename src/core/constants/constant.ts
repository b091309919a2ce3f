/** A number that knows its unit and where it comes from. */
export interface Constant {
  readonly value: number;
  readonly unit: string;
  readonly source: string;
}
