// In every worker of a run with faults: which one is on, and which were passed by this file of tests.
import { appendFileSync, readFileSync } from "node:fs";
import { afterAll, expect } from "vitest";

const on = process.env.FAULT_FILE ? Number(readFileSync(process.env.FAULT_FILE, "utf8")) : -1;
const passed = new Set<number>();
(globalThis as { __fault?: (id: number) => boolean }).__fault = (id) => {
  passed.add(id);
  return id === on;
};
afterAll(() => {
  const out = process.env.FAULTS_PASSED;
  if (out) appendFileSync(out, `${JSON.stringify({ file: expect.getState().testPath, passed: [...passed] })}\n`);
});
