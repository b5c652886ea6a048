import type { Metadata } from "next";
import { LEAST_PASSWORD } from "@/server/shop/people";
import { CodeForm } from "@/ui/forms/code-form";
import Link from "@/ui/link";
import { signInByCode } from "../actions";

export const metadata: Metadata = { title: "One-time code" };
export const dynamic = "force-dynamic";

export default function CodePage() {
  return (
    <main className="mx-auto grid min-h-dvh max-w-[420px] content-center px-6 py-10">
      <h1>A password of your own</h1>
      <p className="soft">By the code the administrator gave you. It works once.</p>
      <CodeForm signIn={signInByCode} least={LEAST_PASSWORD} />
      <p className="mt-4">
        <Link className="link inline-flex min-h-11 items-center" href="/sign-in">
          Back to the way in
        </Link>
      </p>
    </main>
  );
}
