/** What is written, chosen or added at a place. */
import { useRef, useState } from 'react';
import { View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import { validateValue, type Filled } from '@gatepath/core/filling';
import { newId } from '../../api/client';
import { Input } from '../../ui/input';
import { Button, Choice } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { rulesOf, type OwnMark } from './own-rules';
import type { SigningPlace } from './places';
import { useSay, useWords } from './say';
import type { Signing } from './use-signing';
import { Wrong } from './wrong';
import { itemAt } from '@gatepath/core/sure';
import { Stack } from '../../ui/layout';

/** The keyboard for a pattern. */
const KEYBOARD = { email: 'email', phone: 'tel', digits: 'numeric' } as const;

/** Text, numbers, a day or one of a list; validated while typed. */
// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function Writing({
  signing,
  view,
  mark,
  how,
  goes,
  onNext,
}: {
  signing: Signing;
  view: SigningView;
  mark: OwnMark;
  how: Extract<Filled, { by: 'writing' }>;
  goes: string;
  onNext: () => void;
}) {
  const t = useSay();
  const words = useWords();
  const stands = view.fills.find((f) => f.markId === mark.id)?.shows;
  const [text, setText] = useState(stands?.form === 'text' ? stands.text : (mark.value ?? ''));
  const [left, setLeft] = useState(false);
  const checked = validateValue(rulesOf(mark), text, words);
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
      {how.asks === 'list' ? (
        <Choice
          wrap
          label={mark.label ?? t('sign.place.choose_page', { page: mark.page })}
          value={text}
          options={mark.options.map((o) => ({ value: o, label: o }))}
          onChange={setText}
        />
      ) : (
        <Input
          label={mark.label ?? t(how.asks === 'days' ? 'sign.place.day' : 'sign.place.your_words')}
          value={text}
          onChangeText={setText}
          onBlur={() => setLeft(true)}
          multiline={mark.several}
          numberOfLines={mark.several ? 3 : 1}
          inputMode={form && form !== 'pattern' ? KEYBOARD[form] : how.keyboard}
          placeholder={how.asks === 'days' ? t('sign.place.day_hint') : undefined}
          error={!!wrong}
          aria-invalid={!!wrong}
          onSubmitEditing={mark.several ? undefined : fill}
          testID="place-text"
        />
      )}
      {wrong ? (
        <View role="alert">
          <Small tone="stop" testID="place-wrong">
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

export function Choosing({
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
      <Stack role="group" aria-label={t('sign.place.choose_page', { page: itemAt(place.marks, 0).page })} gap={8}>
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
      </Stack>
    </>
  );
}

export function AddingFile({ signing, mark, onNext }: { signing: Signing; mark: OwnMark; onNext: () => void }) {
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
      {signing.addFile.isError ? <Wrong error={signing.addFile.error} /> : null}
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
