/** What is on file of a part. */
export interface Part {
  readonly id: number;
  readonly code: string;
  readonly name: string;
  readonly packSize: number;
  readonly bin: string;
  /** Of a piece, in the yard's own money. */
  readonly price: number;
  readonly leadDays: number;
  /** Days it keeps on the shelf; null for ever. */
  readonly shelfDays: number | null;
  readonly supplier: string;
  /** It is ordered before fewer than this are left; null leaves it to the demand. */
  readonly minimum: number | null;
  /** No longer kept. */
  readonly retired: boolean;
  /** What it filters with, as its maker says: "polyester needle felt"; '' where nobody said. */
  readonly medium: string;
  /** Of the medium, m2; null where nobody said. */
  readonly areaM2: number | null;
  /** Class or efficiency with the size it holds at: "H14, 99.995 % at MPPS"; '' where nobody said. */
  readonly rating: string;
}
