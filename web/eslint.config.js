import boundaries from "eslint-plugin-boundaries";
import vue from "eslint-plugin-vue";
import ts from "typescript-eslint";

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
      "import/resolver": { typescript: true, node: { extensions: [".ts", ".vue"] } },
      "boundaries/elements": layers.map((type) =>
        type === "stages"
          ? { type, pattern: "src/stages/*", capture: ["stage"] }
          : { type, pattern: `src/${type}` },
      ),
    },
    rules: {
      "vue/multi-word-component-names": "off",
      "@typescript-eslint/no-explicit-any": "error",
      "no-restricted-imports": ["error", { patterns: ["@/stages/*/*/../*"] }],
    },
  },
];
