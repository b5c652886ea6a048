/** Of something set up that is changed: its code, and the version that was on screen. */
export type Version = { readonly code: string; readonly seen: string };
export const saidOf = (known: unknown) => (known ? "Kept, from now on." : "Put on record.");
export const buttonOf = (known: unknown) => (known ? "Save the change" : "Put it on record");
export const reasonOf = (known: unknown) => (known ? "Why it changes" : "Where it comes from");
