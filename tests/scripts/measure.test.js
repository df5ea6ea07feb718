// How numbers are said and read by the page until the server has read them.

import assert from "node:assert/strict";
import { test } from "node:test";

import { framesSaid, plainNumber, rounded, say, within } from "../../web/static/js/workbench/values/measure.js";

const PLAIN = { unit: " px", scale: 1, step: 1, below: "", above: "", low: null, high: null, before: "", one: "" };
const DOWN = { ...PLAIN, below: "above", above: "below" };

test("numbers are said with their unit and direction", () => {
  assert.equal(say(PLAIN, -3.456), "−3.46 px");
  assert.equal(say(DOWN, -120), "120 px above");
  assert.equal(say(DOWN, 120), "120 px below");
  assert.equal(say({ ...PLAIN, scale: 100, unit: " %" }, 0.5), "50 %");
});

test("one frame is no frames", () => {
  assert.equal(framesSaid(1), "1 frame");
  assert.equal(framesSaid(2.5), "2.5 frames");
});

test("only what is a number and nothing else is shown before it is read", () => {
  for (const [text, value] of [
    ["64", 64],
    [" −1,5 ", -1.5],
    [".5", 0.5],
    ["64px", null],
    ["540+20", null],
    ["", null],
  ])
    assert.equal(plainNumber(PLAIN, text), value, text);
  assert.equal(plainNumber({ ...PLAIN, high: 10 }, "64"), null, "beyond its limits");
});

test("values stay within limits and on their grid", () => {
  assert.equal(within({ low: 0, high: null }, -1), 0);
  assert.equal(rounded({ step: 0.1 }, 0.30000000000000004), 0.3);
  assert.equal(rounded({ step: 1 }, 2.26, 10), 2.3);
});
