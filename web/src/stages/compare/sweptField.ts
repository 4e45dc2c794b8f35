import { useDocument } from "@/document/store";
import { format, fromShown, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import { spread, SWEEPABLE } from "./sweeps";

export type SweptField = ReturnType<typeof useSweptField>;

export const FIELDS = SWEEPABLE.map((one, value) => ({ value, label: one.label }));

/** One field of one thing with its range, in the figures shown; `first` is its place among what can be swept. */
export function useSweptField(first: number) {
  const doc = useDocument();
  const view = useView();
  const at = ref(first);
  const thing = ref("");
  const [from, to] = [ref(0), ref(0)];
  const field = computed(() => SWEEPABLE[at.value] ?? SWEEPABLE[0]!);
  const things = computed(() =>
    doc.rows(field.value.kind).map((one) => {
      const named = one as { id: string; name?: string; number?: string; assembly?: string; material?: string; surface?: string };
      const of =
        field.value.kind === "layer"
          ? `${doc.get("assembly", named.assembly)?.name ?? ""}: ${doc.get("material", named.material)?.name ?? ""}`
          : field.value.kind === "opening"
            ? `${doc.get("room", doc.get("surface", named.surface)?.room)?.number ?? ""} ${named.name ?? ""}`
            : [named.number, named.name].filter(Boolean).join(" ");
      return { value: named.id, label: of };
    }),
  ); // prettier-ignore
  const reset = () => {
    thing.value = things.value[0]?.value ?? "";
    from.value = Number(toShown(field.value.from, field.value.quantity, view.system).toPrecision(4));
    to.value = Number(toShown(field.value.to, field.value.quantity, view.system).toPrecision(4));
  };
  watch([at, () => view.system], reset, { immediate: true });
  const values = (count: number) =>
    spread(from.value, to.value, count).map((value) => fromShown(value, field.value.quantity, view.system));
  const told = (value: number | null) =>
    `${format(value, field.value.quantity, view.system, 1)} ${unitOf(field.value.quantity, view.system)}`;
  /** What the server calls it. */
  const address = computed(() => ({ kind: field.value.kind, id: thing.value, field: field.value.field }));
  return { at, thing, from, to, field, things, values, told, address };
}
