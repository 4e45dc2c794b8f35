import { client, unwrap, type Schemas } from "@/api/client";
import { useSession } from "@/document/session";
import { newId, useDocument } from "@/document/store";
import { onBeforeUnmount, onMounted, ref, watch, type Ref } from "vue";
import { useRoute } from "vue-router";
import { STAGES } from "./stages";

const EVERY_MS = 5000;

/** Initials for a narrow place: of two words one letter each, else the first two letters. */
export function initials(name: string): string {
  const words = name.split(/[\s._-]+/).filter(Boolean);
  const letters = words.length > 1 ? words[0]![0]! + words[1]![0]! : (words[0] ?? "").slice(0, 2);
  return letters.toUpperCase();
}

/** Somebody else who is here, with the stages that their windows show. */
export interface Other {
  name: string;
  stages: string[];
}

/** Windows by whose they are, without one's own: a second one of the same person is nobody else. */
export function people(windows: Schemas["HereOut"][], own: string): Other[] {
  const found = new Map<string, Set<string>>();
  for (const { name, stage } of windows) {
    const shown = STAGES.find((one) => one.key === stage)?.name;
    if (name === own) continue;
    const stages = found.get(name) ?? new Set<string>();
    if (shown) stages.add(shown);
    found.set(name, stages);
  }
  return [...found].map(([name, stages]) => ({ name, stages: [...stages] }));
}

/** In one line what is told of somebody. */
export function whereabouts(one: Other): string {
  return one.stages.length ? `${one.name}: on ${one.stages.join(", ")}` : one.name;
}

/** Others who have the open project open, told anew every few seconds; and tell them what this window shows. */
export function useOthers(): Ref<Other[]> {
  const doc = useDocument();
  const session = useSession();
  const route = useRoute();
  const others = ref<Other[]>([]);
  const thisWindow = newId();
  let timer: ReturnType<typeof setInterval> | undefined;
  async function tell(): Promise<void> {
    if (!doc.projectId || !session.user || document.visibilityState !== "visible") return;
    const params = { path: { project_id: doc.projectId } };
    const body = { window: thisWindow, stage: String(route.name ?? "") };
    try {
      const windows = unwrap(await client.POST("/api/projects/{project_id}/here", { params, body }));
      others.value = people(windows, session.user);
    } catch {
      // Without a connection nobody is known to be here; the strip tells of the connection.
      others.value = [];
    }
  }
  onMounted(() => {
    timer = setInterval(() => void tell(), EVERY_MS);
  });
  onBeforeUnmount(() => clearInterval(timer));
  watch(() => [doc.projectId, route.name], tell, { immediate: true });
  return others;
}
