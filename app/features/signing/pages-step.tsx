/** All pages as thumbnails, each with what is left on it. */
import { FlatList, Pressable, View, useWindowDimensions } from 'react-native';
import { useFiles } from './files';
import { usePalette } from '../../ui/hooks';
import { Small, Strong } from '../../ui/text';
import { Fills } from '../pages/fills';
import { Sheet } from '../pages/sheet';
import type { StepProps } from './step';
import { signingPlaces } from './places';
import { BackBar, leftByKind } from './parts';
import { useSay, useWords } from './say';
import { itemAt } from '@gatepath/core/sure';
import { Stack } from '../../ui/layout';

const GAP = 14;

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function PagesStep({ token, view, onBack, onPlace }: StepProps & { onPlace: (markId: string | null) => void }) {
  const p = usePalette();
  const t = useSay();
  const words = useWords();
  const files = useFiles(token);
  const { width } = useWindowDimensions();
  const columns = Math.max(2, Math.min(5, Math.floor(width / 170)));
  const size = Math.floor((Math.min(width, 1000) - GAP * (columns + 1)) / columns);
  const places = signingPlaces(view);
  const pages = view.documents.flatMap((d) =>
    d.pages.map((page, i) => {
      const here = places.filter((x) => itemAt(x.marks, 0).documentId === d.id && itemAt(x.marks, 0).page === i + 1);
      return { doc: d, page, n: i + 1, here, left: here.filter((x) => x.required && !x.done).length };
    }),
  );
  return (
    <View style={{ flex: 1, backgroundColor: p.bench }}>
      <Stack
        role="banner"
        gap={4}
        style={{ padding: GAP, backgroundColor: p.sheet, borderBottomWidth: 1, borderColor: p.rule }}
      >
        <Strong level={1} style={{ fontSize: 19 }}>
          {t('sign.pages')}
        </Strong>
        <Small>{leftByKind(t, words, view)}</Small>
      </Stack>
      <Stack role="main" grow>
        <FlatList
          key={columns}
          data={pages}
          numColumns={columns}
          keyExtractor={(x) => `${x.doc.id}:${x.n}`}
          contentContainerStyle={{ padding: GAP, gap: GAP, alignItems: 'center' }}
          columnWrapperStyle={{ gap: GAP }}
          initialNumToRender={12}
          renderItem={({ item }) => {
            const left = t('sign.pages.left', { n: item.left });
            return (
              <Pressable
                role="button"
                aria-label={`${t('sign.page_of', { page: item.n, pages: item.doc.pages.length, name: item.doc.name })}, ${left}`}
                onPress={() => onPlace((item.here.find((x) => !x.done) ?? item.here[0])?.marks[0]?.id ?? null)}
                testID={`thumb-${item.n}`}
                style={{ gap: 4, width: size }}
              >
                <Sheet
                  page={item.page}
                  width={size}
                  url={files.page(item.doc.id, item.n)}
                  label=""
                  failing={t('problem.page')}
                >
                  <Fills
                    page={item.page}
                    scale={size / item.page.width}
                    fills={view.fills.filter((f) => f.documentId === item.doc.id && f.page === item.n)}
                    pictureUrl={files.picture}
                  />
                </Sheet>
                <Small center>{t('sign.page_short', { page: item.n, pages: item.doc.pages.length })}</Small>
                <Small tone={item.left ? 'act' : 'good'} center>
                  {left}
                </Small>
              </Pressable>
            );
          }}
        />
      </Stack>
      <BackBar onBack={onBack} />
    </View>
  );
}
