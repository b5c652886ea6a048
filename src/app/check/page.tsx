import type { Metadata } from "next";
import { database } from "@/server/database";
import { checkPaper } from "@/server/release/check-paper";
import Link from "@/ui/link";
import { PaperFileForm } from "@/ui/release/paper-file-form";
import { PaperAnswer } from "@/ui/release/paper-standing";
import { checkPaperFile } from "./actions";

export const metadata: Metadata = { title: "Check a certificate", robots: { index: false } };
export const dynamic = "force-dynamic";

/** Whether a certificate's paper is on record, for anyone who holds it: no sign-in, and nothing told but that. */
export default async function CheckPage({
  searchParams,
}: {
  searchParams: Promise<{ number?: string | string[]; mark?: string | string[] }>;
}) {
  const asked = await searchParams;
  const one = (value: string | string[] | undefined) =>
    (Array.isArray(value) ? (value[0] ?? "") : (value ?? "")).slice(0, 80);
  const number = one(asked.number);
  const mark = one(asked.mark);
  const standing = number || mark ? await checkPaper(database(), { number, mark }) : null;
  return (
    <main className="mx-auto max-w-[560px] px-6 py-10">
      <h1>Check a certificate</h1>
      {standing && (
        <>
          <p className="soft m-0 mt-1">
            Certificate <b className="fig">{number || "without a number"}</b>, mark{" "}
            <span className="fig">{mark || "none"}</span>
          </p>
          <PaperAnswer standing={standing} of="paper" />
        </>
      )}
      <form action="/check" method="get" className="mt-8 grid gap-4">
        <h2 className="m-0">{standing ? "Another paper" : "By what is printed on it"}</h2>
        <div className="field">
          <label htmlFor="number">Number of the certificate</label>
          <input id="number" name="number" className="input" autoComplete="off" required defaultValue={number} />
        </div>
        <div className="field">
          <label htmlFor="mark">Mark beside its code</label>
          <input id="mark" name="mark" className="input fig" autoComplete="off" required defaultValue={mark} />
        </div>
        <button type="submit" className="btn pri justify-center">
          Check the paper
        </button>
      </form>
      <section className="mt-10">
        <h2 className="m-0">By its file</h2>
        <p className="soft m-0 mt-1">Says whether a word of it was changed. The file is not kept.</p>
        <PaperFileForm check={checkPaperFile} />
      </section>
      <p className="mt-10">
        <Link className="link inline-flex min-h-11 items-center" href="/">
          To the shop’s own pages
        </Link>
      </p>
    </main>
  );
}
