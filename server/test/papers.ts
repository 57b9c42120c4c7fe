/** Small papers for tests, made with pdf-lib. */
import { PDFDocument, StandardFonts, degrees, rgb } from '@cantoo/pdf-lib';

/** Returns a paper of `pages` pages filled with lines of print, with a footer; `rotate` and `crop` as asked. */
export async function paper(o: {
  pages: number;
  rotate?: number;
  crop?: boolean;
  title?: string;
  dense?: boolean;
}): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let n = 1; n <= o.pages; n++) {
    const page = doc.addPage([612, 792]);
    page.drawText(`${o.title ?? 'Paper'} - section ${n}`, { x: 72, y: 720, size: 15, font });
    const foot = o.dense ? 30 : 130;
    for (let y = 690; y > foot; y -= 15)
      page.drawText('The owner states that the roof, the drains and the cellar are as described here.', {
        x: 72,
        y,
        size: 10,
        font,
      });
    page.drawText(`page ${n} of ${o.pages}`, { x: 290, y: 40, size: 9, font });
    page.drawLine({ start: { x: 72, y: 110 }, end: { x: 300, y: 110 }, thickness: 0.7, color: rgb(0, 0, 0) });
    if (o.crop) page.setCropBox(36, 24, 540, 744);
    if (o.rotate) page.setRotation(degrees(o.rotate));
  }
  return doc.save();
}

/** Returns a paper with form fields, filled in, and a script that must not survive. */
export async function formPaper(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const page = doc.addPage([612, 792]);
  const font = await doc.embedFont(StandardFonts.Helvetica);
  page.drawText('Name of the owner:', { x: 72, y: 700, size: 11, font });
  const form = doc.getForm();
  const text = form.createTextField('owner.name');
  text.setText('Wren Alder');
  text.addToPage(page, { x: 180, y: 692, width: 200, height: 22, font });
  const tick = form.createCheckBox('owner.lives.here');
  tick.addToPage(page, { x: 72, y: 650, width: 16, height: 16 });
  tick.check();
  doc.addJavaScript('hello', 'app.alert("hello")');
  return doc.save();
}
