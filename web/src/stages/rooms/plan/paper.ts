import { useElementSize } from "@/parts/size";
import { ref, watch, type Ref } from "vue";
import type { Outline, Point } from "./outline";

const LEAST_SCALE = 2;
const MOST_SCALE = 300;

/**
 * The part of a plan that is shown in a box: metres at its left and lower edge, and pixels per metre. It is fitted to its box
 * until somebody takes hold of it, and again for another `sheet`.
 */
export function usePaper(box: Ref<HTMLElement | null>, sheet: () => unknown, corners: () => Point[]) {
  const { width, height } = useElementSize(box);
  const scale = ref(20);
  const origin = ref<Point>([0, 0]);
  const held = ref(false);
  const toX = (x: number) => (x - origin.value[0]) * scale.value;
  const toY = (y: number) => height.value - (y - origin.value[1]) * scale.value;
  const path = (outline: Outline) => outline.map(([x, y]) => `${toX(x)},${toY(y)}`).join(" ");

  function toPlan(event: { clientX: number; clientY: number }): Point {
    const rect = box.value!.getBoundingClientRect();
    return [
      (event.clientX - rect.left) / scale.value + origin.value[0],
      (height.value - (event.clientY - rect.top)) / scale.value + origin.value[1],
    ];
  }

  /** Show everything that is drawn. */
  function fit(): void {
    const all = corners();
    if (!all.length || width.value < 50 || height.value < 120) {
      [scale.value, origin.value] = [20, [-2, -2]];
      return;
    }
    const [xs, ys] = [all.map((p) => p[0]), all.map((p) => p[1])];
    const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    scale.value = Math.min(
      (width.value - 70) / Math.max(x1 - x0, 1),
      (height.value - 100) / Math.max(y1 - y0, 1),
    );
    origin.value = [
      (x0 + x1) / 2 - width.value / 2 / scale.value,
      (y0 + y1) / 2 - (height.value / 2 + 14) / scale.value,
    ];
  }

  /** Nearer or further, about the point under the pointer. */
  function zoom(event: WheelEvent): void {
    held.value = true;
    const at = toPlan(event);
    const next = Math.max(LEAST_SCALE, Math.min(MOST_SCALE, scale.value * Math.exp(-event.deltaY / 500)));
    origin.value = [
      at[0] - ((at[0] - origin.value[0]) * scale.value) / next,
      at[1] - ((at[1] - origin.value[1]) * scale.value) / next,
    ];
    scale.value = next;
  }

  watch(sheet, () => (held.value = false));
  watch(
    [sheet, width, height],
    ([, , now], [, , before]) => {
      if (!held.value) fit();
      // The paper's lower edge may move: what is on the screen stays where it is.
      else origin.value = [origin.value[0], origin.value[1] + ((before ?? now) - now) / scale.value];
    },
    { immediate: true },
  );

  return { width, height, scale, origin, held, toX, toY, path, toPlan, fit, zoom };
}
