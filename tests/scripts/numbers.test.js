// Numbers of the server: asked for once, and the newest wanted are the ones drawn, in whatever order
// they come.

import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";

import { asked, settled } from "./page.js";

const { numbers } = await import("../../web/static/js/workbench/edits/numbers.js");

let address;
let source;

beforeEach((context) => {
  asked.length = 0;
  source = numbers(context.name, 2, () => address);
});

test("what is asked for twice is fetched once", async () => {
  address = "/one/";
  const both = Promise.all([source.needed(), source.needed()]);
  asked[0].answer(200, '{"value": 1}');
  assert.deepEqual(await both, [{ value: 1 }, { value: 1 }]);
  assert.equal(asked.length, 1);
});

test("an answer that comes after others were wanted is not drawn", async () => {
  address = "/one/";
  const first = source.now();
  address = "/two/";
  const second = source.now();
  asked[1].answer(200, '{"value": 2}');
  assert.deepEqual(await second, { value: 2 });
  asked[0].answer(200, '{"value": 1}');
  assert.equal(await first, null);
  assert.deepEqual(source.drawn, { value: 2 });
  assert.ok(source.isCurrent());
});

test("what failed is asked for again", async () => {
  address = "/one/";
  const first = source.now();
  asked[0].fail();
  assert.equal(await first, null);
  const second = source.now();
  await settled();
  assert.equal(asked.length, 2);
  asked[1].answer(200, '{"value": 1}');
  assert.deepEqual(await second, { value: 1 });
});
