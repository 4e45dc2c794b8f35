import { client, Refusal, type Problem, unwrap, type Schemas } from "@/api/client";
import { sendFile } from "@/api/files";
import { useDocument } from "@/document/store";
import { defineStore } from "pinia";
import { ref } from "vue";

export type Drawing = Schemas["DrawingOut"];

/** Pictures and lines that lie under the plans; kept beside the document. */
export const useDrawings = defineStore("drawings", () => {
  const doc = useDocument();
  const drawings = ref<Drawing[]>([]);
  const fault = ref("");
  let loaded = "";
  const path = (level: string) => `/api/projects/${doc.projectId}/levels/${level}/drawing`;

  async function load(): Promise<void> {
    if (loaded === doc.projectId) return;
    loaded = doc.projectId;
    const answer = await client.GET("/api/projects/{project_id}/drawings", {
      params: { path: { project_id: doc.projectId } },
    });
    drawings.value = answer.data ?? [];
  }

  function keep(drawing: Drawing): void {
    drawings.value = [...drawings.value.filter((item) => item.level !== drawing.level), drawing];
  }

  async function put(level: string, file: File): Promise<void> {
    try {
      keep(await sendFile<Drawing>(path(level), file));
      fault.value = "";
    } catch (error) {
      fault.value = error instanceof Refusal ? error.message : String(error);
    }
  }

  async function place(level: string, change: Partial<Drawing>): Promise<void> {
    const now = drawings.value.find((item) => item.level === level);
    if (!now) return;
    const { m_per_unit, x_m, y_m, hidden_layers } = { ...now, ...change };
    const answer = await client.PUT("/api/projects/{project_id}/levels/{level}/drawing", {
      params: { path: { project_id: doc.projectId, level } },
      body: { m_per_unit, x_m, y_m, hidden_layers },
    });
    fault.value = answer.response.ok ? "" : ((answer.error as Problem | undefined)?.title ?? "refused");
    if (answer.response.ok) keep(unwrap(answer));
  }

  async function remove(level: string): Promise<void> {
    await client.DELETE("/api/projects/{project_id}/levels/{level}/drawing", {
      params: { path: { project_id: doc.projectId, level } },
    });
    drawings.value = drawings.value.filter((item) => item.level !== level);
  }

  const of = (level: string) => drawings.value.find((item) => item.level === level);
  return { drawings, fault, load, of, path, put, place, remove };
}); // prettier-ignore
