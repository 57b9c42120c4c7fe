/** Pictures are there at once: jsdom loads none, and what waits for one would wait for ever. */
globalThis.Image = class extends globalThis.Image {
  override set src(value: string) {
    super.src = value;
    // A picture whose address says so cannot be loaded.
    const name = value.includes('missing') ? 'error' : 'load';
    setTimeout(() => (name === 'load' ? this.onload?.(new Event(name)) : this.onerror?.(new Event(name))), 0);
  }
};
