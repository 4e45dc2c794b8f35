import { client, unwrap, type Schemas } from "@/api/client";
import { useDocument } from "@/document/store";
import { useView } from "@/view/store";
import { computed, ref, watch, type ComputedRef, type Ref } from "vue";

/** Courses of a design day, and of one surface on it. */
export type PlaceDay = Schemas["PlaceDay"];

/** The design day on the rail, followed as it and the document change. */
export function usePlaceDay(
  tilt: Ref<number> = ref(90),
  azimuth: Ref<number> = ref(180),
): { day: Ref<PlaceDay | null>; month: ComputedRef<number> } {
  const doc = useDocument();
  const view = useView();
  const day = ref<PlaceDay | null>(null);
  // The winter day has no sun to draw: July stands in while it is chosen on the rail.
  const month = computed(() =>
    view.month === 13 && !doc.site?.dehumidification_month ? 7 : view.month || 7,
  );
  watch(
    [month, () => doc.version, tilt, azimuth],
    async (_now, _old, onCleanup) => {
      let stale = false;
      onCleanup(() => (stale = true));
      const query = { month: month.value, tilt: tilt.value, azimuth: ((azimuth.value % 360) + 360) % 360 };
      const answer = await client.GET("/api/projects/{project_id}/place", {
        params: { path: { project_id: doc.projectId }, query },
      });
      if (!stale && answer.response.ok) day.value = unwrap(answer);
    },
    { immediate: true },
  );
  return { day, month };
}
