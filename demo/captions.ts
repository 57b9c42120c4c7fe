/** Returns where texts that begin with the given captions stand on a page: top left, in points from the top. */
export async function captionsOn(
  pdf: Uint8Array,
  page: number,
  captions: string[],
): Promise<Map<string, { x: number; y: number }>> {
  // Loaded when needed: it ships as an ES module only, which Jest takes in no other way.
  const { getDocument, Util, VerbosityLevel } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const task = getDocument({ data: new Uint8Array(pdf), verbosity: VerbosityLevel.ERRORS, disableFontFace: true });
  const doc = await task.promise;
  const sheet = await doc.getPage(page);
  const view = sheet.getViewport({ scale: 1 });
  const out = new Map<string, { x: number; y: number }>();
  for (const item of (await sheet.getTextContent()).items) {
    if (!('str' in item)) continue;
    const caption = captions.find((c) => item.str.startsWith(c) && !out.has(c));
    const [, , , size, x, y] = Util.transform(view.transform, item.transform) as number[];
    if (caption) out.set(caption, { x: x!, y: y! - Math.abs(size!) });
  }
  await task.destroy();
  return out;
}
