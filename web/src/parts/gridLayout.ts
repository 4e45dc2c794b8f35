import { reactive, watch } from "vue";

/** How the columns of a grid are laid out: what differs from how it was built. */
export interface Layout {
  hidden: Record<string, boolean>;
  widths: Record<string, number>;
  order: string[];
  /** Columns that stay at the left; null: as built. */
  pinned: string[] | null;
}

const AS_BUILT = (): Layout => ({ hidden: {}, widths: {}, order: [], pinned: null });

function read(place: string): Layout {
  try {
    return { ...AS_BUILT(), ...(JSON.parse(localStorage.getItem(place) ?? "{}") as Partial<Layout>) };
  } catch {
    return AS_BUILT(); // what cannot be read is as if nothing had been kept
  }
}

/** The layout of a grid of a name, remembered in this browser. */
export function useLayout(name: string): { layout: Layout; reset: () => void } {
  const place = `pendrum/columns/${name}`;
  const layout = reactive(read(place));
  watch(layout, () => localStorage.setItem(place, JSON.stringify(layout)));
  return { layout, reset: () => Object.assign(layout, AS_BUILT()) };
}
