/** An error whose sentence is all that the operator needs. */
export class CliError extends Error {
  override name = 'CliError';
}
