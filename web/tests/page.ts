// What a made-up page lacks and the component library asks for.
import { config } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { beforeEach } from "vitest";
import { createVuetify } from "vuetify";
import { ALIASES, DEFAULTS } from "../src/parts/controls";
import { answered, unplug } from "./server";

class Observer {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
globalThis.ResizeObserver = Observer as unknown as typeof ResizeObserver;
globalThis.IntersectionObserver = Observer as unknown as typeof IntersectionObserver;
Object.defineProperty(globalThis, "visualViewport", { value: new EventTarget() });

// What asks the server gets a test's own answers (server.ts), or none: as where there is no connection.
globalThis.fetch = answered;
// Room to draw rows in: a made-up page measures nothing.
Object.defineProperty(HTMLElement.prototype, "clientHeight", { configurable: true, get: () => 600 });
Object.defineProperty(HTMLElement.prototype, "clientWidth", { configurable: true, get: () => 900 });

beforeEach(() => {
  unplug();
  localStorage.clear();
  document.body.innerHTML = "";
  const pinia = createPinia();
  setActivePinia(pinia);
  config.global.plugins = [pinia, createVuetify({ aliases: ALIASES, defaults: DEFAULTS })];
});
