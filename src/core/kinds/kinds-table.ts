import { kinds } from ".";

const listed = (names: readonly string[]) => names.map((name) => `\`${name}\``).join(", ");
const how = { "by-correction": "corrected", "in-course-too": "corrected, or followed in course", never: "never" };

/** Every kind of record as a table in Markdown: what is entered to make it, who may, where its details lie. */
export function kindsTable(): string {
  const rows = kinds().map((k) => {
    const entries = Object.entries(k.entries).map(([name, { may }]) => `\`${name}\` (${may})`);
    const tables = [...Object.keys(k.tables), ...(k.also ?? [])];
    return `| \`${k.kind}\` | ${entries.join(", ") || "a use case of its own"} | ${listed(tables)} | ${k.change ? "yes" : "no"} | ${how[k.superseded]} |`;
  });
  return `# Kinds of record

From \`src/core/kinds\`, one file a kind; made by \`npm run kinds\`. A change is told to the next shift.

| kind | entered as (who may) | detail tables | a change | superseded |
| ---- | -------------------- | ------------- | -------- | ---------- |
${rows.join("\n")}

## Detail columns

${kinds()
  .flatMap((k) => Object.entries(k.tables))
  .map(
    ([table, columns]) =>
      `- \`${table}\`: ${Object.entries(columns)
        .map(([c, type]) => `${c} ${type}`)
        .join(", ")}`,
  )
  .join("\n")}
`;
}
