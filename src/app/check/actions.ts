"use server";
import { database } from "@/server/database";
import { errorText, log } from "@/server/log";
import { type CheckState, checkFile } from "@/server/release/check-paper";

/** Certificates are far smaller. */
const MOST_BYTES = 4e6;

/** Whether a file is a certificate as it was given out. It is read for its hash and not kept; nobody signs in for it. */
export async function checkPaperFile(_: CheckState, form: FormData): Promise<CheckState> {
  const file = form.get("file");
  if (!(file instanceof File) || file.size === 0)
    return { name: "", standing: null, failure: { kind: "no-paper-file" } };
  const name = file.name.slice(0, 120);
  if (file.size > MOST_BYTES) return { name, standing: null, failure: { kind: "not-a-paper-file", name } };
  const bytes = Buffer.from(await file.arrayBuffer());
  if (!bytes.subarray(0, 5).equals(Buffer.from("%PDF-")))
    return { name, standing: null, failure: { kind: "not-a-paper-file", name } };
  try {
    return { name, standing: await checkFile(database(), bytes), failure: null };
  } catch (error) {
    log("error", "certificate file not checked", { error: errorText(error) });
    return { name, standing: null, failure: { kind: "not-checked" } };
  }
}
