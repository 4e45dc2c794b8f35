import type { Level, Room } from "@/document/types";
import { useView } from "@/view/store";
import { computed, ref, type ComputedRef, type Ref } from "vue";
import { usualUse } from "../levels";
import { usePlanEdits } from "./edits";
import { distanceBeside, length, moveCorner, moveWall, rectangle, shifted, snap, snapped, type Outline, type Point } from "./outline"; // prettier-ignore
import type { usePaper } from "./paper";

export const TOOLS = [
  { key: "choose", label: "Choose", hint: "Press a room; drag a corner or a wall of the chosen one." },
  { key: "rectangle", label: "Rectangle", hint: "Drag from corner to corner." },
  { key: "polygon", label: "Polygon", hint: "Press corner after corner; Enter or a double press closes it, Esc gives up." },
  { key: "split", label: "Split", hint: "Drag a line across the chosen room." },
] as const; // prettier-ignore
export type Tool = (typeof TOOLS)[number]["key"] | "scale";

interface Given {
  box: Ref<HTMLElement | null>;
  paper: ReturnType<typeof usePaper>;
  level: ComputedRef<Level | undefined>;
  room: ComputedRef<Room | undefined>;
  /** Outlines of the level's rooms by id, and all their corners. */
  outlines: ComputedRef<Map<string, Outline>>;
  corners: ComputedRef<Point[]>;
  grid: Ref<number>;
  nextNumber: () => string;
}

type Drag =
  | { what: "pan"; from: [number, number]; origin: Point }
  | { what: "corner"; from: Point }
  | { what: "wall"; a: Point; b: Point; start: Point }
  | { what: "draw"; from: Point };
