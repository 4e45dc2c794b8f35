import { fileURLToPath } from "node:url";
import boundaries from "eslint-plugin-boundaries";
import vue from "eslint-plugin-vue";
import ts from "typescript-eslint";

// One direction: the frame shows stages, stages use parts and stores, everything rests on units and the API.
const MAY_IMPORT = {
  app: ["app", "stages", "parts", "document", "results", "view", "units", "api"],
  stages: ["parts", "document", "results", "view", "units", "api"],
  parts: ["parts", "document", "results", "view", "units", "api"],
  document: ["document", "results", "api"],
  results: ["results", "units", "api"],
  view: ["view", "units"],
  units: ["units"],
  api: ["api"],
};
const layers = ["app", "stages", "parts", "document", "results", "view", "units", "api"];

export default [
  { ignores: ["src/api/schema.d.ts", "dist"] },
  ...ts.configs.recommended,
  ...vue.configs["flat/essential"],
  { files: ["**/*.vue"], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    files: ["src/**/*.{ts,vue}"],
    plugins: { boundaries },
    settings: {
      "import/resolver": { [fileURLToPath(new URL("./eslint-resolver.cjs", import.meta.url))]: {} },
      "boundaries/elements": layers.map((type) =>
        type === "stages"
          ? { type, pattern: "src/stages/*", capture: ["stage"] }
          : { type, pattern: `src/${type}` },
      ),
    },
    rules: {
      "boundaries/dependencies": [
        "error",
        {
          default: "disallow",
          policies: Object.entries(MAY_IMPORT).map(([type, allowed]) => ({
            from: { element: { type } },
            allow: { to: allowed.map((other) => ({ element: { type: other } })) },
          })),
        },
      ],
      "vue/multi-word-component-names": "off",
      "@typescript-eslint/no-explicit-any": "error",
    },
  },
  {
    // Controls are the component library's, set up in parts/.
    files: ["src/app/**/*.vue", "src/stages/**/*.vue"],
    rules: {
      "vue/no-restricted-html-elements": [
        "error",
        ...["button", "select", "input", "textarea", "table", "dialog", "progress"].map((element) => ({
          element,
          message: "Use the component library's, or a part of parts/.",
        })),
      ],
    },
  },
];
