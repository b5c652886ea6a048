import { storeCaptured } from "@/server/field/captured";
import { now } from "@/server/now";
import { fromDevice } from "../from-device";

export const dynamic = "force-dynamic";
/** A capture with all its readings is some kilobytes. */
const MOST_BYTES = 256 * 1024;
const bad = (why: string) => ({ kind: "bad-entry", field: "", why, value: "" });

/** One capture from a device that may have been without a network: stored once, however often it is sent. */
export const POST = (request: Request): Promise<Response> =>
  fromDevice(request, { bytes: MOST_BYTES, refusal: () => bad("is too long") }, async (db, person, answer) => {
    let input: unknown;
    try {
      input = await request.json();
    } catch {
      return answer({ ok: false, failure: bad("is not JSON") }, 400);
    }
    return answer(await storeCaptured(db, person, input, now));
  });
