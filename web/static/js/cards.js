// Cards of scenes play when they are pointed at or have the focus: a film of their frames, one below
// the other, is fetched then and run past. So do videos that ship.

const FRAME_MS = 125;
let playing = null;

function stop() {
  if (!playing) return;
  playing.video?.pause();
  clearInterval(playing.timer);
  playing.film.style.backgroundImage = "";
  playing = null;
}

async function play(card) {
  if (playing?.card === card || matchMedia("(prefers-reduced-motion: reduce)").matches) return;
  stop();
  const video = card.querySelector("video");
  if (video) {
    playing = { card, video, film: card, timer: 0 };
    video.play().catch(() => {}); // pointed at no more before it began
    return;
  }
  const film = card.querySelector("[data-film]");
  const strip = new Image();
  playing = { card, film, timer: 0 };
  strip.src = film.dataset.film;
  try {
    await strip.decode();
  } catch {
    return; // the poster stays
  }
  if (playing?.card !== card) return;
  const count = Number(film.dataset.frames);
  let frame = 0;
  film.style.backgroundImage = `url("${film.dataset.film}")`;
  playing.timer = setInterval(() => {
    frame = (frame + 1) % count;
    film.style.backgroundPositionY = `${(frame / (count - 1)) * 100}%`;
  }, FRAME_MS);
}

const cardOf = (event) => event.target.closest?.("[data-card]");

for (const name of ["pointerover", "focusin"])
  document.addEventListener(name, (event) => (cardOf(event) ? play(cardOf(event)) : name === "pointerover" && stop()));
document.addEventListener("focusout", (event) => cardOf(event) && stop());
