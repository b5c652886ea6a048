import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { demoSignIns } from "@/demo/demo-sign-ins";
import { database } from "@/server/database";
import { shopIsEmpty } from "@/server/shop/begin-shop";
import { SignInForm } from "@/ui/forms/sign-in-form";
import Link from "@/ui/link";
import { signIn } from "./actions";

export const metadata: Metadata = { title: "Sign in" };
export const dynamic = "force-dynamic";

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  if (await shopIsEmpty(database())) redirect("/first-run");
  const { to } = await searchParams;
  const demo = await demoSignIns();
  return (
    <main className="mx-auto grid min-h-dvh max-w-[860px] content-center gap-10 px-6 py-10 min-[760px]:grid-cols-[1fr_320px]">
      <section>
        <p className="flex items-center text-[30px] font-[760] tracking-tight text-sorrel">
          <svg width="30" height="30" viewBox="0 0 22 22" className="mr-2" aria-hidden="true">
            <path d="M3 20C3 9 9 2 20 2c0 11-6 18-17 18Z" fill="currentColor" />
            <path d="M4 19 15 7" stroke="var(--ground)" strokeWidth="1.6" />
          </svg>
          Sorrel
        </p>
        <h1 className="mt-1">From bath to verdict, and from rust back to its cause</h1>
        <SignInForm signIn={signIn} to={to ?? "/"} />
        <p className="mt-4">
          <Link className="link inline-flex min-h-11 items-center" href="/sign-in/code">
            I was given a one-time code
          </Link>
        </p>
      </section>
      {demo.length > 0 && (
        <section className="ruled self-end">
          <h2>Demo sign-ins</h2>
          {demo.map((d) => (
            <div key={d.username} className="row grid-cols-[80px_1fr]">
              <b className="fig">{d.username}</b>
              <span>
                <span className="fig small">{d.password}</span>
                <br />
                <span className="soft small">
                  {d.name}, {d.role}
                </span>
              </span>
            </div>
          ))}
        </section>
      )}
    </main>
  );
}
