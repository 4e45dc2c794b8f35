// The interface's words: rules that hold for all of them, and the list in docs/words.md (`make generated` writes it anew).
import { expect, test } from "vitest";
import fields from "../src/document/fields.json";
import fittings from "../src/document/fittings.json";
import { said } from "./words";

interface Declared {
  label: string;
  hint?: string;
  choices?: { label: string }[];
}
const declared = Object.entries(fields as unknown as Record<string, Record<string, Declared>>).flatMap(
  ([kind, of]) =>
    Object.values(of).flatMap((field) =>
      [field.label, field.hint ?? "", ...(field.choices ?? []).map((one) => one.label)]
        .filter((text) => /[A-Za-z]{2}/.test(text))
        .map((text) => ({ file: `a ${kind.replaceAll("_", " ")}`, text })),
    ),
);
const all = [...said(), ...declared];
const wrong = (rule: RegExp) =>
  all.filter(({ text }) => rule.test(text)).map(({ file, text }) => `${file}: ${text}`);

test("much is said, and all of it is found", () => {
  expect(all.length).toBeGreaterThan(1500);
  const texts = new Set(all.map(({ text }) => text));
  for (const known of [
    "Changed by somebody else meanwhile",
    "The checks found nothing.",
    "Export rooms as XLSX",
    "Floor area",
  ])
    expect(texts, known).toContain(known);
  expect(Object.keys(fittings).length).toBeGreaterThan(60);
});

test("no name of a field, a column or a variable reaches the screen", () => {
  // A command to type is one.
  expect(wrong(/\b[a-z]+_[a-z_]+\b/).filter((line) => !line.includes(": python -m "))).toEqual([]);
  expect(
    wrong(/\b[a-z]+[A-Z][a-z]+\b/).filter((line) => !/\b(gbXML|kBtu|mbar|kPa|kWh)\b/.test(line)),
  ).toEqual([]);
});

test("marks are those of print", () => {
  expect(wrong(/\.\.\./)).toEqual([]);
  expect(wrong(/!$/)).toEqual([]);
  expect(wrong(/\w'\w|"\w+"/).filter((line) => !/\w's\b|s' |n't\b/.test(line))).toEqual([]);
  expect(wrong(/ ,| \.(\s|$)/)).toEqual([]);
});

test("no words of programs, and none of haste", () => {
  expect(
    wrong(
      /\b(please|oops|sorry|successfully|invalid|null|undefined|boolean|string|JSON object|submit|click here)\b/i,
    ),
  ).toEqual([]);
});

test("sentence case: no capital in the middle of a label but of names and symbols", () => {
  // Names of standards, units, keys, stages and months keep theirs.
  const kept =
    /^(EN|Ez|ISO|ASHRAE|ANSI|Kv|Kvs|CSV|XLSX|PDF|IFC|JSON|HTTP|SI|IP|NPSH|COP|EER|IE\d|CO₂|U|C|A|B|D|G|Ctrl|Shift|Alt|Enter|Esc|Home|End|PageUp|PageDown|Tab|Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec|January|July|December|Place|Fabric|Schedules|Uses|Rooms|Loads|Air|Water|Kit|Year|Compare|Issue|Working|History|Pendrum|Wood|Erbs|Perez|Colebrook|Darcy|Carnot|Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday|UTC|DN|TLS|Hazen|Williams|ΣC|T|W|K|L|M|P|R|S|X|Y|Z|N|E|H|I|F|J|V|Q)$/;
  const odd = all
    .filter(({ text }) => text.split(" ").length <= 5 && !/[.:;?–“(]/.test(text))
    .filter(({ text }) =>
      text
        .split(/[ /]/)
        .slice(1)
        .some((word) => /^[A-Z][a-z]+$/.test(word) && !kept.test(word)),
    )
    .map(({ file, text }) => `${file}: ${text}`);
  expect(odd).toEqual([]);
});

test("the list of all words stands in docs/words.md as they are", async () => {
  const lines: string[] = [
    "# What the interface says",
    "",
    "Written by `make generated`; read through it in one go.",
    "",
  ];
  let file = "";
  for (const one of all) {
    if (one.file !== file) lines.push("", `## ${(file = one.file)}`, "");
    lines.push(`- ${one.text}`);
  }
  await expect(`${lines.join("\n")}\n`).toMatchFileSnapshot("../../docs/words.md");
});
