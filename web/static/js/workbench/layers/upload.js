// Files: chosen or dropped on the picture, sent, and added as layers.

import { tell } from "../../page.js";
import { commit } from "../edits/pending.js";
import { headers } from "../edits/session.js";

async function send(file) {
  const body = new FormData();
  body.append("file", file);
  const response = await fetch("/files/send/", { method: "POST", headers: headers(), body });
  const answer = await response.json();
  if (!response.ok) throw new Error(answer.message);
  return answer.file;
}

let edit = "add-file"; // what is done with the files that are chosen

/** Sends files one after another; each becomes a layer, and what cannot be used is said. */
async function addAll(files, name = "add-file") {
  for (const file of files) {
    tell(`“${file.name}” is being sent.`, "info");
    try {
      commit({ name, file: await send(file) });
      tell(`“${file.name}” is added.`, "info");
    } catch (error) {
      return tell(error.message || "The file could not be sent. Try again in a moment.");
    }
  }
}

function drop(event) {
  if (!event.dataTransfer?.files.length) return;
  event.preventDefault();
  addAll([...event.dataTransfer.files]);
}

export function listen() {
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-send-file]");
    if (!button) return;
    edit = button.dataset.sendFile || "add-file";
    document.getElementById("file-field").click();
  });
  document.addEventListener("change", (event) => {
    if (event.target.id !== "file-field") return;
    addAll([...event.target.files], edit);
    event.target.value = "";
  });
  const stage = document.getElementById("stage");
  stage.addEventListener("dragover", (event) => event.dataTransfer?.types.includes("Files") && event.preventDefault());
  stage.addEventListener("drop", drop);
}
