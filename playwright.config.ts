import { defineConfig } from "@playwright/test";
import { launchOptions } from "./tests/support/browser";

export default defineConfig({
  testDir: "tests/e2e",
  outputDir: "test-results/e2e",
  workers: 1,
  retries: 0,
  timeout: 90_000,
  reporter: [["list"], ["json"]],
  use: {
    baseURL: process.env.E2E_BASE ?? "http://127.0.0.1:3000",
    viewport: { width: 1280, height: 800 },
    launchOptions,
    trace: "off",
    video: "off",
  },
});
