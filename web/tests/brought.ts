// A project in the page: rows and results as an answer of the server brings them.
import { useDocument } from "../src/document/store";
import { useResults } from "../src/results/store";

type Doc = ReturnType<typeof useDocument>;

/** Rows by kind and results by kind and id; those of before stay unless they are named again. */
export async function brought(
  changed: Record<string, unknown[]>,
  results: Record<string, Record<string, unknown>> = {},
  categories: string[] = [],
): Promise<Doc> {
  const doc = useDocument();
  doc.projectId = "p";
  const version = doc.version + 1;
  const told = {
    version,
    milliseconds: 1,
    rooms_calculated: 0,
    changed: results,
    gone: {},
    categories,
    all: false,
  };
  await doc.applied(
    async () =>
      ({ version, objects: { changed, gone: {} }, results: told, calculation_fault: null, steps: { undo: null, redo: null } }) as never,
  ); // prettier-ignore
  if (categories.length) useResults().categories = categories;
  return doc;
}

/** The texts below an element in their order, with a space between; signs of punctuation stand close. */
function words(root: Element): string {
  const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
  const found: string[] = [];
  while (walker.nextNode()) found.push(walker.currentNode.textContent!.replace(/\s+/g, " ").trim());
  return found
    .filter(Boolean)
    .join(" ")
    .replace(/ ([.,;:)])/g, "$1")
    .replace(/\( /g, "(");
}

/** What the page says, in one line. */
export const said = (): string => words(document.body);

/** What elements say. */
export const texts = (selector: string): string[] => [...document.querySelectorAll(selector)].map(words);
