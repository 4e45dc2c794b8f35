import { alike, broughtBack, copyOf, hold, type Held } from "@/document/copies";
import { useDocument } from "@/document/store";
import type { Change, Kind } from "@/document/types";
import { roomsReached, usagesOf, type Usage } from "@/document/usage";
import { counted } from "@/units/units";
import { computed, ref, shallowRef, toValue, watch, type MaybeRefOrGetter } from "vue";

/**
 * What a page does with a thing that several places use: it tells where, and after an edit or before a deletion it asks
 * whether that is meant for all of them. Leaving the page means yes; one step of undo takes either answer back.
 */
export function useShared(kind: Kind, id: MaybeRefOrGetter<string>) {
  const doc = useDocument();
  const usages = computed(() => usagesOf(kind, toValue(id)));
  const rooms = computed(() => roomsReached(usages.value).size);
  const reach = computed(() => {
    if (usages.value.every((usage) => usage.kind === "room")) return counted(usages.value.length, "room");
    const places = counted(usages.value.length, "place");
    return rooms.value ? `${places}, ${counted(rooms.value, "room")}` : places;
  });
  const others = computed(() =>
    (doc.rows(kind) as unknown as { id: string; name: string }[]).filter((row) => row.id !== toValue(id)),
  );
  const now = computed(() => hold(kind, toValue(id)));
  const base = shallowRef<Held | null>(now.value);
  const asking = ref(false);
  watch(
    () => toValue(id),
    () => {
      base.value = now.value;
      asking.value = false;
    },
  );
  /** Whether it was changed here, and more than one place feels it. */
  const changed = computed(
    () =>
      usages.value.length > 1 && now.value !== null && base.value !== null && !alike(base.value, now.value),
  );

  function named(): string {
    return (now.value?.row as { name?: string } | undefined)?.name ?? "";
  }
  function refer(usage: Usage, to: string): Change {
    return { op: "set", kind: usage.kind, id: usage.id, fields: { [usage.field]: to } };
  }

  /** The change is meant for all. */
  function keep(): void {
    base.value = now.value;
  }

  async function give(usage: Usage, back: Change[]): Promise<string> {
    if (!now.value) return "";
    const [made, changes] = copyOf(now.value, `${named()}, ${usage.name}`);
    const label = `${named()}: a copy for ${usage.name}`;
    return (await doc.attempt(label, [...changes, ...back, refer(usage, made)])) ? made : "";
  }

  /** Give one place a copy as it stands; the thing itself stays as it stands too. The copy's id, or "". */
  function copyFor(usage: Usage): Promise<string> {
    return give(usage, []);
  }

  /** What was changed since the page was opened counts in one place alone: it gets a copy, the thing is brought back. */
  function onlyFor(usage: Usage): Promise<string> {
    return give(usage, base.value && now.value ? broughtBack(base.value, now.value) : []);
  }

  /** A copy that nothing uses yet; its id, or "". */
  async function copy(): Promise<string> {
    if (!now.value) return "";
    const [made, changes] = copyOf(now.value, `${named()}, copy`);
    return (await doc.attempt(`Copy of ${named()}`, changes)) ? made : "";
  }

  /** Delete it, or ask what takes its place where it is used. Whether it is gone. */
  async function remove(): Promise<boolean> {
    asking.value = usages.value.length > 0;
    return (
      !asking.value && doc.attempt(`${named()} deleted`, [{ op: "delete", kind, id: toValue(id) }])
    );
  } // prettier-ignore

  /** Put another thing in every place and delete this one. Whether that was done. */
  async function replace(other: string): Promise<boolean> {
    const changes = usages.value.map((usage) => refer(usage, other));
    return doc.attempt(`${named()} replaced everywhere and deleted`, [
      ...changes,
      { op: "delete", kind, id: toValue(id) },
    ]);
  }

  return { usages, rooms, reach, others, changed, asking, keep, copyFor, onlyFor, copy, remove, replace };
}

export type Shared = ReturnType<typeof useShared>;
