// Runs the specs of the browser's pure logic in Node, through the same bundler that builds the interface.
import { createServer } from "vite";
import { readdirSync } from "node:fs";
import { fileURLToPath } from "node:url";

const here = fileURLToPath(new URL(".", import.meta.url));
const server = await createServer({
  configFile: false,
  root: fileURLToPath(new URL("..", import.meta.url)),
  logLevel: "error",
  server: { middlewareMode: true, watch: null, hmr: false, ws: false },
  optimizeDeps: { noDiscovery: true },
  resolve: { alias: { "@": fileURLToPath(new URL("../src", import.meta.url)) } },
});
for (const name of readdirSync(here).filter((file) => file.endsWith(".spec.ts"))) {
  await server.ssrLoadModule(`/tests/${name}`);
}
await server.close();
