"use client";
import Link from "../link";
import { usePreferences } from "../preferences-context";

/** That none of something is set up, and where it is done, for whoever may. */
export function NoneSetUp({ what, href, className = "" }: { what: string; href: string; className?: string }) {
  const { setsUp } = usePreferences();
  return (
    <p className={`m-0 py-2 ${className}`}>
      No {what} is set up.{" "}
      {setsUp ? (
        <Link className="link inline-flex min-h-11 items-center" href={href}>
          Set one up
        </Link>
      ) : (
        "A lead sets one up."
      )}
    </p>
  );
}
