/** The one place where the application reads the clock. */
export const now = (): Date => new Date();
