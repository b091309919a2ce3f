/** A refusal in words, beside the field it is about. */
export interface Problem {
  readonly code: string;
  /** Dotted path of the field; '' when it is about the whole request. */
  readonly path: string;
  readonly title: string;
  readonly sentence: string;
  readonly hint: string;
}
