/** Where a contract states something: a part of its page around the words. */
import { View } from 'react-native';
import { urlOf } from '@gatepath/contract/paths';
import type { Source } from '@gatepath/core/abstract';
import { usePalette } from '../../ui/hooks';
import { Stack } from '../../ui/layout';
import { Small } from '../../ui/text';
import { Crop } from '../pages/crop';
import type { ReadContract } from './read-contract';
import { TEXT } from './words';

/** Maximum number of places that are shown of one value. */
const MOST = 4;

export function Sources({
  view,
  sources,
}: {
  view: Pick<ReadContract, 'documentId' | 'pages'>;
  sources: readonly Source[];
}) {
  const p = usePalette();
  return (
    <Stack gap={8} testID="sources">
      {sources.slice(0, MOST).map((s, i) => {
        const page = view.pages[s.page - 1];
        if (!page) return null;
        return (
          <Stack key={i} gap={4}>
            <Small>{TEXT.onPage(s.page)}</Small>
            <Crop
              page={page}
              url={urlOf('documentPage', { documentId: view.documentId, page: s.page })}
              rect={s.rect}
              label={TEXT.page(s.page, s.words)}
            >
              {(scale) => (
                <View
                  style={{
                    position: 'absolute',
                    left: s.rect.x * scale - 3,
                    top: s.rect.y * scale - 2,
                    width: s.rect.w * scale + 6,
                    height: s.rect.h * scale + 4,
                    borderBottomWidth: 3,
                    borderColor: p.brick,
                  }}
                />
              )}
            </Crop>
          </Stack>
        );
      })}
    </Stack>
  );
}

/** Returns where something is stated, in words: "page 2, “The price is $412,000” and on page 9". */
export function sourceWords(sources: readonly Source[]): string {
  const [first, ...rest] = sources;
  if (!first) return '';
  const others = [...new Set(rest.map((s) => s.page))].filter((n) => n !== first.page);
  const also = others.length ? TEXT.andOn(others.map((n) => TEXT.pageNumber(n)).join(', ')) : '';
  return `${TEXT.page(first.page, first.words)}${also}`;
}
