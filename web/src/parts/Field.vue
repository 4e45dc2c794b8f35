<script setup lang="ts">
import { unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, nextTick, onMounted, ref, watch } from "vue";
import Choice from "./Choice.vue";
import { faultText, fromText, toText, type Editor } from "./edit";
import type { FieldSaver } from "./saving";

const props = defineProps<{
  label: string;
  /** Stored value, SI. */
  value: unknown;
  /** What counts where there is no value; it shows in italics. */
  inherited?: unknown;
  /** One sentence for who wonders. */
  help?: string;
  editor: Editor;
  /** Saves the value; throws when it is refused. */
  save: ((value: unknown) => Promise<void>) | FieldSaver;
  /** Only the input, the label stays for readers. */
  bare?: boolean;
  /** Within a sentence: the input and its unit, as wide as they need be; the label stays for readers. */
  inline?: boolean;
}>();
const view = useView();
const typed = ref<string | null>(null);
const fault = ref("");
const effective = computed(() => props.value ?? props.inherited);
const shown = computed(() => typed.value ?? toText(effective.value, props.editor, view.system));

watch(
  () => [effective.value, view.system],
  () => {
    if (!fault.value) typed.value = null;
  },
);

async function keep(text: string): Promise<void> {
  typed.value = text;
  if (text === toText(effective.value, props.editor, view.system)) {
    typed.value = null;
    fault.value = "";
    return;
  }
  // What is inherited can be stepped back to by emptying the field.
  const editor = props.inherited == null ? props.editor : { ...props.editor, clearable: true };
  const read = fromText(text, editor, view.system);
  fault.value = read.fault;
  if (read.fault) return;
  try {
    await props.save(read.value);
    typed.value = null;
  } catch (error) {
    fault.value = faultText(error, props.editor, view.system);
  }
}

const choices = computed(() => [
  ...(props.editor.clearable ? [{ value: "", label: props.editor.empty ?? "–" }] : []),
  ...(props.editor.choices ?? []),
]);

/** Take the cursor where this field is the one that is wanted. */
const box = ref<HTMLElement | null>(null);
async function focusIfWanted(): Promise<void> {
  const of = "of" in props.save ? props.save.of() : null;
  const wanted = view.wanted;
  if (!wanted || !of || of.kind !== wanted.kind || of.id !== wanted.id || of.field !== wanted.field) return;
  view.wanted = null;
  await nextTick();
  box.value?.querySelector("input")?.focus();
}
watch(() => view.wanted, focusIfWanted, { flush: "post" });
onMounted(focusIfWanted);

function drop(): void {
  typed.value = null;
  fault.value = "";
}
</script>

<template>
  <div
    ref="box"
    class="field"
    :title="help"
    :class="{ bare, inline, bad: fault, wide: editor.type !== 'number' }"
  >
    <span class="label" :class="{ hidden: bare || inline }" aria-hidden="true">{{ label }}</span>
    <Choice
      v-if="editor.type === 'choice'"
      :label="label"
      :model-value="String(value ?? '')"
      :choices="choices"
      :fit="inline"
      @update:model-value="keep"
    />
    <v-checkbox-btn
      v-else-if="editor.type === 'yesno'"
      class="check"
      :model-value="Boolean(value)"
      :aria-label="label"
      @update:model-value="keep($event ? 'yes' : 'no')"
    />
    <v-text-field
      v-else
      class="slim"
      :class="{ num: editor.type === 'number', inherited: value == null && inherited != null }"
      :model-value="shown"
      :aria-label="label"
      :error="Boolean(fault)"
      :title="value == null && inherited != null ? 'the building\'s' : undefined"
      @update:model-value="typed = $event"
      @change="keep(($event.target as HTMLInputElement).value)"
      @keydown.enter="keep(($event.target as HTMLInputElement).value)"
      @keydown.esc="drop"
    />
    <span v-if="editor.quantity && !bare" class="unit">{{ unitOf(editor.quantity, view.system) }}</span>
    <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
  </div>
</template>

<style scoped>
.field {
  /* The hidden label stays by its field, so that it never stretches the page. */
  position: relative;
  display: grid;
  grid-template-columns: minmax(120px, 1fr) 92px 62px;
  align-items: center;
  gap: 6px;
  min-height: 28px;
  max-width: 440px;
}
.field.wide {
  grid-template-columns: minmax(84px, 1fr) 160px;
}
.field.bare,
.field.bare.wide {
  display: block;
}
.field.inline,
.field.inline.wide {
  display: inline-flex;
  gap: 0;
  vertical-align: middle;
  min-height: 0;
}
.field.inline .num {
  width: 70px;
}
.field.inline :deep(.choice) {
  flex: none;
}
.field.inline .unit {
  margin: 0 1px 0 3px;
}
.label {
  color: var(--soft);
}
.num :deep(input) {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.inherited :deep(input) {
  font-style: italic;
  color: var(--soft);
}
.hidden {
  position: absolute;
  clip-path: inset(50%);
  width: 1px;
  height: 1px;
  overflow: hidden;
}
.bad :deep(.v-field__outline) {
  --v-field-border-width: 1px;
  border-style: dashed;
}
.fault {
  grid-column: 1 / -1;
  display: block;
}
.check {
  grid-area: auto;
  justify-self: start;
  height: 24px;
}
</style>
