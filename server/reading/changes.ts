/** Comparing two versions of a paper by what was read on both. */
import { compareVersions, type Comparison, type VersionPage } from '@gatepath/core/changed';
import { factsIn, type FactsFile } from '../pdf/facts-file';
import { itemAt } from '@gatepath/core/sure';

/** A version of a document to compare. */
export interface VersionFile {
  facts: FactsFile;
  /** Scanned pages, from 1. */
  scans: number[];
}

/** Compares two papers whose pages were read. */
export async function changesIn(t: { before: VersionFile; after: VersionFile }): Promise<Comparison> {
  return compareVersions(await pagesOf(t.before), await pagesOf(t.after));
}

async function pagesOf({ facts, scans }: VersionFile): Promise<VersionPage[]> {
  const { pages } = itemAt(await factsIn([facts]), 0);
  if (!scans.length) return pages;
  const pictures = new Set(scans);
  return pages.map((page, i) => (pictures.has(i + 1) ? { ...page, scan: true } : page));
}
