import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/atkinson-hyperlegible-mono";
import "./globals.css";
import type { Metadata, Viewport } from "next";
import type { ReactNode } from "react";
import { preferences } from "@/server/preferences";

export const metadata: Metadata = {
  title: { default: "Sorrel", template: "%s · Sorrel" },
  description: "The working record of a coating quality inspector",
  icons: "/favicon.svg",
};
export const viewport: Viewport = { width: "device-width", initialScale: 1 };

export default async function Layout({ children }: { children: ReactNode }) {
  const { theme } = await preferences();
  return (
    <html lang="en" data-theme={theme}>
      <body>{children}</body>
    </html>
  );
}
