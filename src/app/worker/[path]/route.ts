import { randomUUID } from "node:crypto";
import { createSerwistRoute } from "@serwist/turbopack";

/** The service worker, with what it keeps on the device: every script, style and font, and the round's own page. */
export const { dynamic, dynamicParams, revalidate, generateStaticParams, GET } = createSerwistRoute({
  swSrc: "src/workers/service-worker.ts",
  useNativeEsbuild: true,
  globPatterns: [".next/static/**/*.{js,css,woff2}", "public/*.{html,svg,png}"],
  maximumFileSizeToCacheInBytes: 8_000_000,
  // The page's markup carries its own policy and names its scripts: another build, another page.
  additionalPrecacheEntries: [{ url: "/round", revision: randomUUID() }],
});
