import { onBeforeUnmount, onMounted, ref, type Ref } from "vue";

/** Size of an element [px], followed as it changes. The last 16 px are left for a caption line. */
export function useElementSize(element: Ref<HTMLElement | null>): {
  width: Ref<number>;
  height: Ref<number>;
} {
  const width = ref(300);
  const height = ref(150);
  let observer: ResizeObserver | undefined;
  onMounted(() => {
    if (!element.value) return;
    observer = new ResizeObserver(([entry]) => {
      if (!entry) return;
      width.value = Math.max(60, entry.contentRect.width);
      height.value = Math.max(
        40,
        entry.contentRect.height - (element.value?.querySelector("figcaption")?.clientHeight ?? 0),
      );
    });
    observer.observe(element.value);
  });
  onBeforeUnmount(() => observer?.disconnect());
  return { width, height };
}
