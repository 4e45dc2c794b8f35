import { client, unwrap, type Schemas } from "@/api/client";
import { defineStore } from "pinia";
import { computed, ref } from "vue";
import { useOptions } from "./options";
import { useDocument } from "./store";

/** Who is signed in, with the open projects that are something to them. */
export const useSession = defineStore("session", () => {
  const doc = useDocument();
  const options = useOptions();
  const user = ref("");
  const staff = ref(false);
  const projects = ref<Schemas["OpenProject"][]>([]);
  const role = computed(
    () => projects.value.find((project) => project.id === (options.base?.id ?? doc.projectId))?.role,
  );

  /** Throws a Refusal with status 401 where nobody is signed in. */
  async function load(): Promise<void> {
    const answer = unwrap(await client.GET("/api/session"));
    user.value = answer.user;
    staff.value = answer.staff;
    projects.value = answer.projects;
  }

  async function signIn(name: string, password: string): Promise<void> {
    unwrap(await client.POST("/api/sign-in", { body: { name, password } }));
    await load();
  }

  /** End the session; the page begins anew, so that nothing of the work is left in it. */
  async function signOut(sessions: "this" | "all" = "this"): Promise<void> {
    await client.POST("/api/sign-out", { body: { sessions } });
    window.location.assign("/");
  }

  return { user, staff, projects, role, load, signIn, signOut };
});
