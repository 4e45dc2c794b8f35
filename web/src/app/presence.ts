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

/** In one line what is told of somebody: the name, and the stage by the name that it has here. */
export function whereabouts(one: Schemas["HereOut"], own: string): string {
  const stage = STAGES.find((found) => found.key === one.stage)?.name;
  const who = one.name === own ? `${one.name}, another window` : one.name;
  return stage ? `${who}: on ${stage}` : who;
}

/** Others who have the open project open, told anew every few seconds; and tell them what this window shows. */
export function useOthers(): Ref<Schemas["HereOut"][]> {
  const doc = useDocument();
  const session = useSession();
  const route = useRoute();
  const others = ref<Schemas["HereOut"][]>([]);
  const thisWindow = newId();
  let timer: ReturnType<typeof setInterval> | undefined;
  async function tell(): Promise<void> {
    if (!doc.projectId || !session.user || document.visibilityState !== "visible") return;
    const params = { path: { project_id: doc.projectId } };
    const body = { window: thisWindow, stage: String(route.name ?? "") };
    try {
      others.value = unwrap(await client.POST("/api/projects/{project_id}/here", { params, body }));
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
