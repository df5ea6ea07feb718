// The numbers that the page draws from, by their address, each asked for once: what an address gives
// never changes, as it names a digest. Those of a preview come with its picture: asked for besides,
// they would hold up the next one.

import { ask } from "./ask.js";

const sources = new Map();

/**
 * A source of the numbers of a name: `addressOf` says where those are that are needed now, or "" if
 * none are; the last `most` are kept, put through `made`. `drawn` is what the page draws from, null at first.
 */
export function numbers(name, most, addressOf, made = (answer) => answer) {
  const kept = new Map();
  let asked = ""; // where the last ones were asked for
  let given = ""; // where those come from that are drawn

  function keep(address, promise) {
    promise.catch(() => kept.delete(address));
    kept.set(address, promise);
    if (kept.size > most) kept.delete(kept.keys().next().value);
  }

  function at(address) {
    if (!kept.has(address)) keep(address, ask(address).then(parsed).then(made));
    return kept.get(address);
  }

  const source = {
    addressOf,
    drawn: null,
    /** Whether those that are drawn are those that are needed now. */
    isCurrent: () => !addressOf() || addressOf() === given,
    /** Those that are needed now, whatever the page shows; an Error with a number if there are none. */
    async needed() {
      const address = addressOf();
      if (!address) throw new Error("404");
      return at(address);
    },
    /** Whether those that are needed now are here and were not given yet. */
    isAtHand: () => addressOf() !== asked && kept.has(addressOf()),
    /** Takes over those that are needed now, as the text of an answer. */
    bring: (text) => keep(addressOf(), Promise.resolve(made(JSON.parse(text)))),
    /** Those that are needed now; null if there are none, if the server is away, which the picture
        tells itself, or if others were asked for meanwhile. */
    async now() {
      const address = (asked = addressOf());
      if (!address) return null;
      try {
        const found = await at(address);
        if (asked !== address) return null;
        given = address;
        source.drawn = found;
        return found;
      } catch {
        return null;
      }
    },
  };
  sources.set(name, source);
  return source;
}

const parsed = (response) => (response.ok ? response.json() : Promise.reject(new Error(String(response.status))));

/** Whether the page draws from those of a name that are needed now. */
export const areCurrent = (name) => sources.get(name).isCurrent();

/** Those of a name that are needed now. */
export const numbersNow = (name) => sources.get(name).needed();

/** Does something with other numbers of a name in place of those that the page draws from. */
export function withNumbers(name, found, act) {
  const source = sources.get(name);
  const { drawn } = source;
  source.drawn = found;
  try {
    act();
  } finally {
    source.drawn = drawn;
  }
}

/** What a preview is to bring: the names, and the values of their addresses. */
export function alsoWanted() {
  const needed = [...sources].filter(([, { addressOf }]) => addressOf());
  const values = needed.flatMap(([, { addressOf }]) => [...new URL(addressOf(), location).searchParams]);
  return { ...Object.fromEntries(values), also: needed.map(([name]) => name).join() };
}

/** The numbers that came with a preview, by their names. */
export async function numbersIn(form) {
  const names = [...sources.keys()].filter((name) => form.has(name));
  return Promise.all(names.map(async (name) => [name, await form.get(name).text()]));
}

/** Takes them over, once the preview is what is shown. */
export function bring(told) {
  for (const [name, text] of told) if (sources.get(name).addressOf()) sources.get(name).bring(text);
}
