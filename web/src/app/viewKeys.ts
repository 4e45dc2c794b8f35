/** Keys that work on one stage alone, with what they do. */
export const VIEW_KEYS: Record<string, [key: string, what: string][]> = {
  fabric: [
    ["↑ ↓ in the list", "the assembly, glazing or shading before and after"],
    ["Alt+↑, Alt+↓ on a layer", "outwards, inwards"],
  ],
  schedules: [
    ["↑ ↓ in the list", "the schedule before and after"],
    ["← →, Home, End in the ribbon", "another hour; with Shift more of them"],
    ["figures, Enter in the ribbon", "set the chosen hours"],
    ["↑ ↓ in the ribbon", "a step more, a step less"],
    ["Alt+← →", "chosen hours, or the day, earlier and later"],
    ["M", "take the chosen hours, or the day, from the pattern laid over"],
    ["Ctrl+V in the ribbon", "a row of 24, 48, 96 or 1440 figures"],
    ["arrows, Enter in the calendar", "another day, another week; paint the day"],
  ],
  uses: [["↑ ↓ in the list", "the use before and after"]],
  rooms: [
    ["Alt+arrows on the plan", "move the chosen room; with Shift by a metre"],
    ["Enter, Esc on the plan", "close an outline, give it up"],
  ],
  air: [["↑ ↓ in the list", "the system before and after"]],
  year: [
    ["Ctrl+Enter", "calculate the year"],
    ["Alt+← →", "the week before and after"],
  ],
  water: [["↑ ↓ in the list", "the circuit before and after"]],
};
