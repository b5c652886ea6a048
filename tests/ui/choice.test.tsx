import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, test } from "vitest";
import { Choice } from "@/ui/fields/choice";

const shown = (value?: string, defaultValue?: string) =>
  renderToStaticMarkup(
    <Choice name="lot" value={value} defaultValue={defaultValue}>
      <option value="a">Lot {"A"}</option>
      {["b", "c"].map((v) => (
        <option key={v} value={v}>
          Lot {v.toUpperCase()}
        </option>
      ))}
    </Choice>,
  );
const label = (html: string) => /truncate">([^<]*)</.exec(html)?.[1];
const sent = (html: string) => / value="([^"]*)"/.exec(html.slice(html.indexOf("<input")))?.[1];

describe("a choice", () => {
  test("shows and sends what is held, found among options however they are nested", () => {
    expect([label(shown("b")), sent(shown("b"))]).toEqual(["Lot B", "b"]);
    expect([label(shown(undefined, "c")), sent(shown(undefined, "c"))]).toEqual(["Lot C", "c"]);
  });
  test("left to itself the first stands", () => expect([label(shown()), sent(shown())]).toEqual(["Lot A", "a"]));
  test("what a form holds and the list has no longer is shown as nothing chosen, never as another", () =>
    expect([label(shown("gone")), sent(shown("gone"))]).toEqual(["choose one", ""]));
});
