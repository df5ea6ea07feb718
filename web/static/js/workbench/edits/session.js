// Who is signed in. Requests carry the token of the page; when somebody has signed out, or in anew
// elsewhere, it is asked for again, and where nobody is signed in, the page asks in a dialog and
// goes on where it was.

import { ask } from "./ask.js";

const { person: OWN, tokenAt, signInAt, signedOutAt } = document.body.dataset;
let token = JSON.parse(document.body.getAttribute("hx-headers"))["X-CSRFToken"];
let asking = null; // the promise of being signed in again

/** The headers of a request that changes something. */
export const headers = () => ({ "X-CSRFToken": token });

/** Whether an answer says that nobody is signed in, or that the token is an old one. */
export const isSignedOut = (response) =>
  response.status === 403 || (response.redirected && response.url.includes(signedOutAt));

const dialog = () => document.getElementById("sign-in-here");
const said = () => document.getElementById("sign-in-said");

function takeToken(told) {
  token = told.token;
  document.body.setAttribute("hx-headers", JSON.stringify({ "X-CSRFToken": token }));
  for (const field of document.querySelectorAll("input[name=csrfmiddlewaretoken]")) field.value = token;
}

/** Is there once the owner of the page is signed in; throws if the server is away. */
export async function signedIn() {
  const answer = await ask(tokenAt);
  if (!answer.ok) throw new Error(String(answer.status));
  const told = await answer.json();
  takeToken(told);
  if (told.name === OWN) return;
  const why = told.name
    ? `This scene is ${OWN}’s, and ${told.name} is signed in now. Sign in as ${OWN} to go on.`
    : "You were signed out. Nothing is lost: sign in and the page goes on.";
  asking ??= new Promise((done) => {
    said().textContent = why;
    dialog().querySelector("[name=username]").value = OWN;
    dialog().showModal();
    dialog().querySelector("[name=password]").focus();
    dialog().addEventListener(
      "close",
      () => {
        asking = null;
        done();
      },
      { once: true },
    );
  });
  await asking;
}

async function submit(event) {
  event.preventDefault();
  try {
    const body = new URLSearchParams(new FormData(event.target));
    const answer = await ask(signInAt, { method: "POST", headers: headers(), body });
    const told = await answer.json();
    if (!answer.ok) said().textContent = told.message;
    else if (told.name !== OWN) said().textContent = `This scene is ${OWN}’s: sign in as ${OWN} to go on.`;
    else {
      takeToken(told);
      event.target.reset();
      dialog().close();
    }
  } catch {
    said().textContent = "The server does not answer. Try again in a moment.";
  }
}

export function listen() {
  dialog().querySelector("form").addEventListener("submit", submit);
  dialog().addEventListener("cancel", (event) => event.preventDefault()); // edits wait behind it
}
