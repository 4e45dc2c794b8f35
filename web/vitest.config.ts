import { mergeConfig } from "vite";
import { defineConfig } from "vitest/config";
import build from "./vite.config";

// Components and logic of the browser, in a made-up page.
export default mergeConfig(
  build,
  defineConfig({
    test: {
      include: ["tests/**/*.spec.ts"],
      environment: "happy-dom",
      setupFiles: ["tests/page.ts"],
      server: { deps: { inline: ["vuetify"] } },
      css: false,
      // A machine that is busy makes no test fail.
      testTimeout: 60_000,
    },
  }),
);
