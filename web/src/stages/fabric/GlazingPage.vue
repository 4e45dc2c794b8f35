<script setup lang="ts">
import { setField, useDocument } from "@/document/store";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import LineChart from "@/parts/LineChart.vue";
import { choicesOf } from "@/parts/saving";
import { useShared } from "@/parts/shared";
import SharedPage from "@/parts/SharedPage.vue";
import UsedIn from "@/parts/UsedIn.vue";
import { useResults } from "@/results/store";
import { computed } from "vue";
import GlazingSummary from "./GlazingSummary.vue";

const props = defineProps<{ id: string }>();
const emit = defineEmits<{ open: [id: string] }>();
const doc = useDocument();
const results = useResults();
const found = computed(() => results.get("glazing", props.id));
const glazing = computed(() => doc.get("glazing", props.id)!);
const shared = useShared("glazing", () => props.id);
const field = fieldsFor("glazing", () => glazing.value);
const series = computed(() => [
  {
    name: "bare",
    colour: "var(--sun)",
    values: (found.value?.factors ?? []).map((factor) => factor * glazing.value.g_value),
  },
  ...(glazing.value.blind === "none"
    ? []
    : [
        {
          name: "blind drawn",
          colour: "var(--windows)",
          dashed: true,
          values: (found.value?.factors ?? []).map(
            (factor) => factor * glazing.value.g_value * (glazing.value.blind_factor ?? 1),
          ),
        },
      ]),
]);
const schedules = computed(() => choicesOf(doc.rows("schedule").filter((row) => row.kind !== "temperature")));
const gaps = computed(() => glazing.value.build_up ?? []);

function saveGap(index: number, key: string) {
  return (value: unknown): Promise<void> => {
    const rows = gaps.value.map((row, i) => (i === index ? { ...row, [key]: value } : row));
    return doc.commit("Panes", setField("glazing", props.id, "build_up", rows));
  };
}
async function setGaps(rows: typeof gaps.value): Promise<void> {
  const fields = { build_up: rows, panes: Math.min(3, rows.length + 1) };
  await doc.attempt("Panes", [{ op: "set", kind: "glazing", id: props.id, fields }]);
}
const NEW_GAP = { gap_mm: 16, gas: "argon" as const, emissivity_1: 0.837, emissivity_2: 0.03, pane_mm: 4 };
</script>

<template>
  <SharedPage :shared="shared" :name="glazing.name" @open="emit('open', $event)">
    <div class="body two">
      <section>
        <Field v-bind="field('name')" />
        <h2>Heat</h2>
        <Field v-bind="field('basis')" />
        <Field v-if="glazing.basis === 'whole'" v-bind="field('u_value')" />
        <template v-else>
          <Field v-if="glazing.basis === 'parts' || !gaps.length" v-bind="field('centre_u_value')" />
          <template v-if="glazing.basis === 'panes'">
            <v-table class="plain panes">
              <thead>
                <tr>
                  <th>gap, mm</th>
                  <th>gas</th>
                  <th>ε out</th>
                  <th>ε in</th>
                  <th>pane, mm</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="(gap, i) in gaps" :key="i">
                  <td>
                    <Field
                      bare
                      :label="`Gap ${i + 1}`"
                      :value="gap.gap_mm"
                      :editor="{ type: 'number', quantity: 'ratio' }"
                      :save="saveGap(i, 'gap_mm')"
                    />
                  </td>
                  <td>
                    <Field
                      bare
                      :label="`Gas ${i + 1}`"
                      :value="gap.gas"
                      :editor="{
                        type: 'choice',
                        choices: ['air', 'argon', 'krypton'].map((v) => ({ value: v, label: v })),
                      }"
                      :save="saveGap(i, 'gas')"
                    />
                  </td>
                  <td>
                    <Field
                      bare
                      :label="`Emissivity ${i + 1} outer face`"
                      :value="gap.emissivity_1"
                      :editor="{ type: 'number', quantity: 'ratio' }"
                      :save="saveGap(i, 'emissivity_1')"
                    />
                  </td>
                  <td>
                    <Field
                      bare
                      :label="`Emissivity ${i + 1} inner face`"
                      :value="gap.emissivity_2"
                      :editor="{ type: 'number', quantity: 'ratio' }"
                      :save="saveGap(i, 'emissivity_2')"
                    />
                  </td>
                  <td>
                    <Field
                      bare
                      :label="`Pane ${i + 2}`"
                      :value="gap.pane_mm"
                      :editor="{ type: 'number', quantity: 'ratio' }"
                      :save="saveGap(i, 'pane_mm')"
                    />
                  </td>
                </tr>
              </tbody>
            </v-table>
            <p>
              <TextAct :disabled="gaps.length >= 2" @click="setGaps([...gaps, { ...NEW_GAP }])">
                + gap and pane
              </TextAct>
              <TextAct v-if="gaps.length" class="second" @click="setGaps(gaps.slice(0, -1))">
                one less
              </TextAct>
            </p>
          </template>
          <Field v-bind="field('frame_u_value')" />
          <Field v-bind="field('edge_psi_w_mk')" />
          <p class="soft small">
            Centre by EN 673, window by ISO 10077-1; each opening has its own by its size.
          </p>
        </template>
        <Field v-bind="field('frame_share')" />
        <h2>Sun</h2>
        <Field v-bind="field('g_value')" />
        <Field v-bind="field('panes')" />
        <Field v-bind="field('blind')" />
        <template v-if="glazing.blind !== 'none'">
          <Field v-bind="field('blind_factor')" />
          <Field v-if="glazing.blind !== 'outside'" v-bind="field('blind_air_share')" />
          <Field v-bind="field('blind_rule')" />
          <Field v-if="glazing.blind_rule === 'irradiance'" v-bind="field('blind_threshold_w_m2')" />
          <Field
            v-if="glazing.blind_rule === 'schedule'"
            v-bind="field('blind_schedule', { choices: schedules })"
          />
        </template>
      </section>
      <section>
        <GlazingSummary
          v-if="found"
          :found="found"
          :before="results.prior('glazing', id)"
          :frame-share="glazing.frame_share ?? 0"
        />
        <div class="chart">
          <LineChart
            title="Solar factor by angle of incidence"
            unit="–"
            :series="series"
            :x="found?.angles_deg ?? []"
            :x-ticks="[0, 15, 30, 45, 60, 75, 90]"
            x-unit="°"
            zero
          />
        </div>
        <p class="soft small">
          Surface to surface R = 1/U − 0.17 m²K/W. The angular course follows the pane count: ASHRAE Handbook
          Fundamentals 2017, ch. 15, clear panes. A drawn blind changes the sun, not the U-value.
        </p>
        <UsedIn :shared="shared" @open="emit('open', $event)" />
      </section>
    </div>
  </SharedPage>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 380px minmax(0, 1fr);
  gap: 28px;
}
.chart {
  height: 210px;
}
h2 {
  margin-top: 10px;
}
.small {
  font-size: 12px;
}
.panes th:nth-child(2) {
  width: 84px;
}
.panes td,
.panes th {
  padding: 1px 3px;
}
.second {
  margin-left: 12px;
}
</style>
