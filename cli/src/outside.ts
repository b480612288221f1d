/** What the commands are given of the outside. */
export interface Outside {
  /** Reads a file; `-` is what is piped in. */
  readonly read: (file: string) => string;
  readonly print: (text: string) => void;
  readonly complain: (text: string) => void;
  /** Seconds of work of this process so far: what a search is measured by. */
  readonly workedS: () => number;
}
