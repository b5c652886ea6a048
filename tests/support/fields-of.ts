/** What a Valibot schema takes, in a line a field: “readings[].valueUm: number 0 to 10000”. */
type Node = {
  readonly type: string;
  readonly requirement?: unknown;
  readonly entries?: Record<string, Node>;
  readonly item?: Node;
  readonly items?: readonly Node[];
  readonly wrapped?: Node;
  readonly pipe?: readonly Node[];
  readonly options?: readonly unknown[];
  readonly literal?: unknown;
  readonly value?: Node;
};
const bound = (steps: readonly Node[], type: string) => steps.find((s) => s.type === type)?.requirement;

/** The steps of a pipe, those of a pipe within it first. */
const flat = (node: Node): readonly Node[] =>
  node.pipe ? node.pipe.flatMap((step, i) => (i === 0 && step !== node ? flat(step) : [step])) : [node];

export function fieldsOf(schema: unknown, path = ""): string[] {
  const node = schema as Node;
  const steps = flat(node);
  const base = steps[0] as Node;
  if (base.type === "optional" || base.type === "nullable")
    return fieldsOf(base.wrapped, path).map((line) => `${line}${line.endsWith("?") ? "" : "?"}`);
  if (base.type === "object")
    return Object.entries(base.entries ?? {}).flatMap(([name, child]) =>
      fieldsOf(child, path ? `${path}.${name}` : name),
    );
  const range = [
    ["min_value", "from"],
    ["gt_value", "over"],
    ["max_value", "to"],
    ["min_length", "at least"],
    ["max_length", "at most"],
  ].flatMap(([type, word]) => {
    const limit = bound(steps, type as string);
    return limit === undefined ? [] : [`${word} ${limit}`];
  });
  const extra = steps.some((s) => s.type === "integer") ? ["whole"] : [];
  const said = [...extra, ...range].join(" ");
  if (base.type === "array") return [`${path}[]: list ${said}`.trimEnd(), ...fieldsOf(base.item, `${path}[]`)];
  if (base.type === "tuple") return [`${path}: ${(base.items ?? []).length} of them`];
  if (base.type === "picklist") return [`${path}: one of ${(base.options ?? []).length}`];
  if (base.type === "union") return (base.options ?? []).flatMap((o) => fieldsOf(o, path)).map((line) => `${line} |`);
  return [`${path}: ${base.type} ${said}`.trimEnd()];
}
