import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { database } from "@/server/database";
import { shopIsEmpty } from "@/server/shop/begin-shop";
import { LEAST_PASSWORD } from "@/server/shop/people";
import { FirstRunForm } from "@/ui/shop/first-run-form";
import { begin } from "./actions";

export const metadata: Metadata = { title: "Begin" };
export const dynamic = "force-dynamic";

export default async function FirstRunPage() {
  if (!(await shopIsEmpty(database()))) redirect("/sign-in");
  return (
    <main className="mx-auto max-w-[720px] px-6 py-10">
      <p className="m-0 text-[22px] font-[760] tracking-tight text-sorrel">Sorrel</p>
      <h1 className="mt-1">Your shop, from its first shift</h1>
      <p className="soft">
        Nothing is on record yet. Say what the shop is called, when it works and who looks after Sorrel; everything else
        is set up where it is used, and can wait.
      </p>
      <FirstRunForm
        zones={["UTC", ...Intl.supportedValuesOf("timeZone").filter((zone) => zone !== "UTC")]}
        least={LEAST_PASSWORD}
        begin={begin}
      />
    </main>
  );
}
