// Frames that are kept: by their bytes, the oldest go first, and one that did not come is asked for again.

import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";

import { asked, settled } from "./page.js";

const { addressOf, askRun, bitmapAt, bitmapOf, isAskedFor, keepFrame } =
  await import("../../web/static/js/workbench/picture/frames.js");

const MIB = 2 ** 20;

beforeEach(() => {
  asked.length = 0;
});

test("the oldest frames go once all are too large together", async () => {
  for (let frame = 0; frame < 40; frame += 1) keepFrame(`/frames/${frame}/`, { size: 10 * MIB });
  await settled();
  const kept = Array.from({ length: 40 }, (_, frame) => frame).filter((frame) => isAskedFor(`/frames/${frame}/`));
  assert.deepEqual([kept.length, kept[0]], [25, 15]);
});

test("a frame that is kept anew counts once", async () => {
  for (let time = 0; time < 100; time += 1) keepFrame("/frames/same/", { size: 10 * MIB });
  keepFrame("/frames/other/", { size: MIB });
  await settled();
  assert.ok(isAskedFor("/frames/same/") && isAskedFor("/frames/other/"));
});

test("frames that did not come are asked for again", async () => {
  const run = askRun("d1", 0, 100);
  assert.ok(isAskedFor(addressOf("d1", 3)));
  asked[0].fail();
  await run;
  await settled();
  assert.ok(!isAskedFor(addressOf("d1", 3)));
  askRun("d1", 0, 100);
  assert.equal(asked.length, 2);
});

test("decoded frames are kept by their pixels, and closed when they go", async () => {
  const closed = [];
  globalThis.createImageBitmap = async ({ frame }) => ({ width: 1920, height: 1080, close: () => closed.push(frame) });
  for (let frame = 0; frame < 120; frame += 1) {
    keepFrame(`/large/${frame}/`, { size: 1, frame });
    await bitmapOf(`/large/${frame}/`);
  }
  assert.deepEqual([closed[0], closed.at(-1)], [0, 18]); // 101 of them have 200 Mi pixels
  assert.ok(!bitmapAt("/large/0/") && bitmapAt("/large/119/") && bitmapAt("/large/19/"));
  await Promise.all([bitmapOf("/large/1/"), bitmapOf("/large/1/")]);
  assert.equal(closed.filter((frame) => frame === 1).length, 2);
});
