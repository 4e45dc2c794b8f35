import { client, unwrap, type Schemas } from "@/api/client";
import { defineStore } from "pinia";
import { computed, ref } from "vue";
import { useDocument } from "./store";

/** An option: a layer over the base. */
export type Option = Schemas["OptionOut"];

export type Difference = Schemas["DifferenceOut"];

/** The base of the open project and its options; which of them is worked in is what the address says. */
export const useOptions = defineStore("options", () => {
  const doc = useDocument();
  const base = ref<{ id: string; name: string } | null>(null);
  const options = ref<Option[]>([]);
  /** The option that is worked in; none in the base. */
  const current = computed(() => options.value.find((option) => option.id === doc.projectId));

  /** Whether a project is the base of the open one, or an option on the same base. */
  function isRelated(id: string): boolean {
    return base.value?.id === id || options.value.some((option) => option.id === id);
  }

  async function load(): Promise<void> {
    const answer = await client.GET("/api/projects/{project_id}/options", {
      params: { path: { project_id: doc.projectId } },
    });
    if (!answer.response.ok) return;
    const found = answer.data!;
    base.value = found.base;
    options.value = found.options;
  }

  /** A new option, as another one where `like` names it. Throws a Refusal. */
  async function create(name: string, like?: string): Promise<Option> {
    const made = unwrap(
      await client.POST("/api/projects/{project_id}/options", {
        params: { path: { project_id: doc.projectId } },
        body: { name, like: like ?? null },
      }),
    );
    await load();
    return made;
  }

  async function set(id: string, fields: Schemas["OptionSet"]): Promise<void> {
    unwrap(
      await client.PATCH("/api/projects/{option_id}/option", {
        params: { path: { option_id: id } },
        body: fields,
      }),
    );
    await load();
  }

  /** Put an option away; it can be brought back by its number alone. */
  async function remove(id: string): Promise<void> {
    unwrap(
      await client.PUT("/api/projects/{project_id}/state", {
        params: { path: { project_id: id } },
        body: { state: "deleted" },
      }),
    );
    await load();
  }

  async function differences(id: string): Promise<Difference[]> {
    const answer = await client.GET("/api/projects/{option_id}/differences", {
      params: { path: { option_id: id } },
    });
    return unwrap(answer).differences;
  }

  /** Let the option's value of a field stand against the base's. */
  async function agree(id: string, of: { kind: string; id: string; field: string }): Promise<void> {
    unwrap(
      await client.POST("/api/projects/{option_id}/agree", {
        params: { path: { option_id: id } },
        body: { kind: of.kind, id: of.id, field: of.field },
      }),
    );
    await load();
  }

  /** Change a field in an option that need not be the one that is open. */
  async function put(id: string, of: Difference, value: unknown): Promise<void> {
    const { version } = unwrap(
      await client.GET("/api/projects/{option_id}/differences", { params: { path: { option_id: id } } }),
    );
    const change = { op: "set" as const, kind: of.kind, id: of.id, fields: { [of.field]: value } };
    unwrap(
      await client.POST("/api/projects/{project_id}/changes", {
        params: { path: { project_id: id } },
        body: { base_version: version, label: "As the base has it", changes: [change] },
      }),
    );
    await load();
  }

  /** Make the base what an option is, as one step of the base that can be undone. */
  async function takeOver(id: string): Promise<void> {
    const head = unwrap(
      await client.GET("/api/projects/{project_id}/document", {
        params: { path: { project_id: base.value!.id } },
      }),
    );
    unwrap(
      await client.POST("/api/projects/{option_id}/take-over", {
        params: { path: { option_id: id } },
        body: { base_version: head.version },
      }),
    );
    await Promise.all([load(), doc.refresh()]);
  }

  /** A project of its own of what an option is; its id. */
  async function detach(id: string, name: string): Promise<string> {
    const made = unwrap(
      await client.POST("/api/projects/{project_id}/copy", {
        params: { path: { project_id: id } },
        body: { name },
      }),
    );
    return made.id;
  }

  return {
    base, options, current, isRelated, load, create, set, remove, differences, agree, put, takeOver, detach,
  }; // prettier-ignore
});
