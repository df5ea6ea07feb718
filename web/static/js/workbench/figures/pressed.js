// What is pressed, as the table of commands tells keys: "Shift Home", "K", "←".

const TOLD = { arrowleft: "←", arrowright: "→", home: "Home", end: "End", " ": "Space", "-": "−", "=": "+" };

export function toldKey({ key, shiftKey }) {
  const told = TOLD[key.toLowerCase()] ?? key.toUpperCase();
  // Signs are told as they are typed: which of them need Shift is for the keyboard to say.
  const isSign = key.length === 1 && !/[a-z ]/i.test(key);
  return shiftKey && !isSign ? `Shift ${told}` : told;
}
