// Small faults of the kind a hand makes: each is a stretch of source and what would stand there instead.
import { parseAst } from "rolldown/parseAst";

const flips = {
  "<": ["<=", ">="],
  "<=": ["<", ">"],
  ">": [">=", "<="],
  ">=": [">", "<"],
  "===": ["!=="],
  "!==": ["==="],
  "+": ["-"],
  "-": ["+"],
  "*": ["/"],
  "/": ["*"],
  "%": ["*"],
  "&&": ["||"],
  "||": ["&&"],
  "??": ["&&"],
};
const calls = {
  min: "max",
  max: "min",
  floor: "ceil",
  ceil: "floor",
  round: "floor",
  some: "every",
  every: "some",
  findLast: "find",
  find: "findLast",
  findIndex: "findLastIndex",
  findLastIndex: "findIndex",
};
/** Calls that can be left out: what they are called on stands for their result. */
const dropped = new Set(["filter", "slice", "reverse", "trim", "toLowerCase", "sort"]);
const inSql = [
  [/ and /g, " or "],
  [/ or /g, " and "],
  [/<=/g, "<"],
  [/>=/g, ">"],
  [/ < /g, " <= "],
  [/ > /g, " >= "],
  [/ desc\b/g, " asc"],
  [/not exists/g, "exists"],
  [/is null/g, "is not null"],
  [/is not null/g, "is null"],
  [/\bmax\(/g, "min("],
  [/\bmin\(/g, "max("],
  [/ <> /g, " = "],
];
const words = { '"<"': '"<="', '"<="': '"<"', '">"': '">="', '">="': '">"', '"desc"': '"asc"', '"is not"': '"is"' };
const text = (node) => node.type === "TemplateLiteral" || (node.type === "Literal" && typeof node.value === "string");

/** Every fault that can be made in a source, in the order of the source. Types, imports and keys are left alone. */
export function faultsIn(source) {
  const found = [];
  const add = (node, replacement, what) =>
    found.push({
      start: node.start,
      end: node.end,
      replacement,
      what,
      line: source.slice(0, node.start).split("\n").length,
    });
  const of = (node) => source.slice(node.start, node.end);
  const visit = (node, parent, key) => {
    if (!node || typeof node !== "object") return;
    if (Array.isArray(node)) {
      for (const one of node) visit(one, parent, key);
      return;
    }
    if (typeof node.type !== "string") return;
    if (/^TS(?!AsExpression|SatisfiesExpression|NonNullExpression)/.test(node.type) || node.type.startsWith("Import"))
      return;
    if (node.type === "ExportNamedDeclaration" && node.source) return;
    if (key === "key" && !parent.computed) return;
    if (node.type === "BinaryExpression" || node.type === "LogicalExpression") {
      const joins = node.operator === "+" && (text(node.left) || text(node.right));
      if (!joins)
        for (const other of flips[node.operator] ?? [])
          add(node, `(${of(node.left)}) ${other} (${of(node.right)})`, `${node.operator} → ${other}`);
    } else if (node.type === "ConditionalExpression") add(node.test, `!(${of(node.test)})`, "choice turned round");
    else if (node.type === "IfStatement") add(node.test, `!(${of(node.test)})`, "condition turned round");
    else if (node.type === "UnaryExpression" && node.operator === "!") add(node, of(node.argument), "! left out");
    else if (node.type === "UnaryExpression" && node.operator === "-" && parent.type !== "UnaryExpression")
      add(node, of(node.argument), "sign left out");
    else if (node.type === "Literal" && typeof node.value === "number")
      add(
        node,
        node.value === 0 ? "1" : `(${node.raw} * 2)`,
        `${node.raw} → ${node.value === 0 ? 1 : `${node.raw} × 2`}`,
      );
    else if (node.type === "Literal" && typeof node.value === "boolean")
      add(node, String(!node.value), `${node.raw} → ${!node.value}`);
    else if (node.type === "Literal" && words[node.raw] && parent.type === "CallExpression")
      add(node, words[node.raw], `${node.raw} → ${words[node.raw]}`);
    else if (
      node.type === "CallExpression" &&
      node.callee.type === "MemberExpression" &&
      !node.callee.computed &&
      !node.optional &&
      !node.callee.optional
    ) {
      const name = node.callee.property.name;
      const { property } = node.callee;
      // A method's name is no expression of its own: the whole call stands behind the switch.
      if (calls[name] && node.arguments.length > 0)
        add(
          node,
          source.slice(node.start, property.start) + calls[name] + source.slice(property.end, node.end),
          `${name} → ${calls[name]}`,
        );
      if (dropped.has(name)) add(node, of(node.callee.object), `.${name}() left out`);
    } else if (node.type === "TaggedTemplateExpression" && /^sql(<|$|`)/.test(of(node.tag)))
      for (const quasi of node.quasi.quasis)
        for (const [pattern, other] of inSql)
          for (const hit of of(quasi).matchAll(pattern)) {
            const at = quasi.start + hit.index;
            found.push({
              start: node.start,
              end: node.end,
              replacement: source.slice(node.start, at) + other + source.slice(at + hit[0].length, node.end),
              what: `in SQL:${hit[0]} →${other}`,
              line: source.slice(0, at).split("\n").length,
            });
          }
    for (const [name, child] of Object.entries(node))
      if (name !== "type" && child && typeof child === "object") visit(child, node, name);
  };
  visit(parseAst(source, { lang: "ts" }).body, { type: "Program" }, "body");
  return found
    .filter((f) => f.replacement !== source.slice(f.start, f.end))
    .sort((a, b) => a.start - b.start || b.end - a.end);
}

/** The source with its faults in it, each behind a switch: off, it runs as it was. `faults` bear an id. */
export function switched(source, faults) {
  const emit = (start, end, inside) => {
    let out = "";
    let at = start;
    let rest = [...inside].sort((a, b) => a.start - b.start || b.end - a.end);
    while (rest.length > 0) {
      const { start: from, end: to } = rest[0];
      const same = rest.filter((f) => f.start === from && f.end === to);
      const within = rest.filter((f) => f.start >= from && f.end <= to && !same.includes(f));
      rest = rest.filter((f) => f.start >= to);
      out += source.slice(at, from);
      const choices = same.map((f) => `globalThis.__fault(${f.id}) ? (${f.replacement}) : `).join("");
      out += `(${choices}(${emit(from, to, within)}))`;
      at = to;
    }
    return out + source.slice(at, end);
  };
  return emit(0, source.length, faults);
}
