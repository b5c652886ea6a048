import * as v from "valibot";

export const finite = v.pipe(v.number(), v.finite());
/** A place on a face or a floor, in hundredths of its sides. */
export const point = v.tuple([finite, finite]);
export const box = v.object({ lengthMm: finite, widthMm: finite, heightMm: finite });
