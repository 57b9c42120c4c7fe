/** Everything about one mark, by typing: what it asks, what it accepts, and where it is. */
import { type ReactNode, useState } from 'react';
import { ScrollView } from 'react-native';
import { Dialog } from 'react-native-paper';
import { KINDS, type Mark, type ValueRule, filledHow, isAutomatic, kinOf, takesHand } from '@gatepath/core/packet';
import { mergeTags } from '@gatepath/core/merge';
import '@gatepath/core/patterns';
import { patternOf } from '@gatepath/core/text';
import { Input } from '../../ui/input';
import { Button, Choice } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import { Switch } from '../../ui/switch';
import { useDesk, useDeskActs } from './use-desk';
import { keysOf } from '@gatepath/core/sure';
import { DeskPortal } from './desk-portal';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

const FORMS = [
  { value: '', label: 'anything' },
  { value: 'digits', label: 'digits' },
  { value: 'email', label: 'email' },
  { value: 'phone', label: 'phone' },
  { value: 'pattern', label: TEXT.ownPattern },
] as const;

interface Editing {
  m: Mark;
  set: (more: Partial<Mark>) => void;
  check: (more: Partial<ValueRule>) => void;
}

export function MarkDetails({ mark, onClose }: { mark: Mark; onClose: () => void }) {
  const { change } = useDeskActs();
  const [m, setM] = useState(mark);
  const set = (more: Partial<Mark>) => setM((was) => ({ ...was, ...more }));
  const check = (more: Partial<ValueRule>) => set({ check: tidy({ ...m.check, ...more }) });
  const editing: Editing = { m, set, check };
  const kin = kinOf(m.kind);
  const save = () => {
    const least = KINDS[m.kind].least;
    const rect = { ...m.rect, w: Math.max(least.w, m.rect.w), h: Math.max(least.h, m.rect.h) };
    change(mark, { ...m, rect });
    onClose();
  };
  return (
    <DeskPortal>
      <Dialog
        visible
        onDismiss={onClose}
        style={{ maxWidth: 560, width: '94%', alignSelf: 'center', maxHeight: '92%' }}
      >
        <Dialog.Title>{TEXT.detailsOfMark(KINDS[m.kind].word)}</Dialog.Title>
        <Dialog.ScrollArea style={{ paddingHorizontal: 20 }}>
          <ScrollView contentContainerStyle={{ gap: 12, paddingVertical: 12 }}>
            <Asking {...editing} />
            <FromTheStart {...editing} />
            <Choices {...editing} />
            <Taking {...editing} />
            {m.check ? (
              <Input
                label={TEXT.messageWhenTheEntry}
                value={m.check.message ?? ''}
                onChangeText={(message) => check({ message: message || undefined })}
              />
            ) : null}
            {kin.length ? (
              <>
                <Strong>{TEXT.kind}</Strong>
                <Choice
                  wrap
                  label={TEXT.kind}
                  value={m.kind}
                  options={kin.map((k) => ({ value: k, label: KINDS[k].word }))}
                  onChange={(kind) => set({ kind })}
                />
              </>
            ) : null}
            <WhereItStands {...editing} />
          </ScrollView>
        </Dialog.ScrollArea>
        <Dialog.Actions style={{ gap: 8 }}>
          <Button onPress={onClose}>{TEXT.cancel}</Button>
          <Button kind="main" onPress={save} disabled={hasBadPattern(m)} testID="details-save">
            {TEXT.save}
          </Button>
        </Dialog.Actions>
      </Dialog>
    </DeskPortal>
  );
}

const hasBadPattern = (m: Mark) => m.check?.form === 'pattern' && !patternOf(m.check.pattern ?? '');

/** Returns what a mark asks its party for; nothing for marks that are written by others. */
const asksOf = (m: Mark) => {
  const how = filledHow(m.kind);
  return how.by === 'writing' ? how.asks : null;
};

const isChoice = (m: Mark) => {
  const how = filledHow(m.kind);
  return how.by === 'touch' && how.together;
};

const isLabel = (m: Mark) => filledHow(m.kind).by === 'sender';

/** Its words, whether it is required, and its length. */
function Asking({ m, set }: Editing) {
  return (
    <>
      {isLabel(m) ? (
        <Input
          label={TEXT.words}
          value={m.value ?? ''}
          onChangeText={(value) => set({ value })}
          testID="detail-value"
        />
      ) : takesHand(m.kind) || isAutomatic(m.kind) ? null : (
        <>
          <Input
            label={isChoice(m) ? TEXT.wordsOfThisChoice : TEXT.whatItAsks}
            value={m.label ?? ''}
            onChangeText={(label) => set({ label })}
            testID="detail-label"
          />
          <Input label={TEXT.moreAboutItOptional} value={m.help ?? ''} onChangeText={(help) => set({ help })} />
        </>
      )}
      {isLabel(m) || isAutomatic(m.kind) ? null : (
        <Switch
          label={TEXT.required}
          on={m.required}
          onChange={(required) => set({ required })}
          testID="detail-required"
        />
      )}
      {asksOf(m) === 'form' || isLabel(m) ? (
        <Switch
          label={TEXT.severalLines}
          on={m.lines === 'several'}
          onChange={(on) => set({ lines: on ? 'several' : undefined })}
        />
      ) : null}
    </>
  );
}

