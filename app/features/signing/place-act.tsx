/** The one act for the place in hand, in one touch. */
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { pathOf, type SigningView } from '@gatepath/contract';
import { inkOf } from '@gatepath/core/inks';
import { checkValue, takesHand, takesText, type Mark } from '@gatepath/core/marks';
import { showHand } from '@gatepath/core/routing';
import { Input } from '../../ui/input';
import { usePalette } from '../../ui/hooks';
import { Button, Choice, Trouble } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import { newId } from '../../api/client';
import { Preview } from './hand-step';
import type { SigningPlace } from './places';
import { useSay, useWords, type Say } from './say';
import type { OwnMark, Signing } from './use-signing';

interface Props {
  token: string;
  signing: Signing;
  view: SigningView;
  place: SigningPlace;
  next: OwnMark | null;
  onHand: () => void;
  onNext: () => void;
  /** Given where the place may be left as it is. */
  onSkip?: () => void;
}

/** The keyboard a kind wants. */
const KEYBOARD: Partial<Record<Mark['kind'], 'text' | 'numeric' | 'decimal'>> = {
  number: 'decimal',
  money: 'decimal',
  date: 'numeric',
};

export function PlaceAct({ token, signing, view, place, next, onHand, onNext, onSkip }: Props) {
  const t = useSay();
  const mark = place.marks[0]!;
  const redline = mark.redlineId ? view.redlines.find((r) => r.id === mark.redlineId) : undefined;
  const [verb, title] =
    mark.kind === 'initials'
      ? [t('sign.place.initial'), t(redline ? 'sign.place.change' : 'sign.place.initial_page', { page: mark.page })]
      : mark.kind === 'signature'
        ? [t('sign.place.sign'), t('sign.place.sign_page', { page: mark.page })]
        : [t('sign.place.put_in'), titleOf(t, place)];
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
  const act = mark.kind === 'tick' ? t(mark.done ? 'sign.place.untick' : 'sign.place.tick') : verb;
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10, flexWrap: 'wrap' }}>
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
              {t(mark.kind === 'initials' ? 'sign.place.before_initials' : 'sign.place.before_signature', {
                n: before,
              })}
            </Small>
          ) : null}
          {!place.required ? <Small>{t('sign.place.optional')}</Small> : null}
        </View>
        {takesHand(mark.kind) ? <OwnHand token={token} view={view} mark={mark} onHand={onHand} /> : null}
      </View>
      {mark.kind === 'choice' ? (
        <Choosing signing={signing} view={view} place={place} onNext={onNext} />
      ) : mark.kind === 'file' ? (
        <AddingFile signing={signing} mark={mark} onNext={onNext} />
      ) : takesText(mark.kind) ? (
        <Writing
          signing={signing}
          view={view}
          mark={mark}
          goes={goesTo(t, view, t('sign.place.put_in'), mark, next)}
          onNext={onNext}
        />
      ) : (
        <Button
          large
          kind="main"
          onPress={() => {
            signing.fill(mark.id, mark.kind === 'tick' ? (mark.done ? '' : 'yes') : undefined);
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
  const mark = place.marks[0]!;
  const { page } = mark;
  if (mark.kind === 'choice') return t('sign.place.choose_page', { page });
  if (mark.kind === 'tick')
    return mark.label ? t('sign.place.tick_label', { label: mark.label }) : t('sign.place.tick_page', { page });
  return mark.label || t('sign.place.fill_page', { kind: t(`kind.${mark.kind}`), page });
}

/** The act with where it leads, told on the button. */
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
  const t = useSay();
  if (!view.hand) return null;
  const as = mark.kind === 'initials' ? 'initials' : 'signature';
  return (
    <View style={{ alignItems: 'center' }}>
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
          pictureUrl={(sha256) => pathOf('signingPicture', { token, sha256 })}
        />
      </View>
      <Button kind="quiet" onPress={onHand} style={{ minHeight: 44 }}>
        {t('sign.place.change_hand')}
      </Button>
    </View>
  );
}

/** Words, figures, a day or one of a list; checked while they are written. */
function Writing({
  signing,
  view,
  mark,
  goes,
  onNext,
}: {
  signing: Signing;
  view: SigningView;
  mark: OwnMark;
  goes: string;
  onNext: () => void;
}) {
  const p = usePalette();
  const t = useSay();
  const words = useWords();
  const stands = view.fills.find((f) => f.markId === mark.id)?.shows;
  const [text, setText] = useState(stands?.form === 'text' ? stands.text : (mark.value ?? ''));
  const [left, setLeft] = useState(false);
  const checked = checkValue(
    {
      kind: mark.kind,
      options: mark.options,
      ...(mark.check ? { check: mark.check } : {}),
      ...(mark.several ? { lines: 'several' as const } : {}),
    },
    text,
    words,
  );
  const wrong = left && text.trim() && !checked.ok ? checked.sentence : null;
  const fill = () => {
    setLeft(true);
    if (!checked.ok && (text.trim() || !mark.done)) return;
    signing.fill(mark.id, text);
    onNext();
  };
  const form = mark.check?.form;
  return (
    <>
      {mark.kind === 'list' ? (
        <Choice
          wrap
          label={mark.label ?? t('sign.place.choose_page', { page: mark.page })}
          value={text}
          options={mark.options.map((o) => ({ value: o, label: o }))}
          onChange={setText}
        />
      ) : (
        <Input
          label={mark.label ?? t(mark.kind === 'date' ? 'sign.place.day' : 'sign.place.your_words')}
          value={text}
          onChangeText={setText}
          onBlur={() => setLeft(true)}
          multiline={mark.several}
          numberOfLines={mark.several ? 3 : 1}
          inputMode={
            form === 'email'
              ? 'email'
              : form === 'phone'
                ? 'tel'
                : form === 'digits'
                  ? 'numeric'
                  : (KEYBOARD[mark.kind] ?? 'text')
          }
          placeholder={mark.kind === 'date' ? t('sign.place.day_hint') : undefined}
          error={!!wrong}
          aria-invalid={!!wrong}
          onSubmitEditing={mark.several ? undefined : fill}
          testID="place-text"
        />
      )}
      {wrong ? (
        <View role="alert">
          <Small style={{ color: p.wine }} testID="place-wrong">
            {wrong}
          </Small>
        </View>
      ) : null}
      <Button large kind="main" onPress={fill} disabled={!text.trim() && !mark.done} testID="fill">
        {goes}
      </Button>
    </>
  );
}

function Choosing({
  signing,
  view,
  place,
  onNext,
}: {
  signing: Signing;
  view: SigningView;
  place: SigningPlace;
  onNext: () => void;
}) {
  const t = useSay();
  const chosen = place.marks.find((m) => view.fills.some((f) => f.markId === m.id));
  return (
    <>
      <View
        role="radiogroup"
        aria-label={t('sign.place.choose_page', { page: place.marks[0]!.page })}
        style={{ gap: 8 }}
      >
        {place.marks.map((m, i) => (
          <Button
            key={m.id}
            large
            kind={chosen?.id === m.id ? 'main' : 'plain'}
            onPress={() => {
              signing.fill(m.id, 'yes');
              onNext();
            }}
            act={i === 0}
            testID={`choose-${i}`}
          >
            {m.label || t('sign.place.choice', { n: i + 1 })}
          </Button>
        ))}
      </View>
    </>
  );
}

function AddingFile({ signing, mark, onNext }: { signing: Signing; mark: OwnMark; onNext: () => void }) {
  const t = useSay();
  const input = useRef<HTMLInputElement>(null);
  const actId = useRef(newId());
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg,image/webp,application/pdf"
        aria-label={mark.label ?? t('sign.place.add_file')}
        data-testid="file-for-place"
        style={{ display: 'none' }}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file)
            signing.addFile.mutate(
              { markId: mark.id, file, actId: actId.current },
              {
                onSuccess: () => {
                  actId.current = newId();
                  onNext();
                },
              },
            );
          e.target.value = '';
        }}
      />
      {signing.offline ? <Small>{t('sign.place.file_offline')}</Small> : null}
      {signing.addFile.isError ? <Trouble error={signing.addFile.error} /> : null}
      <Button
        large
        kind="main"
        busy={signing.addFile.isPending}
        onPress={() => input.current?.click()}
        act
        testID="add-file"
      >
        {t(mark.done ? 'sign.place.other_file' : 'sign.place.add_file')}
      </Button>
    </>
  );
}
