// What the page computes by itself: no page is needed for it.

import assert from "node:assert/strict";
import { test } from "node:test";

import { bent, rangeOf, stepsBetween } from "../../web/static/js/workbench/figures/axes.js";
import { caughtBox, caughtShift } from "../../web/static/js/workbench/figures/catching.js";
import { following, movedTime, nearerPicture, nearerTime } from "../../web/static/js/workbench/figures/nearness.js";
import { toldKey } from "../../web/static/js/workbench/figures/pressed.js";
import {
  gripsOf,
  HANDS,
  packed,
  rowsInSight,
  slantedLines,
  wordsOf,
} from "../../web/static/js/workbench/figures/staircase.js";

test("a time catches at the nearest place, or at whole frames", () => {
  assert.equal(caughtShift(10.4, [5], [16, 40], { near: 1 }), 11);
  assert.equal(caughtShift(10.4, [5], [40], { near: 1 }), 10);
  assert.equal(caughtShift(10.44, [5], [16], { near: 1, free: true }), 10);
  assert.equal(caughtShift(10.44, [], [], { near: 1, fine: true }), 10.4);
  assert.equal(caughtShift(9.7, [0], [9.5, 10.2], { near: 2 }), 9.5, "of two the nearer");
});

test("a box catches at the middle, at margins, at others and at the grid", () => {
  const box = [
    [100, 100],
    [200, 100],
    [200, 150],
    [100, 150],
  ];
  const size = [1920, 1080];
  const { more, lines } = caughtBox(box, [805, 0], { size, near: 10 });
  assert.deepEqual(more, [5, 0]);
  assert.deepEqual(lines, [{ axis: 0, at: 960 }]);
  const other = [
    [500, 98],
    [600, 98],
  ];
  assert.deepEqual(caughtBox(box, [0, 0], { size, near: 3, others: [other] }).more, [0, -2]);
  assert.equal(caughtBox(box, [0, -8], { size, near: 3, grid: true }).more[1], -2);
});

test("time is looked at nearer about a place, and never beyond its ends", () => {
  const near = nearerTime({ zoom: 1, start: 0 }, 4, 0.5, 100);
  assert.deepEqual(near, { zoom: 4, start: 0.375 });
  assert.equal(nearerTime(near, 100, 0.5, 20).zoom, 20);
  assert.deepEqual(nearerTime(near, 0.01, 0.5, 20), { zoom: 1, start: 0 });
  assert.equal(movedTime(near, 10).start, 0);
  assert.equal(movedTime(near, -10).start, 0.75);
  assert.deepEqual(following(near, 0.5), near);
  assert.ok(Math.abs(following(near, 0.9).start - 0.75) < 1e-9);
});

test("what is under the pointer stays there while the picture comes nearer", () => {
  const { zoom, pan } = nearerPicture({ zoom: 1, pan: [0, 0] }, 2, [100, -50]);
  assert.equal(zoom, 2);
  assert.deepEqual(pan, [-100, 50]);
  assert.equal(nearerPicture({ zoom: 10, pan: [0, 0] }, 10, [0, 0]).zoom, 12);
});

const MOVE = {
  unit: "character",
  units: ["A", "d", "a", "L", "o"],
  words: [0, 0, 0, 1, 1],
  starts: [0, 2, 4, 6, 8],
  ends: [20, 22, 24, 26, 28],
  delays: [0, 2, 4, 6, 8],
  start: 0,
  hands: [
    { path: "stagger", ranks: [0, 1, 2, 3, 4], rows: [[0, 1, 2, 3, 4]], gap: 2, span: null, delays: [0, 2, 4, 6, 8] },
  ],
};

test("hands on the staircase say what they change", () => {
  const [level] = MOVE.hands;
  const gap = HANDS.gap({ path: "t1.moves.m1", level, index: 4 }, 4);
  assert.deepEqual(gap.edit, { name: "set-value", path: "t1.moves.m1.stagger.gap", value: 3 });
  assert.equal(gap.said, "every 3 frames");
  const span = HANDS.gap({ path: "p", level: { ...level, span: 8 }, index: 2 }, 2);
  assert.equal(span.value, 12);
  assert.equal(HANDS.bend({ path: "p", level, index: 2, row: level.rows[0] }, 2).edit.middle, 0.75);
  assert.deepEqual(HANDS.unit({ path: "p", move: MOVE, index: 1 }, 3).edit.value.times, [0, 5, 4, 6, 8]);
  assert.equal(HANDS.trim({ layer: "t1", span: [0, 90], edge: 1 }, -200).edit.value, 1, "never shorter than a frame");
  assert.equal(HANDS.length({ path: "p", move: MOVE, index: 0 }, 20).edit.factor, 2);
  assert.deepEqual(HANDS.layer({ layer: "t1", span: [0, 9] }, 3).edit, { name: "shift-layer", layer: "t1", by: 3 });
  assert.equal(HANDS.start({ path: "p", move: MOVE }, 5).value, 5);
});

test("grips stand at the end and in the middle, as far as that can be seen", () => {
  const [level] = MOVE.hands;
  assert.deepEqual(gripsOf(MOVE, level, 90), { gap: 4, bend: 2 });
  assert.deepEqual(gripsOf(MOVE, level, 5), { gap: 2, bend: null });
  assert.deepEqual(gripsOf({ ...MOVE, starts: MOVE.starts.map((at) => at - 90) }, level, 90), {
    gap: null,
    bend: null,
  });
  assert.equal(slantedLines(MOVE)[0].points, "0,0.5 2,1.5 4,2.5 6,3.5 8,4.5");
});

test("bars, words and rows have their places", () => {
  assert.deepEqual(
    packed([
      [0, 10],
      [5, 20],
      [10, 12],
      [30, 40],
    ]),
    [0, 1, 0, 0],
  );
  assert.deepEqual(wordsOf(MOVE), ["Ada", "", "", "Lo", ""]);
  assert.deepEqual(wordsOf({ ...MOVE, unit: "word" }), []);
  assert.deepEqual(rowsInSight(-600, { top: 0, bottom: 120 }, 12, 2, 100), { first: 48, end: 62 });
});

test("a value axis has round numbers and air", () => {
  assert.deepEqual(stepsBetween(0, 100), [0, 50, 100]);
  assert.deepEqual(stepsBetween(-3, 9).map(Math.round), [0, 5]);
  assert.deepEqual(rangeOf([4, 4]), [3.6, 4.4]);
  assert.deepEqual(rangeOf([-2, 7, 3]), [-2, 7]);
  assert.deepEqual(bent([0.3, 0.3, 0.6, 0.6], 1, 2, -3), [0.3, 0.3, 1, -0.5]);
});

test("what is pressed is told as the table of commands tells it", () => {
  for (const [event, told] of [
    [{ key: "ArrowLeft", shiftKey: true }, "Shift ←"],
    [{ key: "k" }, "K"],
    [{ key: " " }, "Space"],
    [{ key: "+", shiftKey: true }, "+"],
    [{ key: "-" }, "−"],
    [{ key: "C", shiftKey: true }, "Shift C"],
  ])
    assert.equal(toldKey({ shiftKey: false, ...event }), told);
});
