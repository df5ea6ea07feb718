// Pending edits without a browser: what is sent, on which revision, and what is sent again.

import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";

import { asked, posted, revision, settled, until } from "./page.js";

const { commit, flush, hold, isPending, release, walk } =
  await import("../../web/static/js/workbench/edits/pending.js");
const { open, state } = await import("../../web/static/js/workbench/state.js");

const put = (value) => ({ name: "set-value", path: "t1.style.size", value });

/** Answers whatever is asked until all is kept. */
async function keepAll(number) {
  for (let next = number; isPending(); next += 1) {
    await settled();
    revision(next);
    await settled();
  }
}

beforeEach(() => {
  asked.length = 0;
  open();
});

test("an edit goes out on the revision that the one before it made", async () => {
  const start = state.revision;
  commit(put(64));
  commit(put(65));
  await settled();
  assert.equal(posted().length, 1, "one at a time");
  revision(start + 1);
  await settled();
  assert.deepEqual(
    posted().map(({ values }) => Number(values.base)),
    [start, start + 1],
  );
  await keepAll(start + 2);
  assert.equal(state.revision, start + 2);
});

test("what is held is made before what comes after it", async () => {
  hold("size", put(64));
  commit(put(65));
  await settled();
  revision(state.revision + 1, posted()[0]);
  await settled();
  assert.deepEqual(
    posted().map(({ values }) => JSON.parse(values.edit).value),
    [64, 65],
  );
  await keepAll(state.revision + 1);
});

test("an edit keeps the layer's path and the frame where the hand acted", async () => {
  state.frame = 12;
  hold("size", put(64));
  state.frame = 50;
  release();
  await settled();
  assert.equal(posted()[0].values.frame, "12");
  await keepAll(state.revision + 1);
});

test("a request whose answer is lost is sent again by its name", async () => {
  commit(put(64));
  await settled();
  posted()[0].fail();
  await until(() => posted().length > 1); // it waits a while before it asks again
  const [first, second] = posted();
  assert.equal(second.values.request, first.values.request);
  assert.match(document.getElementById("notices").textContent, /1 change of yours is kept here/);
  await keepAll(state.revision + 1);
  assert.equal(document.getElementById("notices").textContent, "");
});

test("flush is there once all is kept, and not before", async () => {
  let isThere = false;
  hold("size", put(64));
  const done = flush().then(() => (isThere = true));
  await settled();
  assert.equal(isThere, false);
  await keepAll(state.revision + 1);
  await done;
  assert.equal(isThere, true);
});

test("an undo right after an edit that is refused is given up with it", async () => {
  commit(put("?"));
  walk("undo");
  await settled();
  posted()[0].answer(422, JSON.stringify({ message: "A number is needed." }));
  await settled();
  assert.equal(asked.filter(({ address }) => address.includes("undo")).length, 0);
  assert.match(document.getElementById("notices").textContent, /A number is needed/);
  await keepAll(state.revision + 1);
});
