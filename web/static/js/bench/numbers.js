// The numbers that the page draws from, by their address, each asked for once: what an address gives
// never changes, as it names a digest. Those of a preview come with its picture: asked for besides,
// they would hold up the next one.

const sources = new Map();

/**
 * A source of the numbers of a name: `addressOf` says where those are that are needed now, or "" if
 * none are; the last `most` are kept, put through `made`.
 */
export function numbers(name, most, addressOf, made = (answer) => answer) {
  const kept = new Map();
  let asked = ""; // where the last ones were asked for

  function keep(address, promise) {
    promise.catch(() => kept.delete(address));
    kept.set(address, promise);
    if (kept.size > most) kept.delete(kept.keys().next().value);
  }

  const source = {
    addressOf,
    /** Whether those that are needed now are here and were not given yet. */
    isAtHand: () => addressOf() !== asked && kept.has(addressOf()),
    /** Takes over those that are needed now, as the text of an answer. */
    bring: (text) => keep(addressOf(), Promise.resolve(made(JSON.parse(text)))),
    /** Those that are needed now; null if there are none, if the server is away, which the picture
        tells itself, or if others were asked for meanwhile. */
    async now() {
      const address = (asked = addressOf());
      if (!address) return null;
      if (!kept.has(address)) keep(address, fetch(address).then(parsed).then(made));
      try {
        const found = await kept.get(address);
        return asked === address ? found : null;
      } catch {
        return null;
      }
    },
  };
  sources.set(name, source);
  return source;
}

const parsed = (response) => (response.ok ? response.json() : Promise.reject(new Error(String(response.status))));

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