/** Its initial text, with tags of the deal. */
function FromTheStart({ m, set }: Editing) {
  const known = useDesk((s) => s.view.tags);
  const asks = asksOf(m);
  const tags = m.value ? mergeTags(m.value, known) : null;
  return (
    <>
      {asks && asks !== 'list' ? (
        <>
          <Input
            label={TEXT.startingTextOptional}
            value={m.value ?? ''}
            onChangeText={(value) => set({ value: value || undefined })}
            testID="detail-value"
          />
          <Switch
            label={TEXT.theClientCannotChange}
            on={!!m.readOnly}
            onChange={(readOnly) => set({ readOnly: readOnly || undefined })}
          />
        </>
      ) : null}
      {isLabel(m) || m.value ? (
        <Stack gap={4}>
          <Small>{TEXT.insertFromTheDeal}</Small>
          <Actions>
            {[...known.keys()].map((tag) => (
              <Button
                key={tag}
                kind="quiet"
                onPress={() => set({ value: `${m.value === 'Label' ? '' : (m.value ?? '')}{${tag}}` })}
              >{`{${tag}}`}</Button>
            ))}
          </Actions>
          {tags ? <Small>{TEXT.reads(tags.text)}</Small> : null}
        </Stack>
      ) : null}
    </>
  );
}

/** Its choices: a list, or marks that exclude each other. */
function Choices({ m, set }: Editing) {
  const others = useDesk((s) => s.view.marks.filter((x) => x.group && x.group === m.group && x.id !== m.id));
  return (
    <>
      {asksOf(m) === 'list' ? (
        <Input
          label={TEXT.choicesOnePerLine}
          multiline
          value={(m.options ?? []).join('\n')}
          onChangeText={(t) => set({ options: t.split('\n') })}
          testID="detail-options"
        />
      ) : null}
      {isChoice(m) ? <Small>{TEXT.oneOfChoicesCopyOne(others.length + 1)}</Small> : null}
    </>
  );
}

/** What it accepts: a pattern, numbers or days within limits. */
function Taking({ m, check }: Editing) {
  const asks = asksOf(m);
  if (asks === 'form')
    return (
      <>
        <Strong>{TEXT.whatItAccepts}</Strong>
        <Choice
          wrap
          label={TEXT.whatItAccepts}
          value={m.check?.form ?? ''}
          options={[...FORMS]}
          onChange={(form) => check({ form: form || undefined })}
        />
        {m.check?.form === 'pattern' ? (
          <Input
            label={TEXT.patternRegularExpression}
            value={m.check.pattern ?? ''}
            error={hasBadPattern(m)}
            onChangeText={(pattern) => check({ pattern })}
          />
        ) : null}
        <DetailRow>
          <NumberInput label={TEXT.fewestLetters} value={m.check?.minLength} on={(minLength) => check({ minLength })} />
          <NumberInput label={TEXT.mostLetters} value={m.check?.maxLength} on={(maxLength) => check({ maxLength })} />
        </DetailRow>
      </>
    );
  if (asks === 'range')
    return (
      <DetailRow>
        <NumberInput label={TEXT.least} value={m.check?.min} on={(min) => check({ min })} />
        <NumberInput label={TEXT.most} value={m.check?.max} on={(max) => check({ max })} />
      </DetailRow>
    );
  if (asks === 'days')
    return (
      <DetailRow>
        <Input
          label={TEXT.firstDay}
          dense
          style={{ flex: 1 }}
          value={m.check?.from ?? ''}
          onChangeText={(from) => check({ from: from || undefined })}
        />
        <Input
          label={TEXT.lastDay}
          dense
          style={{ flex: 1 }}
          value={m.check?.to ?? ''}
          onChangeText={(to) => check({ to: to || undefined })}
        />
      </DetailRow>
    );
  return null;
}

const SIDES = { x: TEXT.fromLeft, y: TEXT.fromTop, w: TEXT.width, h: TEXT.height };

function WhereItStands({ m, set }: Editing) {
  return (
    <>
      <Strong>{TEXT.placeInPoints}</Strong>
      <DetailRow>
        {keysOf(SIDES).map((k) => (
          <NumberInput
            key={k}
            label={SIDES[k]}
            value={m.rect[k]}
            on={(n) => set({ rect: { ...m.rect, [k]: n ?? m.rect[k] } })}
          />
        ))}
      </DetailRow>
    </>
  );
}

const DetailRow = ({ children }: { children: ReactNode }) => (
  <Row gap={8} align="stretch" wrap>
    {children}
  </Row>
);

function NumberInput({
  label,
  value,
  on,
}: {
  label: string;
  value: number | undefined;
  on: (n: number | undefined) => void;
}) {
  return (
    <Input
      label={label}
      dense
      inputMode="decimal"
      style={{ flex: 1, minWidth: 90 }}
      value={value === undefined ? '' : String(value)}
      onChangeText={(t) => on(t.trim() === '' || !Number.isFinite(Number(t)) ? undefined : Number(t))}
    />
  );
}

function tidy(check: ValueRule): ValueRule | undefined {
  const kept = { ...check };
  for (const key of keysOf(kept)) if (kept[key] === undefined || kept[key] === '') delete kept[key];
  return Object.keys(kept).length ? kept : undefined;
}
