// What the interface says, read out of its components: so that it can be read through in one go, and held to its rules.
import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import ts from "typescript";
import { parse } from "vue/compiler-sfc";

const SOURCE = join(__dirname, "../src");
/** Attributes and properties whose text people see or hear. */
const SEEN =
  /^(label|title|hint|text|placeholder|aria-label|alt|action|heading|subtitle|noun|what|name|message)$/;

export interface Said {
  file: string;
  text: string;
}

function files(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? files(join(folder, entry.name)) : [join(folder, entry.name)],
  );
}

/** Whether a text is one for people: it holds a word of letters, and is no key, class, colour or path. */
function isWords(text: string): boolean {
  return (
    /[A-Za-z]{2}/.test(text) &&
    !/^([a-z0-9]+([-_/.:#][A-Za-z0-9_-]*)+|var\(.*|'.*|#[0-9a-f]+|[a-z]+)$/.test(text)
  );
}

interface Node {
  type: number;
  content?: unknown;
  name?: string;
  props?: Node[];
  children?: Node[];
  value?: { content: string };
}
const TEXT = 2;
const ATTRIBUTE = 6;

/** Texts of a template: between tags, in attributes that are read, and the words in its expressions. */
function ofTemplate(node: Node, out: string[]): void {
  if (node.type === TEXT) out.push(String(node.content));
  for (const prop of node.props ?? []) {
    if (prop.type === ATTRIBUTE && prop.value && SEEN.test(prop.name ?? "")) out.push(prop.value.content);
  }
  for (const child of node.children ?? []) ofTemplate(child, out);
}

/** Texts of a script: strings with several words, those of properties that are read, and capitalised ones of records. */
function ofScript(code: string, out: string[]): void {
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
      const parent = node.parent;
      const read = ts.isPropertyAssignment(parent) && SEEN.test(parent.name.getText());
      const named = ts.isPropertyAssignment(parent) && /^[A-Z][a-z]+$/.test(node.text);
      if (/[A-Za-z] [a-zA-Z]/.test(node.text) || (read && /^[A-Z]/.test(node.text)) || named)
        out.push(node.text);
    } else if (ts.isTemplateExpression(node)) {
      const text = node.head.text + node.templateSpans.map((span) => `{…}${span.literal.text}`).join("");
      if (/[A-Za-z] [a-z]/.test(text)) out.push(text);
    }
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile("words.ts", code, ts.ScriptTarget.Latest, true));
}

/** All that the interface says of itself, file by file, in the order in which it stands there. */
export function said(): Said[] {
  return files(SOURCE)
    .filter((file) => /\.(vue|ts)$/.test(file) && !file.endsWith(".d.ts"))
    .sort()
    .flatMap((file) => {
      const out: string[] = [];
      const code = readFileSync(file, "utf8");
      if (file.endsWith(".vue")) {
        const { descriptor } = parse(code);
        if (descriptor.scriptSetup) ofScript(descriptor.scriptSetup.content, out);
        if (descriptor.template?.ast) ofTemplate(descriptor.template.ast as unknown as Node, out);
      } else ofScript(code, out);
      const texts = out.map((text) => text.replace(/\s+/g, " ").trim()).filter(isWords);
      return [...new Set(texts)].map((text) => ({ file: relative(SOURCE, file), text }));
    });
}
