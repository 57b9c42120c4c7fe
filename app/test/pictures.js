/** Pictures are there at once: jsdom loads none, and what waits for one would wait for ever. */
global.Image = class extends global.Image {
  set src(value) {
    super.src = value;
    // One whose address says so cannot be had.
    setTimeout(
      () => (/missing/.test(value) ? this.onerror?.(new Event('error')) : this.onload?.(new Event('load'))),
      0,
    );
  }
};
