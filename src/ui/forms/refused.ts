/** Why what was typed cannot be sent, and at which field; null where it is of all of them. */
export class Refused extends Error {
  constructor(
    readonly field: string | null,
    message: string,
  ) {
    super(message);
  }
}
