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
import { GRIP_VALUES, MASK_VALUES, placeOn } from "../../web/static/js/workbench/figures/masking.js";
import {
  boxOf,
  isWithin,
  opposed,
  straight,
  touches,
  turned,
  turning,
} from "../../web/static/js/workbench/figures/plane.js";
import { edgeOf, lineThrough, SPOT_VALUES, travelled } from "../../web/static/js/workbench/figures/reaching.js";
import {
  knobPlace,
  longSides,
  pivotPlace,
  scaled,
  stretched,
  turnedTo,
} from "../../web/static/js/workbench/figures/transforming.js";
import { framesRounded, isCrowded, span, stopsOf, weightAt } from "../../web/static/js/workbench/figures/weights.js";

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

const BOX = [
  [100, 100],
  [300, 100],
  [300, 200],
  [100, 200],
];
const near = (found, wanted) => found.forEach((value, axis) => assert.ok(Math.abs(value - wanted[axis]) < 1e-9, found));

test("points are turned, followed over the top, boxed and found inside", () => {
  near(turned([10, 0], 90), [0, 10]);
  const follow = turning(170);
  assert.equal(follow(-170), 190, "on beyond half a turn");
  assert.equal(follow(170), 170, "and back");
  assert.deepEqual(straight([5, -9]), [0, -9]);
  near(opposed([3, 4], [0, 10]), [-6, -8]);
  assert.deepEqual(boxOf([9, 1], [2, 4]), [
    [2, 1],
    [9, 4],
  ]);
  assert.ok(touches(BOX, boxOf([0, 0], [100, 100])));
  assert.ok(!touches(BOX, boxOf([0, 0], [99, 400])));
  assert.ok(isWithin([150, 150], BOX) && !isWithin([150, 201], BOX));
});

test("a box is scaled, stretched, turned, and catches its pivot", () => {
  const own = { corners: BOX, pivot: [200, 150], scale: [1, 2], rotation: [0, 0, 30] };
  assert.deepEqual(scaled(own, [300, 150])([400, 150]), [2, 4]);
  assert.deepEqual(stretched(own, 1, [300, 150])([350, 170]), [1.5, 2], "the right side its width alone");
  assert.deepEqual(stretched(own, 0, [200, 100])([200, 50]), [1, 4], "the upper its height");
  const edge = { ...own, pivot: [100, 150] };
  assert.deepEqual(stretched(edge, 3, [100, 150])([50, 150]), [1.25, 2], "without a lever by the box");
  const turn = turnedTo(own, [300, 150]);
  assert.equal(turn([200, 250], false), 120);
  assert.equal(turn([100, 151], false), 209.4);
  assert.equal(turn([200, 50], false), 300, "beyond half a turn");
  assert.equal(turn([300, 155], true), 390, "in steps");
  const [top, knob] = knobPlace(BOX, 24);
  assert.deepEqual([top, knob], [[200, 100], [200, 76]]); // prettier-ignore
  assert.deepEqual(
    longSides(BOX, 150).map(({ side }) => side),
    [0, 2],
  );
  assert.deepEqual(pivotPlace(BOX, [203, 148], 8), [200, 150]);
  assert.deepEqual(pivotPlace(BOX, [203.456, 148], 0), [203.46, 148]);
});

test("the reach of a move is dragged by its edges, its band and its spots", () => {
  const sweep = { low: 40, high: 10, travel: 5, step: 0.1 };
  assert.deepEqual(edgeOf(sweep, true)(100), { name: "low", value: 50, seen: 55 });
  assert.deepEqual(edgeOf(sweep, false)(100), { name: "high", value: 20, seen: 25 });
  assert.equal(travelled(sweep, -20), 3);
  const spot = { center: [100, 100], inner: 20, outer: 50, angle: 90 };
  assert.deepEqual(SPOT_VALUES.outer(spot, [180, 100], [150, 100]), ["outer", 80]);
  assert.deepEqual(SPOT_VALUES.inner(spot, [100, 100], [180, 100]), ["inner", 0], "never below nothing");
  assert.deepEqual(SPOT_VALUES.angle(spot, [100, 200]), ["angle", 90]);
  assert.deepEqual(SPOT_VALUES.width(spot, [130, 400]), ["width", 60]);
  near(lineThrough([10, 10], 90, 5, 0).flat(), [10, 5, 10, 15]);
});

test("masks and grips are told in their own space", () => {
  const still = [[1, 0, 0], [0, 1, 0], [0, 0, 1]]; // prettier-ignore
  const mask = { matrix: still, back: still, center: [50, 50], rotation: 90, size: [40, 20] };
  near(placeOn(mask, [10, 0]), [50, 60]);
  assert.deepEqual(MASK_VALUES.center(mask, [20, 10], [10, 10]), ["center", [60, 50]]);
  assert.deepEqual(MASK_VALUES.width(mask, [50, 80]), ["size", [60, 20]]);
  assert.deepEqual(MASK_VALUES.height(mask, [30, 50]), ["size", [40, 40]]);
  assert.deepEqual(MASK_VALUES.size(mask, [50, 90], [0, 0], true), ["size", [80, 40]], "with Shift as it is shaped");
  assert.deepEqual(MASK_VALUES.rotation(mask, [100, 50]), ["rotation", 90]);
  assert.deepEqual(GRIP_VALUES.offset({ origin: [1, 2] }, [4, 6]), [3, 4]);
  assert.equal(GRIP_VALUES.distance({ factor: 2 }, [3, 4]), 10);
  const same = (angle) => angle;
  assert.equal(GRIP_VALUES.angle({ minus: 10, factor: 1, least: null }, [1, 0], same), 80);
  assert.equal(GRIP_VALUES.angle({ minus: 100, factor: 1, least: 0 }, [1, 0], same), 0);
});

test("weights are read at their frames, and told", () => {
  const move = { stride: 2, units: ["a", "b"], bytes: [0, 10, 20, -50], starts: [3, 1], ends: [9, 12] };
  assert.deepEqual(span(move), [1, 12]);
  assert.deepEqual(span({ starts: [], ends: [] }), [0, 0]);
  assert.equal(weightAt(move, 1, 3), -0.5);
  assert.equal(weightAt(move, 0, 900), -0.5, "the last there is");
  assert.deepEqual(stopsOf([1, 0.5, 0]), [[100, 0], [50, 50], [0, 100]]); // prettier-ignore
  assert.ok(isCrowded(Array(41).fill("a"), 40) && !isCrowded(Array(40).fill("a"), 40));
  assert.ok(isCrowded(Array(21).fill("word"), 40), "longer ones need room");
  assert.equal(framesRounded(-2.04), "−2");
});
