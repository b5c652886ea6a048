import path from "node:path";
import { defineConfig } from "vitest/config";

const alias = {
  "@": path.resolve(import.meta.dirname, "src"),
  "server-only": path.resolve(import.meta.dirname, "node_modules/next/dist/compiled/server-only/empty.js"),
};
export default defineConfig({
  resolve: { alias },
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: "core",
          include: ["tests/core/**/*.test.ts", "tests/ui/**/*.test.{ts,tsx}"],
          environment: "node",
          maxWorkers: 2,
          // Nothing is kept between calls in a module: files share what they load.
          isolate: false,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "database",
          include: ["tests/db/**/*.test.ts", "tests/server/**/*.test.{ts,tsx}"],
          environment: "node",
          maxWorkers: 2,
          // Nothing is kept between calls in a module: files share what they load.
          isolate: false,
          testTimeout: 20_000,
        },
      },
    ],
  },
});
