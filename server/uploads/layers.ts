/** Layers (optional content, ISO 32000-1, 8.11): which are off when the file opens. */
import { PDFArray, PDFDict, PDFName, type PDFDocument, type PDFObject } from '@cantoo/pdf-lib';

const name = (d: PDFDict, key: string) => {
  const v = d.lookup(PDFName.of(key));
  return v instanceof PDFName ? v.decodeText() : null;
};

/** The optional layers of a PDF, and which are off. */
export class Layers {
  private readonly off = new Set<PDFObject>();
  private readonly all: PDFObject[] = [];

  constructor(doc: PDFDocument) {
    const properties = doc.catalog.lookup(PDFName.of('OCProperties'));
    if (!(properties instanceof PDFDict)) return;
    this.all = groups(properties.lookup(PDFName.of('OCGs')));
    const config = properties.lookup(PDFName.of('D'));
    if (!(config instanceof PDFDict)) return;
    if (name(config, 'BaseState') === 'OFF') for (const g of this.all) this.off.add(g);
    for (const g of groups(config.lookup(PDFName.of('ON')))) this.off.delete(g);
    for (const g of groups(config.lookup(PDFName.of('OFF')))) this.off.add(g);
  }

  /** Returns the number of layers that are off. */
  get hidden(): number {
    return this.off.size;
  }

  /** Returns whether the content of a group, or of a rule over groups, is hidden. */
  isHidden(of: PDFObject | undefined): boolean {
    if (!(of instanceof PDFDict)) return false;
    if (name(of, 'Type') !== 'OCMD') return this.off.has(of);
    const members = of.lookup(PDFName.of('OCGs'));
    const list = members instanceof PDFDict ? [members] : groups(members);
    if (!list.length) return false;
    const shown = (g: PDFObject) => !this.off.has(g);
    switch (name(of, 'P')) {
      case 'AllOn':
        return !list.every(shown);
      case 'AnyOff':
        return list.every(shown);
      case 'AllOff':
        return list.some(shown);
      default:
        return !list.some(shown);
    }
  }
}

function groups(list: PDFObject | undefined): PDFObject[] {
  if (!(list instanceof PDFArray)) return [];
  return list.asArray().flatMap((_, i) => {
    const g = list.lookup(i);
    return g instanceof PDFDict ? [g] : [];
  });
}
