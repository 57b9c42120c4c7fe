/** The review of a returned paper in a worker: only pages with places are drawn. */
import { gapsOf, type PlaceReviewed, type ReturnedPaper } from '@gatepath/core/returned';
import { inkOf } from '@gatepath/core/scan';
import { openFile } from '../pdf/draw';
import { factsIn, type FactsFile } from '../pdf/facts-file';
import { itemAt } from '@gatepath/core/sure';
import { grayOf, scaleOf } from './page';

/** A returned paper or its blank, for the review. */
export interface GapsPaper {
  facts: FactsFile;
  /** The prepared file. */
  file: string;
}

/** Reviews every printed place of a returned paper, or of its blank. */
export async function findGapsIn(
  t: { back: GapsPaper; blank: GapsPaper | null },
  at: (where: string) => void,
): Promise<PlaceReviewed[]> {
  const back = await paperOf(t.back);
  return gapsOf(back, t.blank && (await paperOf(t.blank)), (page) => at(`page ${page}`));
}

async function paperOf({ facts, file }: GapsPaper): Promise<ReturnedPaper> {
  const [doc] = await factsIn([facts]);
  const { pages, places } = itemAt(doc ? [doc] : [], 0);
  return {
    places,
    pages: pages.map((p, i) => ({
      width: p.width,
      height: p.height,
      words: p.print.map((rect, n) => ({ rect, text: p.words[n] ?? '' })),
      sheet: async () => ({ mask: inkOf(await grayOf(await openFile(file), i + 1, p)), scale: scaleOf(p) }),
    })),
  };
}
