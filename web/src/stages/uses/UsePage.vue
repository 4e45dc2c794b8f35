<script setup lang="ts">
import type { Use } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import { useShared } from "@/parts/shared";
import SharedPage from "@/parts/SharedPage.vue";
import UsedIn from "@/parts/UsedIn.vue";
import { useResults } from "@/results/store";
import { counted } from "@/units/units";
import { computed } from "vue";
import UseAir from "./UseAir.vue";
import UseDay from "./UseDay.vue";
import UseItems from "./UseItems.vue";
import UsePeople from "./UsePeople.vue";
import UsePower from "./UsePower.vue";
import UseSetPoints from "./UseSetPoints.vue";

const props = defineProps<{ use: Use }>();
const emit = defineEmits<{ open: [id: string] }>();
const results = useResults();
const shared = useShared("use", () => props.use.id);
const worked = computed(() => results.get("use", props.use.id));
const result = computed(() => results.get("group", props.use.id));
const before = computed(() => results.prior("group", props.use.id));
const field = fieldsFor("use", () => props.use);
</script>

<template>
  <SharedPage :shared="shared" :name="use.name" @open="emit('open', $event)">
    <template #head>
      <span class="soft"
        >{{ counted(shared.usages.value.length, "room")
        }}<template v-if="result"
          >, cooling together
          <Figure :value="result.cooling.sensible_w" :prior="before?.cooling.sensible_w" quantity="load" />,
          heating <Figure :value="result.heating_w" :prior="before?.heating_w" quantity="load" /></template
      ></span>
    </template>
    <div class="body two">
      <section class="sentences">
        <Field v-bind="field('name')" />
        <UsePeople :use="use" :worked="worked" />
        <UsePower :use="use" :worked="worked" />
        <UseAir :use="use" :worked="worked" />
        <UseSetPoints :use="use" />
        <div class="block">
          <h2>Yardstick</h2>
          <p>
            Cooling is ordinarily
            <Field inline v-bind="field('yardstick_low_w_m2')" />
            to
            <Field inline v-bind="field('yardstick_high_w_m2')" />. Without cooling, air above
            <Field inline v-bind="field('warm_limit_c')" />
            is too warm.
          </p>
        </div>
        <Field v-bind="field('source')" />
      </section>
      <section class="right">
        <UseDay :worked="worked" />
        <UseItems :use="use" />
        <UsedIn :shared="shared" @open="emit('open', $event)" />
      </section>
    </div>
  </SharedPage>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 480px) minmax(0, 1fr);
  gap: 24px;
  overflow: hidden;
}
.sentences,
.right {
  overflow: auto;
  min-height: 0;
  padding-right: 8px;
}
.sentences :deep(.block) {
  border-top: 1px solid var(--hair);
  padding: 6px 0 2px;
}
.sentences :deep(.block p) {
  line-height: 29px;
  margin: 0;
}
.sentences :deep(h2) {
  margin: 0;
}
.sentences :deep(.derived) {
  color: var(--soft);
  font-size: 12px;
  font-style: italic;
}
.sentences :deep(p.derived) {
  line-height: 18px;
}
</style>
