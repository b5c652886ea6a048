"use client";
import { usePathname } from "next/navigation";
import type { ReactNode } from "react";
import Link from "../link";

const belongs: Record<string, RegExp> = {
  plan: /^\/(plan|jobs)/,
  prepare: /^\/prepare|^\/racks\/[^/]+\/prepare/,
  pretreat: /^\/pretreat/,
  coat: /^\/coat|^\/racks\/[^/]+\/coat/,
  cure: /^\/cure|^\/racks\/[^/]+\/cure/,
  test: /^\/test|^\/racks\/[^/]+\/(thickness|bench)/,
  release: /^\/release|^\/racks\/[^/]+\/release/,
  field: /^\/field/,
};

export function StageLink({
  href,
  id,
  fact,
  children,
}: {
  href: string;
  id: string;
  fact: string;
  children: ReactNode;
}) {
  const here = belongs[id]?.test(usePathname()) ?? false;
  return (
    <Link href={href} className="stage" aria-current={here ? "page" : undefined}>
      {children}
      <span className="fact" title={fact}>
        {fact}
      </span>
    </Link>
  );
}
