// What the page remembers for a person from one visit to the next, by a name.

const keyOf = (name) => `balletto-${name}-${document.body.dataset.person}`;

/** What was remembered, or `usual` if nothing usable was. */
export function remembered(name, usual) {
  try {
    return JSON.parse(localStorage.getItem(keyOf(name))) ?? usual;
  } catch {
    return usual;
  }
}

export const remember = (name, value) => localStorage.setItem(keyOf(name), JSON.stringify(value));
