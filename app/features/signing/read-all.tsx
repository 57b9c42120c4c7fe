/** Every page of the packet, one below the other. */
import { useState } from 'react';
import { FlatList, View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import { usePalette } from '../../ui/hooks';
import { Small, Strong } from '../../ui/text';
import { BackBar } from './parts';
import { useSay } from './say';
import { SigningSheet } from './signing-sheet';
import { Stack } from '../../ui/layout';

export function ReadAll({ token, view, onBack }: { token: string; view: SigningView; onBack: () => void }) {
  const p = usePalette();
  const t = useSay();
  const [width, setWidth] = useState(0);
  const pages = view.documents.flatMap((d) => d.pages.map((_, i) => ({ doc: d, page: i + 1 })));
  return (
    <View style={{ flex: 1, backgroundColor: p.bench }}>
      <Stack role="main" grow onLayout={(e) => setWidth(Math.min(820, e.nativeEvent.layout.width - 20))}>
        {width > 0 ? (
          <FlatList
            data={pages}
            tabIndex={0}
            keyExtractor={(x) => `${x.doc.id}:${x.page}`}
            contentContainerStyle={{ alignItems: 'center', gap: 14, paddingVertical: 14 }}
            initialNumToRender={2}
            windowSize={3}
            renderItem={({ item }) => (
              <Stack gap={4}>
                {item.page === 1 ? <Strong level={1}>{item.doc.name}</Strong> : null}
                <SigningSheet token={token} view={view} documentId={item.doc.id} page={item.page} width={width} />
                <Small center>{t('sign.page_short', { page: item.page, pages: item.doc.pages.length })}</Small>
              </Stack>
            )}
          />
        ) : null}
      </Stack>
      <BackBar onBack={onBack} />
    </View>
  );
}
