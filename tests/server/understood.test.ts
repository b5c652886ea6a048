import { readFileSync } from "node:fs";
import { test } from "vitest";
import { describeFile, readAny } from "@/server/imports/understand-file";
import { asBefore } from "../support/as-before";

test("what is shown of an instrument's file before anything is stored, as before", async () => {
  const said = (
    name: string,
    text: string,
    unit = "",
    dayFirst: boolean | null = null,
    spite: "degC" | "degF" | null = null,
  ) => {
    const read = readAny(text, name, {
      kind: null,
      unit,
      dayFirst,
      inSpite: spite,
      layout: null,
      remembered: null,
      timeZone: "Europe/London",
    });
    return read.ok ? describeFile(read.value) : read;
  };
  const sample = (name: string, unit = "", dayFirst: boolean | null = null) =>
    [name, said(name, readFileSync(`tests/samples/${name}`, "utf8"), unit, dayFirst)] as const;
  const gap = "Elapsed,Air (C),Metal (C)\n0,20,20\n10,80,\n20,120,\n30,150,\n40,170,60\n50,180,80\n60,185,90\n";
  await asBefore("imports-understood", [
    sample("gauge-semicolon.csv"),
    sample("gauge-mil.csv"),
    sample("gauge-stream.txt"),
    sample("gauge-broken.csv"),
    sample("oven-six-channel.csv"),
    sample("oven-fahrenheit.tsv"),
    sample("bath-log.csv"),
    ["the bath log, day first", said("log.csv", readFileSync("tests/samples/bath-log.csv", "utf8"), "", true)],
    ["an oven with a gap", said("gap.csv", gap)],
    ["an oven in spite of what it says", said("gap.csv", gap, "", null, "degF")],
    ["readings of no unit", said("plain.txt", "72\n73\n71\n")],
    ["readings of no unit, in mils", said("plain.txt", "2.8\n2.9\n2.7\n", "mil")],
    ["readings with a slip", said("slip.csv", "No.,Thickness (um)\n1,72\n2,71\n3,74\n4,2.9\n5,0.3\n6,700\n7,73\n")],
    ["nothing", said("none.txt", "")],
    ["a letter", said("letter.txt", "Dear Sir,\nplease find enclosed\n")],
  ]);
});
