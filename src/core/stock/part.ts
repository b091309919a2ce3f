/** The record of a part. */
export interface Part {
  readonly id: number;
  readonly code: string;
  readonly name: string;
  readonly packSize: number;
  readonly bin: string;
  /** Price of one piece, in the yard's own currency. */
  readonly price: number;
  readonly leadDays: number;
  /** Days it keeps on the shelf; null for ever. */
  readonly shelfDays: number | null;
  readonly supplier: string;
  /** It is ordered before fewer than this are left; null leaves it to the demand. */
  readonly minimum: number | null;
  /** No longer kept. */
  readonly retired: boolean;
  /** Filter medium by its maker: "polyester needle felt"; '' when not given. */
  readonly medium: string;
  /** Area of the medium, m2; null when not given. */
  readonly areaM2: number | null;
  /** Class or efficiency with its particle size: "H14, 99.995 % at MPPS"; '' when not given. */
  readonly rating: string;
}
