/** A page as the client sees it: what others and they themselves have signed, and their own places. */
import { Pressable } from 'react-native';
import { pathOf, type SigningView } from '@gatepath/contract';
import { takesHand } from '@gatepath/core/marks';
import { Fills } from '../pages/fills';
import { AtRect, MarkFace } from '../pages/mark-box';
import { Redlines } from '../pages/redlines';
import { Sheet } from '../pages/sheet';
import { sideIn } from './parts';
import { useSay } from './say';
import type { OwnMark } from './use-signing';

interface Props {
  token: string;
  view: SigningView;
  documentId: string;
  page: number;
  width: number;
  current?: OwnMark | null;
  onTouch?: (mark: OwnMark) => void;
}

export function SigningSheet({ token, view, documentId, page: n, width, current, onTouch }: Props) {
  const t = useSay();
  const doc = view.documents.find((d) => d.id === documentId)!;
  const page = doc.pages[n - 1]!;
  const scale = width / page.width;
  const own = view.marks.filter((m) => m.documentId === documentId && m.page === n && !m.done);
  // What was written or ticked can still be changed; what was signed is signed.
  const changeable = view.marks.filter(
    (m) => m.documentId === documentId && m.page === n && m.done && !m.automatic && !takesHand(m.kind),
  );
  return (
    <Sheet
      page={page}
      width={width}
      url={pathOf('signingPage', { token, documentId, page: n })}
      label={t('sign.page_label', { page: n, name: doc.name })}
      testID="signing-sheet"
    >
      <Redlines
        page={page}
        scale={scale}
        redlines={view.redlines.filter((r) => r.documentId === documentId && r.page === n)}
      />
      <Fills
        page={page}
        scale={scale}
        fills={view.fills.filter((f) => f.documentId === documentId && f.page === n)}
        pictureUrl={(sha256) => pathOf('signingPicture', { token, sha256 })}
      />
      {onTouch
        ? changeable.map((m) => (
            <AtRect key={m.id} rect={m.rect} scale={scale}>
              <Pressable
                role="button"
                hitSlop={12}
                onPress={() => onTouch(m)}
                aria-label={t('sign.mark.change', { kind: m.label ?? t(`kind.${m.kind}`), page: n })}
                testID="filled-place"
                style={{ flex: 1 }}
              />
            </AtRect>
          ))
        : null}
      {own.map((m) => {
        const on = m.id === current?.id;
        const need = t(m.automatic ? 'sign.mark.automatic' : m.required ? 'sign.mark.required' : 'sign.mark.optional');
        const name = t('sign.mark', {
          kind: `${t(`kind.${m.kind}`)}${m.label ? ` (${m.label})` : ''}`,
          side: sideIn(t, view.me),
          name: view.me.name,
          page: n,
          pages: doc.pages.length,
          need,
        });
        return (
          <AtRect key={m.id} rect={m.rect} scale={scale}>
            <Pressable
              role="button"
              disabled={m.automatic || !onTouch}
              hitSlop={12}
              onPress={() => onTouch?.(m)}
              aria-label={name.charAt(0).toUpperCase() + name.slice(1)}
              testID={on ? 'current-place' : 'place'}
              style={{ flex: 1 }}
            >
              <MarkFace
                rect={m.rect}
                scale={scale}
                kind={m.kind}
                ink={view.me.ink}
                required={m.required}
                selected={on}
                text={m.kind === 'file' ? t('sign.mark.add_file') : undefined}
              />
            </Pressable>
          </AtRect>
        );
      })}
    </Sheet>
  );
}
