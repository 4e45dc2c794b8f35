import { useDocument } from "@/document/store";
import { useResults } from "@/results/store";
import { useView } from "@/view/store";
import { onBeforeUnmount, onMounted } from "vue";
import { STAGES } from "./stages";

export interface KeyActions {
  openPanel: (name: "jump" | "keys" | "snags") => void;
  goTo: (stage: string) => unknown;
}

function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.matches("input:not([type=checkbox]), select, textarea");
}

/** Move hour and month to the peak of what is selected. */
export function jumpToPeak(): void {
  const view = useView();
  const results = useResults();
  const record =
    view.subject.kind === "room"
      ? results.get("room", view.subject.id)
      : results.get("group", view.subject.id);
  const peak = record?.cooling;
  if (peak) {
    view.month = peak.month;
    view.step = peak.step;
  }
}

/** The keys that work everywhere. */
export function useKeys(actions: KeyActions): void {
  const doc = useDocument();
  const view = useView();
  let awaitingStage = false;

  function onKey(event: KeyboardEvent): void {
    const command = event.ctrlKey || event.metaKey;
    const key = event.key.toLowerCase();
    if (command && key === "k") actions.openPanel("jump");
    else if (command && key === "z" && !isTyping(event.target))
      void (event.shiftKey ? doc.redo() : doc.undo());
    else if (command || event.altKey || isTyping(event.target)) return;
    else if (awaitingStage) {
      awaitingStage = false;
      const stage = STAGES.find((item) => item.letter === key);
      if (stage) actions.goTo(stage.key);
    } else if (key === "g") awaitingStage = true;
    else if (key === "[" || key === "{") view.moveStep(event.shiftKey ? -6 : -1);
    else if (key === "]" || key === "}") view.moveStep(event.shiftKey ? 6 : 1);
    else if (key === "p") jumpToPeak();
    else if (key === "w") view.workingOpen = !view.workingOpen;
    else if (key === "l") view.rollOpen = !view.rollOpen;
    else if (key === "escape" && window.matchMedia("(max-width: 1099px)").matches)
      view.rollOpen = view.workingOpen = false;
    else if (key === "s") actions.openPanel("snags");
    else if (key === "/") actions.openPanel("jump");
    else if (key === "?") actions.openPanel("keys");
    else return;
    event.preventDefault();
  }

  onMounted(() => window.addEventListener("keydown", onKey));
  onBeforeUnmount(() => window.removeEventListener("keydown", onKey));
}
