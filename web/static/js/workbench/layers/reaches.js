// The small charts of selectors: how strongly each lets every unit take part, at the playhead. Each
// kind has its own look: areas for bands and spots, needles for chance and shakes, a line for waves.

const WIDTH = 288;
const HEIGHT = 26;
const MIDDLE = HEIGHT / 2;
const NAMES = {
  sweep: "Sweep",
  scatter: "Chance",
  wave: "Wave",
  jitter: "Shake",
  spot: "Spot",
  loudness: "Loudness",
};

const upTo = (value, low, high) => Math.max(low, Math.min(high, value));

/** Steps as wide as the units, as high as their values. */
function area(values) {
  const width = WIDTH / values.length;
  const tops = values.map(
    (value, index) => `L${index * width},${HEIGHT - upTo(value, 0, 1.1) * (HEIGHT - 2)}h${width}`,
  );
  return `M0,${HEIGHT}${tops.join("")}V${HEIGHT}Z`;
}

/** A needle for each unit, up or down from the middle. */
function needles(values) {
  const width = WIDTH / values.length;
  return values
    .map((value, index) => `M${(index + 0.5) * width},${MIDDLE}v${-upTo(value, -1, 1) * (MIDDLE - 1)}`)
    .join("");
}

/** A line from unit to unit. */
function line(values) {
  const width = WIDTH / values.length;
  return values
    .map(
      (value, index) =>
        `${index ? "L" : "M"}${(index + 0.5) * width},${MIDDLE - upTo(value, -1.1, 1.1) * (MIDDLE - 2)}`,
    )
    .join("");
}

const LOOKS = { sweep: area, spot: area, scatter: needles, jitter: needles, wave: line, loudness: area };

/** Puts an empty chart for each selector of each move into its card. */
export function drawReaches(motion) {
  for (const move of motion.moves) {
    const holder = document.getElementById(`reaches-${move.id}`);
    if (!holder) continue;
    holder.innerHTML = move.reaches
      .map(({ kind }) => {
        const rest = LOOKS[kind] === area ? HEIGHT : MIDDLE;
        return `<figure class="reach reach--${kind}"><figcaption>${NAMES[kind]}</figcaption>
          <svg viewBox="0 0 ${WIDTH} ${HEIGHT}" preserveAspectRatio="none" role="img"
            aria-label="${NAMES[kind]} at the playhead, unit by unit">
            <line x2="${WIDTH}" y1="${rest}" y2="${rest}"/><path/>
          </svg></figure>`;
      })
      .join("");
  }
}

/** Draws the charts for a frame. */
export function showReaches(motion, frame) {
  for (const move of motion.moves) {
    const paths = document.querySelectorAll(`#reaches-${CSS.escape(move.id)} path`);
    paths.forEach((path, index) => {
      const { kind, bytes } = move.reaches[index];
      const count = move.units.length;
      const row = Math.min(Math.floor(frame / move.stride), bytes.length / count - 1) * count;
      path.setAttribute("d", count ? LOOKS[kind](Array.from(bytes.slice(row, row + count), (byte) => byte / 100)) : "");
    });
  }
}
