// JSON by its address, asked for once: what an address gives never changes, as it names a digest.

/** A function from an address to the promise of its JSON, put through `made`; the last `most` are
    kept, those that failed are not. */
export function keeper(most, made = (answer) => answer) {
  const kept = new Map();
  return (address) => {
    if (!kept.has(address)) {
      const found = fetch(address)
        .then((response) => (response.ok ? response.json() : Promise.reject(new Error(String(response.status)))))
        .then(made);
      found.catch(() => kept.delete(address));
      kept.set(address, found);
      if (kept.size > most) kept.delete(kept.keys().next().value);
    }
    return kept.get(address);
  };
}
