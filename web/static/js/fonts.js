// The page of fonts: the same words in every family, set larger or smaller, heavier or lighter.
// A family is loaded once it comes into sight: three hundred at a time would hold up the page.

const page = document.getElementById("fonts");
const words = document.getElementById("fonts-words");
const size = document.getElementById("fonts-size");
const find = document.getElementById("fonts-find");
const kind = document.getElementById("fonts-kind");
const lines = [...page.querySelectorAll("[data-font]")];

const seen = new IntersectionObserver(
  (entries) => {
    for (const { isIntersecting, target } of entries) {
      if (!isIntersecting) continue;
      target.style.fontFamily = `"${target.dataset.font}", var(--font-others)`;
      seen.unobserve(target);
    }
  },
  { rootMargin: "300px" },
);
for (const line of lines) seen.observe(line);

function write() {
  for (const line of lines) line.textContent = words.value || words.defaultValue;
}

function resize() {
  page.style.setProperty("--specimen-size", `${size.value}px`);
  size.nextElementSibling.value = `${size.value} px`;
}

function filter() {
  const wanted = find.value.trim().toLowerCase().split(/\s+/);
  let count = 0;
  for (const each of page.querySelectorAll(".specimen")) {
    const is =
      wanted.every((word) => each.dataset.find.includes(word)) && (!kind.value || each.dataset.kind === kind.value);
    each.hidden = !is;
    if (is) count += 1;
  }
  document.getElementById("fonts-none").hidden = count > 0;
}

/** Sets a line at the axes that stand below it; those that nobody moved stay as the font has them. */
function scrub(input) {
  input.dataset.moved = "";
  input.nextElementSibling.value = String(Math.round(Number(input.value) * 100) / 100);
  const specimen = input.closest(".specimen");
  const moved = [...specimen.querySelectorAll("[data-axis][data-moved]")];
  const line = specimen.querySelector("[data-font]");
  line.style.fontVariationSettings = moved.map((each) => `"${each.dataset.axis}" ${each.value}`).join(", ");
  const of = (tag) => moved.find((each) => each.dataset.axis === tag)?.value;
  line.style.fontWeight = of("wght") ?? ""; // a static family has a file for each
  line.style.fontStretch = of("wdth") ? `${of("wdth")}%` : "";
}

words.addEventListener("input", write);
size.addEventListener("input", resize);
find.addEventListener("input", filter);
kind.addEventListener("change", filter);
page.addEventListener("input", ({ target }) => target.matches("[data-axis]") && scrub(target));
// A hand may have been quicker than this script.
write();
resize();
filter();
for (const input of page.querySelectorAll("[data-axis]")) if (input.value !== input.defaultValue) scrub(input);

// Files that are dropped anywhere on the page are sent as if they had been chosen.
const form = document.getElementById("send-fonts");
for (const name of ["dragover", "dragleave", "drop"])
  addEventListener(name, (event) => {
    if (!event.dataTransfer?.types.includes("Files")) return;
    event.preventDefault();
    page.classList.toggle("is-target", name === "dragover");
    if (name !== "drop") return;
    form.elements.file.files = event.dataTransfer.files;
    form.requestSubmit();
  });
