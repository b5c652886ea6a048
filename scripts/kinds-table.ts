// npm run kinds: docs/kinds.md from the kinds themselves. A test fails while it is not what they say.
import { writeFileSync } from "node:fs";
import path from "node:path";
import { kindsTable } from "../src/core/kinds/kinds-table";

writeFileSync(path.resolve(import.meta.dirname, "../docs/kinds.md"), kindsTable());
