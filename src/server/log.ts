import { now } from "./now";

/** One line of JSON per event, on standard output: time, level, what, and its details. Never a password or a reading's person. */
export function log(level: "info" | "warn" | "error", what: string, details: Record<string, unknown> = {}): void {
  process.stdout.write(`${JSON.stringify({ at: now().toISOString(), level, what, ...details })}\n`);
}
export const errorText = (error: unknown): string => (error instanceof Error ? error.message : String(error));
