// One process that tries faults: it keeps what Vitest has read and transformed, so that a fault costs its tests and no start.
// Told { fault, files } it answers { noticed }; whoever asks ends it when it hangs and begins another.
import { writeFileSync } from "node:fs";
import path from "node:path";
import { createVitest } from "vitest/node";

const vitest = await createVitest(
  "test",
  {
    config: path.join(import.meta.dirname, "vitest.config.ts"),
    watch: false,
    bail: 1,
    reporters: [{}],
    maxWorkers: 1,
    pool: "threads",
  },
  {},
);
await vitest.standalone();
process.on("message", async ({ fault, files }) => {
  writeFileSync(process.env.FAULT_FILE, String(fault));
  const specifications = files.flatMap((f) => vitest.getModuleSpecifications(f));
  // What earlier faults made fail is forgotten, or it would be taken for this one's.
  vitest.state.filesMap.clear();
  vitest.state.idMap.clear();
  const { testModules, unhandledErrors } = await vitest.runTestSpecifications(specifications);
  const noticed = unhandledErrors.length > 0 || testModules.length === 0 || testModules.some((m) => !m.ok());
  process.send({ noticed });
});
process.send({ ready: true });
