// Frames that are kept: by their bytes, the oldest go first, and one that did not come is asked for again.

import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";

import { asked, settled } from "./page.js";

const { addressOf, askRun, isAskedFor, keepFrame } = await import("../../web/static/js/workbench/frames.js");

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
