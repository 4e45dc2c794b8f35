// Tells ESLint where an import leads, so that the contract between folders can be checked: "@/" is src, and an import
// without an ending may be a .ts file.
const fs = require("node:fs");
const path = require("node:path");

exports.interfaceVersion = 2;

exports.resolve = (source, file) => {
  if (!source.startsWith("@/") && !source.startsWith(".")) return { found: false };
  const base = source.startsWith("@/") ? path.join(__dirname, "src", source.slice(2)) : path.resolve(path.dirname(file), source);
  const found = [base, `${base}.ts`].find((candidate) => fs.existsSync(candidate) && fs.statSync(candidate).isFile());
  return found ? { found: true, path: found } : { found: false };
};
