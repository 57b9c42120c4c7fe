/** The act for the current place, in one touch. */
import { View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import { inkOf } from '@gatepath/core/inks';
import { filledHow, handOf, showHand, takesHand } from '@gatepath/core/filling';
import { useFiles } from './files';
import { usePalette } from '../../ui/hooks';
import { Button } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import { Preview } from './hand-step';
import { AddingFile, Choosing, Writing } from './place-fields';
import type { SigningPlace } from './places';
import { useSay, type Say } from './say';
import type { OwnMark } from './own-rules';
import type { Signing } from './use-signing';
import { itemAt } from '@gatepath/core/sure';
import { Row, Stack } from '../../ui/layout';

interface Props {
  token: string;
  signing: Signing;
  view: SigningView;
  place: SigningPlace;
  next: OwnMark | null;
  onHand: () => void;
  onNext: () => void;
  /** Given if the place may be skipped. */
  onSkip?: () => void;
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function PlaceAct({ token, signing, view, place, next, onHand, onNext, onSkip }: Props) {
  const t = useSay();
  const mark = itemAt(place.marks, 0);
  const redline = mark.redlineId ? view.redlines.find((r) => r.id === mark.redlineId) : undefined;
  const how = filledHow(mark.kind);
  const [verb, title] =
    how.by !== 'hand'
      ? [t('sign.place.put_in'), titleOf(t, place)]
      : how.as === 'initials'
        ? [t('sign.place.initial'), t(redline ? 'sign.place.change' : 'sign.place.initial_page', { page: mark.page })]
        : [t('sign.place.sign'), t('sign.place.sign_page', { page: mark.page })];
  const before = takesHand(mark.kind)
    ? new Set(
        view.fills
          .filter(
            (f) =>
              f.documentId === mark.documentId &&
              f.page === mark.page &&
              f.kind === mark.kind &&
              f.partyId !== view.me.id,
          )
          .map((f) => f.partyId),
      ).size
    : 0;
  const ticks = how.by === 'touch' && !how.together;
  const act = ticks ? t(mark.done ? 'sign.place.untick' : 'sign.place.tick') : verb;
  return (
    <>
      <Row gap={8} wrap>
        <View style={{ flex: 1, minWidth: 160 }} aria-live="polite">
          <Strong style={{ fontSize: 20, lineHeight: 26 }} testID="place-title">
            {title}
          </Strong>
          {redline ? (
            <Small>
              {t(redline.kind === 'strike' ? 'sign.changed.strike' : 'sign.changed.insert', { words: redline.text })}
            </Small>
          ) : null}
          {mark.help ? <Small>{mark.help}</Small> : null}
          {before ? (
            <Small>
              {t(handOf(mark.kind) === 'initials' ? 'sign.place.before_initials' : 'sign.place.before_signature', {
                n: before,
              })}
            </Small>
          ) : null}
          {!place.required ? <Small>{t('sign.place.optional')}</Small> : null}
        </View>
        {takesHand(mark.kind) ? <OwnHand token={token} view={view} mark={mark} onHand={onHand} /> : null}
      </Row>
      {how.by === 'touch' && how.together ? (
        <Choosing signing={signing} view={view} place={place} onNext={onNext} />
      ) : how.by === 'file' ? (
        <AddingFile signing={signing} mark={mark} onNext={onNext} />
      ) : how.by === 'writing' ? (
        <Writing
          signing={signing}
          view={view}
          mark={mark}
          how={how}
          goes={goesTo(t, view, t('sign.place.put_in'), mark, next)}
          onNext={onNext}
        />
      ) : (
        <Button
          large
          kind="main"
          onPress={() => {
            signing.fill(mark.id, ticks ? (mark.done ? '' : 'yes') : undefined);
            onNext();
          }}
          act
          testID="fill"
        >
          {goesTo(t, view, act, mark, next)}
        </Button>
      )}
      {onSkip ? (
        <Button kind="quiet" onPress={onSkip} testID="skip">
          {t(mark.done ? 'sign.place.leave' : 'sign.place.leave_empty')}
        </Button>
      ) : null}
    </>
  );
}

function titleOf(t: Say, place: SigningPlace): string {
  const mark = itemAt(place.marks, 0);
  const { page } = mark;
  const how = filledHow(mark.kind);
  if (how.by === 'touch' && how.together) return t('sign.place.choose_page', { page });
  if (how.by === 'touch')
    return mark.label ? t('sign.place.tick_label', { label: mark.label }) : t('sign.place.tick_page', { page });
  return mark.label || t('sign.place.fill_page', { kind: t(`kind.${mark.kind}`), page });
}

/** Returns the act with what comes next, for the button. */
function goesTo(t: Say, view: SigningView, act: string, mark: OwnMark, next: OwnMark | null): string {
  if (!next) return act;
  if (next.documentId !== mark.documentId) {
    const name = view.documents.find((d) => d.id === next.documentId)?.name ?? '';
    return t('sign.place.then_document', { act, name });
  }
  return next.page === mark.page
    ? t('sign.place.then_next', { act })
    : t('sign.place.then_page', { act, page: next.page });
}

function OwnHand({
  token,
  view,
  mark,
  onHand,
}: {
  token: string;
  view: SigningView;
  mark: OwnMark;
  onHand: () => void;
}) {
  const p = usePalette();
  const files = useFiles(token);
  const t = useSay();
  if (!view.hand) return null;
  const as = handOf(mark.kind);
  return (
    <Stack align="center">
      <View
        style={{
          borderWidth: 1,
          borderStyle: 'dashed',
          borderColor: p.rule,
          borderRadius: 10,
          backgroundColor: '#FFFFFF',
        }}
      >
        <Preview
          shows={showHand(view.hand, as, view.me.name)}
          kind={as}
          width={as === 'initials' ? 70 : 130}
          color={inkOf(view.me.ink).color}
          pictureUrl={files.picture}
        />
      </View>
      <Button kind="quiet" onPress={onHand} style={{ minHeight: 44 }} testID="hand">
        {t('sign.place.change_hand')}
      </Button>
    </Stack>
  );
}
