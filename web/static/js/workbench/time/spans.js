// Layers' bars on the time axis.

/** Shows layers at the times that a preview gives them. */
export function showSpans(spans) {
  for (const [layer, [first, end]] of Object.entries(spans)) {
    const bar = document.querySelector(`#row-${CSS.escape(layer)} [data-span]`);
    bar?.style.setProperty("--f", first);
    bar?.style.setProperty("--n", end - first);
  }
}
