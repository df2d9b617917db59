/** Input that does not fit: printed with its path, exit 2. */
export class BadInput extends Error {
  constructor(
    readonly path: string,
    message: string,
  ) {
    super(message);
  }
}

/** What a call gives: its JSON, and whether a finding of severity stop is among it. */
export interface Outcome {
  readonly output: unknown;
  readonly stop?: boolean;
  /** A row of a batch could not be done. */
  readonly bad?: boolean;
}
