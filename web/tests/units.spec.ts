import assert from "node:assert/strict";
import { test } from "vitest";
import registry from "../src/units/registry.json";
import {
  clock,
  compass,
  counted,
  editText,
  format,
  fromShown,
  parse,
  toShown,
  unitOf,
} from "../src/units/units";

test("every quantity comes back from either system as it was", () => {
  for (const quantity of Object.keys(registry)) {
    for (const system of ["SI", "IP"] as const) {
      for (const value of [0, 1, -3.25, 0.00123, 54321.5]) {
        const back = fromShown(toShown(value, quantity, system), quantity, system);
        assert.ok(
          Math.abs(back - value) <= 1e-9 * Math.max(1, Math.abs(value)),
          `${quantity} ${system} ${value}`,
        );
      }
    }
  }
});

test("what was typed is read back unchanged", () => {
  for (const text of ["20", "20.5", "-3", "0.125", "1e3"]) {
    const value = parse(text, "temperature", "IP");
    assert.equal(Number(editText(value, "temperature", "IP")), Number(text));
  }
});

test("fixed points of the scales", () => {
  assert.equal(Math.round(toShown(100, "temperature", "IP")), 212);
  assert.equal(toShown(5, "temperature_difference", "IP"), 9);
  assert.equal(toShown(1500, "load", "SI"), 1.5);
  assert.ok(Math.abs(toShown(3516.8528, "refrigeration", "IP") - 1) < 1e-6);
  assert.equal(unitOf("airflow", "IP"), "cfm");
});

test("a comma is a point, a real minus is a minus, words are not numbers", () => {
  assert.equal(parse("2,5", "length", "SI"), 2.5);
  assert.equal(parse("−4", "temperature", "SI"), -4);
  assert.equal(parse("", "length", "SI"), null);
  for (const text of ["abc", "1a", "--2", "1.2.3", "NaN", "Infinity"]) {
    assert.ok(Number.isNaN(parse(text, "length", "SI")), text);
  }
});

test("figures have decimals, thin spaces and no minus zero", () => {
  assert.equal(format(1234.5, "volume", "SI"), "1\u2009234.5");
  assert.equal(format(-0.0001, "load", "SI"), "0.00");
  assert.equal(format(-2500, "load", "SI"), "−2.50");
  assert.equal(format(null, "load", "SI"), "–");
  assert.equal(format(Number.NaN, "load", "SI"), "–");
});

test("compass and clock", () => {
  assert.deepEqual([0, 45, 90, 180, 247, 359].map(compass), ["N", "NE", "E", "S", "WSW", "N"]);
  assert.deepEqual([0, 1, 90, 143].map(clock), ["00:00", "00:10", "15:00", "23:50"]);
});

test("nouns", () => {
  assert.deepEqual(
    [counted(0, "room"), counted(1, "room"), counted(2, "use")],
    ["0 rooms", "1 room", "2 uses"],
  );
});

test("an unknown quantity is an error, never a blank", () => {
  assert.throws(() => format(1, "colour", "SI"), /colour/);
});
