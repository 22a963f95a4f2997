/** An error whose sentence is all that the operator needs, and how the command ends with it. */
export class CliError extends Error {
  override name = 'CliError';
  constructor(
    message: string,
    readonly exit: number = EXIT.failed,
  ) {
    super(message);
  }
}

/** How a command ends: all of it done; it failed; its input or its arguments were refused; part of the input was left out. */
export const EXIT = { done: 0, failed: 1, refused: 2, partly: 3 } as const;