/** Pointer and keys on the plan: choosing, drawing, dragging corners and walls, splitting. */
export function usePlanTools({ box, paper, level, room, outlines, corners, grid, nextNumber }: Given) {
  const view = useView();
  const edits = usePlanEdits();
  const { scale, origin, held, toPlan } = paper;
  const tool = ref<Tool>("choose");
  const chosen = ref<string[]>(view.selectedRoom ? [view.selectedRoom] : []);
  /** Outlines while they are dragged. */
  const drafts = ref(new Map<string, Outline>());
  const drawn = ref<Outline>([]);
  const picked = ref<Point[]>([]);
  const pointer = ref<Point>([0, 0]);
  /** Use that rooms get that are drawn, where none is chosen beside. */
  const newUse = ref("");
  const drag = ref<Drag | null>(null);
  const reach = computed(() => 9 / scale.value);
  const at = (event: PointerEvent, but: Point[] = []) =>
    snap(
      toPlan(event),
      corners.value.filter((p) => !but.some((q) => length(p, q) < 0.01)),
      grid.value,
      reach.value,
    );

  function press(event: PointerEvent): void {
    held.value = true;
    if (event.button === 1 || (event.button === 0 && tool.value === "choose")) {
      drag.value = { what: "pan", from: [event.clientX, event.clientY], origin: [...origin.value] };
    } else if (tool.value === "scale") {
      picked.value = [...picked.value, toPlan(event)].slice(-2);
      if (picked.value.length === 2) tool.value = "choose";
    } else if (event.button === 0 && tool.value === "polygon") drawn.value = [...drawn.value, at(event)];
    else if (event.button === 0) {
      drag.value = { what: "draw", from: at(event) };
      drawn.value = [drag.value.from, drag.value.from];
    }
    box.value?.setPointerCapture(event.pointerId);
  }

  function pressRoom(event: PointerEvent, id: string): void {
    held.value = true;
    if (tool.value !== "choose" || event.button !== 0) return;
    if (event.shiftKey)
      chosen.value = chosen.value.includes(id)
        ? chosen.value.filter((other) => other !== id)
        : [...chosen.value, id];
    else chosen.value = [id];
    view.selectRoom(id);
  }

  function move(event: PointerEvent): void {
    const now = drag.value;
    pointer.value = at(event);
    if (!now) return;
    if (now.what === "pan") {
      origin.value = [
        now.origin[0] - (event.clientX - now.from[0]) / scale.value,
        now.origin[1] + (event.clientY - now.from[1]) / scale.value,
      ];
    } else if (now.what === "corner")
      drafts.value = moveCorner(outlines.value, now.from, at(event, [now.from]));
    else if (now.what === "wall") {
      const by = snapped(distanceBeside(now.a, now.b, toPlan(event)), grid.value);
      drafts.value = by ? moveWall(outlines.value, now.a, now.b, by) : new Map();
    } else drawn.value = [now.from, pointer.value];
  }

  async function release(): Promise<void> {
    const now = drag.value;
    drag.value = null;
    if (!now || now.what === "pan") return;
    if (now.what === "draw") {
      const [a, b] = [now.from, drawn.value[1] ?? now.from];
      drawn.value = [];
      if (tool.value === "rectangle" && Math.abs(a[0] - b[0]) > 0.05 && Math.abs(a[1] - b[1]) > 0.05)
        await add(rectangle(a, b));
      if (tool.value === "split" && view.selectedRoom && length(a, b) > 0.05)
        await edits.split(view.selectedRoom, a, b);
      return;
    }
    const label = now.what === "wall" ? "Wall moved" : "Corner moved";
    await keep(label, drafts.value);
  }

  async function keep(label: string, changed: Map<string, Outline>): Promise<void> {
    await edits.keep(label, changed);
    drafts.value = new Map();
  }

  /** A new room with an outline; a room of the level that has none yet takes it where one is chosen. */
  async function add(outline: Outline): Promise<void> {
    const now = room.value;
    if (now && !now.outline_m && now.level === level.value?.id) {
      await edits.draw(now.id, now.number, outline);
      return;
    }
    const use = usualUse(now) ?? (newUse.value || null);
    const fields = { number: nextNumber(), level: level.value?.id ?? null, use, outline_m: outline };
    const id = await edits.create(fields);
    if (!id) return;
    chosen.value = [id];
    view.selectRoom(id);
  }

  async function join(): Promise<void> {
    await edits.join(chosen.value);
    chosen.value = chosen.value.slice(0, 1);
  }

  async function onKey(event: KeyboardEvent): Promise<void> {
    const arrows: Record<string, Point> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    };
    const arrow = arrows[event.key];
    if (event.key === "Escape") {
      drawn.value = [];
      drafts.value = new Map();
      drag.value = null;
      tool.value = "choose";
    } else if (event.key === "Enter" && tool.value === "polygon") await close();
    else if (arrow && room.value?.outline_m && event.altKey) {
      const by = event.shiftKey ? 1 : grid.value;
      await keep(
        "Room moved",
        new Map([[room.value.id, shifted(room.value.outline_m as Outline, arrow[0] * by, arrow[1] * by)]]),
      );
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  async function close(): Promise<void> {
    const outline = drawn.value.filter((p, i) => i === 0 || length(p, drawn.value[i - 1]!) > 0.01);
    drawn.value = [];
    if (outline.length >= 3) await add(outline);
  }

  function pressWall(event: PointerEvent, a: Point, b: Point): void {
    drag.value = { what: "wall", a, b, start: toPlan(event) };
    box.value?.setPointerCapture(event.pointerId);
  }
  function pressCorner(event: PointerEvent, from: Point): void {
    drag.value = { what: "corner", from };
    box.value?.setPointerCapture(event.pointerId);
  }
  function chooseRoom(id: string): void {
    chosen.value = [id];
    view.selectRoom(id);
  }

  return {
    tool, chosen, drafts, drawn, picked, pointer, newUse,
    press, pressRoom, pressWall, pressCorner, chooseRoom, move, release, keep, add, join, onKey, close,
  }; // prettier-ignore
}
