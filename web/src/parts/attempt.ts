import { Refusal } from "@/api/client";
import { ref, type Ref } from "vue";

/** Do something that may be refused: while it is under way `busy`, and why it was refused as a sentence in `fault`. */
export function useAttempt(): {
  busy: Ref<boolean>;
  fault: Ref<string>;
  attempt: (work: () => Promise<void>) => Promise<boolean>;
} {
  const busy = ref(false);
  const fault = ref("");
  async function attempt(work: () => Promise<void>): Promise<boolean> {
    busy.value = true;
    fault.value = "";
    try {
      await work();
    } catch (error) {
      fault.value = error instanceof Refusal ? error.message : String(error);
    } finally {
      busy.value = false;
    }
    return fault.value === "";
  }
  return { busy, fault, attempt };
}
