import { useDocument } from "@/document/store";
import { onBeforeUnmount, onMounted } from "vue";

const EVERY_MS = 1500;

/** Take what others change in the open project, and hold back from leaving while an edit waits for the connection. */
export function useFollowing(): void {
  const doc = useDocument();
  let timer: ReturnType<typeof setInterval> | undefined;
  const ask = () => {
    if (document.visibilityState === "visible") void doc.refresh();
  };
  const hold = (event: BeforeUnloadEvent) => {
    if (doc.waiting > 0) event.preventDefault();
  };
  onMounted(() => {
    timer = setInterval(ask, EVERY_MS);
    document.addEventListener("visibilitychange", ask);
    window.addEventListener("online", ask);
    window.addEventListener("beforeunload", hold);
  });
  onBeforeUnmount(() => {
    clearInterval(timer);
    document.removeEventListener("visibilitychange", ask);
    window.removeEventListener("online", ask);
    window.removeEventListener("beforeunload", hold);
  });
}
