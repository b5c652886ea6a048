import { toJsonSchema } from "@valibot/to-json-schema";
import * as v from "valibot";

const words = v.string();
const known = { grade: v.pipe(words, v.description("How it is known: measured, by procedure, assumed, not known.")) };

/** All that a certificate says, as it is kept, printed and given out as JSON. */
export const certificateSchema = v.object({
  number: v.pipe(words, v.description("Number of the certificate; with its mark it is checked by.")),
  site: words,
  customer: words,
  job: words,
  rack: words,
  part: words,
  pieces: words,
  powder: words,
  named: v.pipe(
    v.array(v.strictTuple([words, words])),
    v.description(
      "Customer's order and delivery note, lots, gauge with its last shim check, oven and trace: name and value.",
    ),
  ),
  coatedOn: words,
  decision: words,
  note: words,
  signedBy: words,
  signedAt: words,
  verdictWord: words,
  items: v.pipe(
    v.array(v.object({ name: words, word: words, text: words, ...known })),
    v.description("Everything asked and tested, each with what came of it."),
  ),
  steps: v.pipe(
    v.array(v.object({ name: words, proof: words, ...known })),
    v.description("Steps of preparation, wash and coat that are on record."),
  ),
  readings: v.pipe(
    v.array(v.object({ face: words, spots: v.array(v.object({ spot: words, mean: words, readings: words })) })),
    v.description("Film by face and spot, in the unit named by `units`."),
  ),
  notMeasured: v.array(words),
  conceded: v.pipe(
    v.array(words),
    v.description("What the customer takes as it is; empty where nothing was conceded."),
  ),
  wording: v.optional(
    v.pipe(words, v.description("The customer's own words, as agreed; absent where there are none.")),
  ),
  seal: words,
  units: v.picklist(["metric", "us"]),
  recordId: words,
  check: v.optional(
    v.pipe(
      v.object({ mark: words, address: words }),
      v.description("What its paper is checked by, and where; absent in certificates from before papers were checked."),
    ),
  ),
});

/** Where the schema is published, under the shop's own address. */
export const CERTIFICATE_SCHEMA_PATH = "/api/schemas/certificate";
/** The same as JSON Schema, for whoever reads certificates by machine. */
export const certificateJsonSchema = (address: string): object => ({
  ...toJsonSchema(certificateSchema),
  $id: `${address}${CERTIFICATE_SCHEMA_PATH}`,
  title: "Sorrel certificate",
});
