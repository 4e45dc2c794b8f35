import assert from "node:assert/strict";
import { test } from "vitest";
import { createPinia, setActivePinia } from "pinia";
import {
  declaredField,
  fieldsOf,
  KINDS,
  labelOf,
  quantityOf,
  targetOf,
  wordOf,
} from "../src/document/fields";
import { ownerOf, referring } from "../src/document/usage";
import { column, editorOf, sheetFields } from "../src/parts/declared";
import { fromText, toText } from "../src/parts/edit";
import { editText, parse, unitOf } from "../src/units/units";

setActivePinia(createPinia());

test("every declared figure has a quantity that the unit table knows", () => {
  let figures = 0;
  for (const kind of KINDS)
    for (const [field, it] of fieldsOf(kind)) {
      if (it.type !== "number" && it.type !== "integer") continue;
      figures += 1;
      assert.doesNotThrow(() => unitOf(quantityOf(kind, field), "IP"), `${kind}.${field}`);
    }
  assert.ok(figures > 150);
});

test("ends of ranges can be typed in both systems", () => {
  for (const kind of KINDS)
    for (const [field, it] of fieldsOf(kind))
      for (const end of [it.low, it.high]) {
        if (end === undefined || Math.abs(end) > 1e6) continue;
        for (const system of ["SI", "IP"] as const) {
          const back = parse(editText(end, quantityOf(kind, field), system), quantityOf(kind, field), system);
          assert.ok(
            Math.abs(Number(back) - end) <= 0.02 * Math.abs(end) + 1e-3,
            `${kind}.${field} ${end} ${back}`,
          );
        }
      }
});

test("labels, words and targets", () => {
  assert.equal(labelOf("use", "heating_setpoint_c"), "Heating set-point");
  assert.equal(labelOf("use", "nothing_such"), "nothing such");
  assert.equal(wordOf("circuit", "staging", "fewest"), "as few as cover it");
  assert.equal(targetOf("room", "second_system"), "air_system");
  assert.equal(targetOf("room", "name"), undefined);
  assert.equal(declaredField("nothing", "name"), undefined);
});

test("what a thing is part of, and what points at it", () => {
  assert.deepEqual(ownerOf("opening"), ["surface", "surface"]);
  assert.equal(ownerOf("room"), null);
  const schedules = referring("schedule").map(([kind, field]) => `${kind}.${field}`);
  assert.ok(schedules.includes("use.lights_schedule") && schedules.includes("air_system.running"));
  assert.ok(!referring("surface").some(([kind]) => kind === "opening"));
});

test("editors follow the declaration", () => {
  assert.deepEqual(editorOf("use", "warm_limit_c"), { type: "number", quantity: "temperature" });
  assert.deepEqual(editorOf("room", "offset_m3_s"), { type: "number", quantity: "airflow", clearable: true });
  assert.equal(editorOf("site", "saving_from").type, "month_day");
  assert.equal(editorOf("use", "source").optional, true);
  assert.equal(editorOf("extract", "schedule", { empty: "always" }).empty, "always");
  const panes = editorOf("glazing", "panes");
  assert.deepEqual(fromText("3", panes, "SI"), { value: 3, fault: "" });
  assert.equal(toText(3, panes, "SI"), "3");
  assert.notEqual(fromText("4", panes, "SI").fault, "");
  assert.deepEqual(fromText("", editorOf("use", "source"), "SI"), { value: "", fault: "" });
  assert.notEqual(fromText("", editorOf("use", "name"), "SI").fault, "");
});

test("columns of a grid say choices by their words", () => {
  const lane = column("extract", "lane", 90);
  assert.equal(lane.title, "Leaves by");
  assert.equal(lane.text?.({ lane: "unit" } as never), "the unit");
  assert.equal(column("room", "floor_area_m2", 80).title, "Floor");
  assert.equal(column("room", "floor_area_m2", 80, { title: "Area" }).title, "Area");
});

test("what rooms inherit is spread over the sets of the sheet", () => {
  assert.ok(sheetFields("thermostat").includes("warm_up_h"));
  assert.ok(sheetFields("air").includes("infiltration_ach"));
  assert.deepEqual(sheetFields("results"), []);
});
