import { defineConfig } from "@playwright/test";
import { launchOptions } from "./tests/support/browser";

/** An application for each worker: what one file of tests records, no other sees. */
const bases = (process.env.E2E_BASES ?? "http://127.0.0.1:3000").split(" ");

export default defineConfig({
  testDir: "tests/e2e",
  outputDir: "test-results/e2e",
  workers: bases.length,
  retries: 0,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  reporter: [["list"], ["json"]],
  use: {
    baseURL: bases[Number(process.env.TEST_PARALLEL_INDEX ?? 0)] ?? bases[0],
    timezoneId: process.env.TZ ?? "Europe/London",
    viewport: { width: 1280, height: 800 },
    launchOptions,
    trace: "off",
    video: "off",
  },
});
