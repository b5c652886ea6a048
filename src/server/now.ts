import { v7 as uuidv7 } from "uuid";

/** How far the application's clock stands ahead of the machine's, ms: 0 but where tests start it at a moment of theirs. */
const aheadMs = Number(process.env.CLOCK_AHEAD_MS ?? 0);
if (!Number.isFinite(aheadMs)) throw new RangeError(`CLOCK_AHEAD_MS is no number: ${process.env.CLOCK_AHEAD_MS}`);

/** The one place where the application reads the clock. */
export const now = (): Date => new Date(Date.now() + aheadMs);
/** A new id by that clock: ids grow with time. */
export const newId = (): string => uuidv7({ msecs: now().getTime() });
