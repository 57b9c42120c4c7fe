/** A page as the client sees it: what others and they themselves have signed, and their own places. */
import { Pressable, View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import { takesHand } from '@gatepath/core/filling';
import { sideIn } from '@gatepath/core/words';
import { Fills } from '../pages/fills';
import { AtRect, MarkFace } from '../pages/mark-box';
import { Redlines } from '../pages/redlines';
import { Sheet } from '../pages/sheet';
import { useFiles } from './files';
import { useSay, useWords } from './say';
import type { OwnMark } from './own-rules';
import { webStyle } from '../../ui/web';
import { itemAt } from '@gatepath/core/sure';

interface Props {
  token: string;
  view: SigningView;
  documentId: string;
  page: number;
  width: number;
  current?: OwnMark | null;
  onTouch?: (mark: OwnMark) => void;
  /** Called when the page is shown, and when it cannot be loaded. */
  onPicture?: (is: 'shown' | 'missing') => void;
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function SigningSheet({ token, view, documentId, page: n, width, current, onTouch, onPicture }: Props) {
  const t = useSay();
  const words = useWords();
  const files = useFiles(token);
  const doc = view.documents.find((d) => d.id === documentId)!;
  const page = itemAt(doc.pages, n - 1);
  const scale = width / page.width;
  const own = view.marks.filter((m) => m.documentId === documentId && m.page === n && !m.done);
  // Signed marks are announced to screen readers, and cannot be touched.
  const signed = view.marks.filter(
    (m) => m.documentId === documentId && m.page === n && m.done && (m.automatic || takesHand(m.kind)),
  );
  const nameOf = (m: OwnMark, how: 'required' | 'optional' | 'automatic' | 'done') => {
    const name = t('sign.mark', {
      kind: `${t(`kind.${m.kind}`)}${m.label ? ` (${m.label})` : ''}`,
      side: sideIn(words, view.me),
      name: view.me.name,
      page: n,
      pages: doc.pages.length,
      need: t(`sign.mark.${how}`),
    });
    return name.charAt(0).toUpperCase() + name.slice(1);
  };
  // Text and checks can still be changed.
  const changeable = view.marks.filter(
    (m) => m.documentId === documentId && m.page === n && m.done && !m.automatic && !takesHand(m.kind),
  );
  return (
    <Sheet
      page={page}
      width={width}
      url={files.page(documentId, n)}
      label={t('sign.page_label', { page: n, name: doc.name })}
      failing={t('problem.page')}
      onPicture={onPicture}
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
        pictureUrl={files.picture}
      />
      {signed.map((m) => (
        <AtRect key={m.id} rect={m.rect} scale={scale}>
          <View role="img" aria-label={nameOf(m, 'done')} style={webStyle({ flex: 1, pointerEvents: 'none' })} />
        </AtRect>
      ))}
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
        return (
          <AtRect key={m.id} rect={m.rect} scale={scale}>
            <Pressable
              role="button"
              disabled={m.automatic || !onTouch}
              hitSlop={12}
              onPress={() => onTouch?.(m)}
              aria-label={nameOf(m, m.automatic ? 'automatic' : m.required ? 'required' : 'optional')}
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
