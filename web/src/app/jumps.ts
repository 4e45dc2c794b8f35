import { useDocument } from "@/document/store";
import type { Kind } from "@/document/types";
import { saveFile } from "@/parts/saveFile";
import { useResults } from "@/results/store";
import { BALANCE, useView } from "@/view/store";
import { useRoute } from "vue-router";
import { jumpToPeak } from "./keys";
import { usePlaces } from "./places";
import { STAGES } from "./stages";

/** Something that the jump box goes to or does. */
export interface Jump {
  name: string;
  what: string;
  /** The key that does the same. */
  key?: string;
  go: () => void;
}
export type Panel = "keys" | "snags" | "new project" | "history" | "all projects";

/** Kinds of things with a page of their own: what they are called and the stage that shows them. */
const THINGS: [kind: Kind, what: string, stage: string][] = [
  ["air_system", "air system", "air"],
  ["circuit", "circuit", "water"],
  ["hot_water", "hot water", "water"],
  ["schedule", "schedule", "schedules"],
  ["use", "use", "uses"],
  ["assembly", "assembly", "fabric"],
  ["glazing", "glazing", "fabric"],
  ["shading", "shading", "fabric"],
  ["level", "level", "rooms"],
];
const PAGES: [name: string, stage: string, page: string][] = [
  ["Design days", "place", "days"],
  ["Site and sun", "place", "site"],
  ["Ground", "place", "ground"],
  ["Weather file", "place", "weather"],
  ["Choices", "place", "choices"],
  ["Holidays", "place", "choices"],
  ["Envelope", "fabric", "envelope/"],
  ["Fabric kit", "fabric", "kit/"],
  ["Materials", "fabric", "materials/"],
  ["Plan of the rooms", "rooms", "plan"],
  ["Sheet of the rooms", "rooms", "sheet"],
  ["Shared values", "rooms", "shared"],
];
const FILES: [name: string, file: string][] = [
  ["Export rooms as XLSX", "rooms.xlsx"],
  ["Export rooms as CSV", "rooms.csv"],
  ["Export rooms as gbXML", "rooms.gbxml"],
  ["Export rooms as IFC", "rooms.ifc"],
  ["Export loads as XLSX", "loads.xlsx"],
  ["Export loads as CSV", "loads.csv"],
];

/** Everything that can be jumped to, in the order in which equal finds are shown. */
export function useJumps(open: (panel: Panel) => void): () => Jump[] {
  const doc = useDocument();
  const results = useResults();
  const view = useView();
  const route = useRoute();
  const { toThing, toSnag, toStage } = usePlaces();

  /** A room is shown where one looks, if that place shows rooms. */
  function toRoom(id: string): void {
    if (STAGES.some((stage) => stage.key === route.name && stage.roll)) view.selectRoom(id);
    else toThing("room", id, "rooms");
  }
  function order(what: "add room" | "import rooms"): void {
    view.ordered = what;
    toStage("rooms", "sheet");
  }
  const commands = (): Jump[] => [
    { name: "Add room", what: "command", go: () => order("add room") },
    { name: "Import rooms …", what: "command", go: () => order("import rooms") },
    ...FILES.map(([name, file]) => ({
      name,
      what: "command",
      go: () => saveFile(`/api/projects/${doc.projectId}/${file}?units=${view.system}`),
    })),
    { name: "Undo", what: "command", key: "Ctrl+Z", go: () => void doc.undo() },
    { name: "Redo", what: "command", key: "Ctrl+Shift+Z", go: () => void doc.redo() },
    { name: "To the selection's peak", what: "command", key: "P", go: jumpToPeak },
    { name: view.system === "SI" ? "Units: inch-pound" : "Units: SI", what: "command", go: () => (view.system = view.system === "SI" ? "IP" : "SI") },
    { name: view.dark ? "Day drawing" : "Night drawing", what: "command", go: () => (view.dark = !view.dark) },
    { name: "Working on and off", what: "command", key: "W", go: () => (view.workingOpen = !view.workingOpen) },
    { name: "List of rooms on and off", what: "command", key: "L", go: () => (view.rollOpen = !view.rollOpen) },
    { name: "All snags", what: "command", key: "S", go: () => open("snags") },
    { name: "Keys", what: "command", key: "?", go: () => open("keys") },
    { name: "History of the project", what: "command", go: () => open("history") },
    { name: "New project …", what: "command", go: () => open("new project") },
    { name: "All projects …", what: "command", go: () => open("all projects") },
  ]; // prettier-ignore

  return () => [
    ...STAGES.map((stage) => ({
      name: stage.name,
      what: "stage",
      key: `G ${stage.letter.toUpperCase()}`,
      go: () => toStage(stage.key),
    })),
    ...doc
      .rows("room")
      .map((row) => ({ name: `${row.number} ${row.name}`, what: "room", go: () => toRoom(row.id) })),
    ...THINGS.flatMap(([kind, what, stage]) =>
      doc.rows(kind).map((row) => ({
        name: "name" in row ? String(row.name) : "",
        what,
        go: () => toThing(kind, row.id, stage),
      })),
    ),
    ...doc
      .rows("material")
      .map((row) => ({ name: row.name, what: "material", go: () => toStage("fabric", "materials/") })),
    ...PAGES.map(([name, stage, page]) => ({ name, what: "page", go: () => toStage(stage, page) })),
    {
      name: "Air balance of the rooms",
      what: "page",
      go: () => {
        view.airSystem = BALANCE;
        toStage("air");
      },
    },
    { name: "Proof book", what: "page", go: () => toStage("proof") },
    ...commands(),
    ...results.rows("snag").map(([, snag]) => ({
      name: snag.sentence,
      what: "snag",
      go: () => toSnag(snag),
    })),
  ];
}

/** What holds all words that were typed; names that begin with them come first, a room's name after its number too. */
export function find(jumps: Jump[], typed: string, most = 14): Jump[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const holds = (jump: Jump) => {
    const text = `${jump.name} ${jump.what}`.toLowerCase();
    return words.every((word) => text.includes(word));
  };
  const begins = (jump: Jump) => {
    const name = jump.name.toLowerCase();
    const bare = jump.what === "room" ? name.slice(name.indexOf(" ") + 1) : name;
    return [name, bare].some((text) => text.startsWith(words.join(" ")));
  };
  const found = jumps.filter(holds);
  return [...found.filter(begins), ...found.filter((jump) => !begins(jump))].slice(0, most);
}
