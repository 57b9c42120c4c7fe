/** The one act for the place in hand, in one touch. */
import { useRef, useState } from 'react';
import { View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import { inkOf } from '@gatepath/core/inks';
import { checkValue, MARK_WORDS, takesHand, takesText, type Mark } from '@gatepath/core/marks';
import { showHand } from '@gatepath/core/routing';
import { Input } from '../../ui/input';
import { usePalette } from '../../ui/hooks';
import { Button, Choice, Trouble } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import { Preview } from './hand-step';
import type { SigningPlace } from './places';
import type { OwnMark, Signing } from './use-signing';

interface Props {
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

export function PlaceAct({ signing, view, place, next, onHand, onNext, onSkip }: Props) {
  const mark = place.marks[0]!;
  const words = {
    initials: ['Initial', `Initial page ${mark.page}`],
    signature: ['Sign here', `Sign page ${mark.page}`],
  } as Record<string, [string, string]>;
  const [verb, title] = words[mark.kind] ?? ['Put it in', titleOf(place)];
  const before = takesHand(mark.kind)
    ? view.fills.filter(
        (f) =>
          f.documentId === mark.documentId && f.page === mark.page && f.kind === mark.kind && f.partyId !== view.me.id,
      )
    : [];
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        <View style={{ flex: 1 }}>
          <Strong style={{ fontSize: 20, lineHeight: 26 }} testID="place-title">
            {title}
          </Strong>
          {mark.help ? <Small>{mark.help}</Small> : null}
          {before.length ? (
            <Small>{`${before.length === 1 ? 'One other person has' : `${before.length} others have`} ${mark.kind === 'initials' ? 'initialled' : 'signed'} this page before you`}</Small>
          ) : null}
          {!place.required ? <Small>You may leave this empty.</Small> : null}
        </View>
        {takesHand(mark.kind) ? <OwnHand view={view} mark={mark} onHand={onHand} /> : null}
      </View>
      {mark.kind === 'choice' ? (
        <Choosing signing={signing} view={view} place={place} onNext={onNext} />
      ) : mark.kind === 'file' ? (
        <AddingFile signing={signing} mark={mark} onNext={onNext} />
      ) : takesText(mark.kind) ? (
        <Writing signing={signing} view={view} mark={mark} goes={goesTo(view, mark, next)} onNext={onNext} />
      ) : (
        <>
          {signing.fill.isError ? <Trouble error={signing.fill.error} /> : null}
          <Button
            large
            kind="main"
            busy={signing.fill.isPending}
            onPress={() =>
              signing.fill.mutate(
                { markId: mark.id, ...(mark.kind === 'tick' ? { text: mark.done ? '' : 'yes' } : {}) },
                { onSuccess: onNext },
              )
            }
            testID="fill"
          >
            {`${mark.kind === 'tick' ? (mark.done ? 'Take the tick away' : 'Tick it') : verb}${goesTo(view, mark, next)}`}
          </Button>
        </>
      )}
      {onSkip ? (
        <Button kind="quiet" onPress={onSkip} testID="skip">
          {mark.done ? 'Leave it as it is' : 'Leave it empty'}
        </Button>
      ) : null}
    </>
  );
}

function titleOf(place: SigningPlace): string {
  const mark = place.marks[0]!;
  if (mark.kind === 'choice') return `Choose one on page ${mark.page}`;
  if (mark.kind === 'tick') return mark.label ? `Tick: ${mark.label}` : `A box to tick on page ${mark.page}`;
  return mark.label || `Fill in the ${MARK_WORDS[mark.kind]} on page ${mark.page}`;
}

/** Where the next touch leads, told on the button. */
function goesTo(view: SigningView, mark: OwnMark, next: OwnMark | null): string {
  if (!next) return '';
  if (next.documentId !== mark.documentId)
    return `, then go to ${view.documents.find((d) => d.id === next.documentId)?.name ?? 'the next document'}`;
  return next.page === mark.page ? ', then the next place' : `, then go to page ${next.page}`;
}

function OwnHand({ view, mark, onHand }: { view: SigningView; mark: OwnMark; onHand: () => void }) {
  const p = usePalette();
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
        />
      </View>
      <Button kind="quiet" onPress={onHand} style={{ minHeight: 44 }}>
        Change
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
  );
  const wrong = left && text.trim() && !checked.ok ? checked.sentence : null;
  const fill = () => {
    setLeft(true);
    if (checked.ok || (!text.trim() && mark.done))
      signing.fill.mutate({ markId: mark.id, text }, { onSuccess: onNext });
  };
  const form = mark.check?.form;
  return (
    <>
      {mark.kind === 'list' ? (
        <Choice
          wrap
          label={mark.label ?? 'Choose one'}
          value={text}
          options={mark.options.map((o) => ({ value: o, label: o }))}
          onChange={setText}
        />
      ) : (
        <Input
          label={mark.label ?? (mark.kind === 'date' ? 'Day, like 11/23/2026' : 'Your words')}
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
          placeholder={mark.kind === 'date' ? 'month/day/year' : undefined}
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
      {signing.fill.isError ? <Trouble error={signing.fill.error} /> : null}
      <Button
        large
        kind="main"
        busy={signing.fill.isPending}
        onPress={fill}
        disabled={!text.trim() && !mark.done}
        testID="fill"
      >
        {`Put it in${goes}`}
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
  const chosen = place.marks.find((m) => view.fills.some((f) => f.markId === m.id));
  return (
    <>
      {signing.fill.isError ? <Trouble error={signing.fill.error} /> : null}
      <View role="radiogroup" aria-label={`Choose one on page ${place.marks[0]!.page}`} style={{ gap: 8 }}>
        {place.marks.map((m, i) => (
          <Button
            key={m.id}
            large
            kind={chosen?.id === m.id ? 'main' : 'plain'}
            busy={signing.fill.isPending && signing.fill.variables?.markId === m.id}
            onPress={() => signing.fill.mutate({ markId: m.id, text: 'yes' }, { onSuccess: onNext })}
            testID={`choose-${i}`}
          >
            {m.label || `Choice ${i + 1}`}
          </Button>
        ))}
      </View>
    </>
  );
}

function AddingFile({ signing, mark, onNext }: { signing: Signing; mark: OwnMark; onNext: () => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg,image/webp,application/pdf"
        aria-label={mark.label ?? 'Add a photo or a PDF'}
        data-testid="file-for-place"
        style={{ display: 'none' }}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) signing.addFile.mutate({ markId: mark.id, file }, { onSuccess: onNext });
          e.target.value = '';
        }}
      />
      {signing.addFile.isError ? <Trouble error={signing.addFile.error} /> : null}
      <Button
        large
        kind="main"
        busy={signing.addFile.isPending}
        onPress={() => input.current?.click()}
        testID="add-file"
      >
        {mark.done ? 'Add another file instead' : 'Add a photo or a PDF'}
      </Button>
    </>
  );
}
