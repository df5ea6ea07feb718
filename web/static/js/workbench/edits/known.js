// What a hand drags starts from numbers that the server tells, of the scene as it is once all that was done
// before is kept. A hand that is quicker than the answers begins when these numbers are there, as if the page
// still stood where the hand pressed, and does at once what it did meanwhile.

import { tell } from "../../page.js";
import { isStale } from "./answers.js";
import { areCurrent, numbersNow, withNumbers } from "./numbers.js";
import { answered, beginLate, isAnswered, isPending, release, sayAway, sayBack } from "./pending.js";
import { asIf, standing, state } from "../state.js";

const GONE = Symbol("gone");
const PAUSE_MS = 500; // before a server that is away is asked again

/** Calls `begin` once the numbers of a name are known that a hand starts from which presses now, on `layer`;
    with the numbers, if they are others than those that the page draws from. */
export function whenKnown(name, begin, layer = state.layer) {
  release();
  if (!isPending() && !isStale() && areCurrent(name)) return begin();
  const pressed = { ...standing(), layer };
  const then = () => ({ ...pressed, shown: state.digest });
  let found = null;
  const ready = async () => {
    do {
      await answered();
      found = await asIf(then(), () => numbersNow(name)).catch(goneOrAway);
      if (found !== null) sayBack();
      else {
        sayAway("The server does not answer", false);
        await new Promise((done) => setTimeout(done, PAUSE_MS));
      }
    } while (found === null || !isAnswered());
  };
  beginLate(ready, () => {
    if (found === GONE) tell("What this was to change is not there any more.");
    else asIf(then(), () => withNumbers(name, found, () => begin(found)));
  });
}

const goneOrAway = ({ message }) => (/^4/.test(message) ? GONE : null);
