/** One act: verb first, why beneath it, the button under the thumb; done ones say so and can be taken back. */
import { View } from 'react-native';
import { usePalette } from '../../ui/hooks';
import type { Later } from '../../ui/later';
import { Button } from '../../ui/pieces';
import { Body, Small, Strong } from '../../ui/text';
import { TEXT } from './words';

interface Props {
  title: string;
  detail: string;
  /** Beside the detail, in its own colour: "due Thu, Dec 3". */
  due?: { words: string; late: boolean } | null;
  button: string;
  main?: boolean;
  busy?: boolean;
  onPress: () => void;
  testID?: string;
}

/**
 * Returns the label of a button that carries out an act. It starts with the words on the button, and says them once.
 *
 * @example actLabel('Fill in', 'Fill in: association') // "Fill in: association"
 */
export function actLabel(button: string, title: string): string {
  const rest = title.startsWith(button) ? title.slice(button.length).replace(/^[:\s]+/, '') : title;
  return rest ? `${button}: ${rest}` : button;
}

/** An act with its button. */
export function ActRow({ title, detail, due, button, main, busy, onPress, testID }: Props) {
  const p = usePalette();
  return (
    <View
      testID={testID}
      style={{ flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: 58, paddingVertical: 6 }}
    >
      <View style={{ flex: 1 }}>
        <Strong>{title}</Strong>
        <Small numberOfLines={2}>
          {detail}
          {due ? (
            <Small style={{ color: due.late ? p.wine : p.ochre }}>{`${detail ? ' · ' : ''}${due.words}`}</Small>
          ) : null}
        </Small>
      </View>
      <Button kind={main ? 'main' : 'plain'} onPress={onPress} busy={busy} label={actLabel(button, title)}>
        {button}
      </Button>
    </View>
  );
}

/** What was just done, with the way back. */
export function DoneRow({ done, onTakeBack }: { done: Later; onTakeBack: () => void }) {
  return (
    <View
      role="status"
      testID="done-row"
      style={{ flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: 58 }}
    >
      <Body style={{ flex: 1 }}>{done.said}</Body>
      <Button kind="quiet" onPress={onTakeBack} label={TEXT.undo(done.said)}>
        {TEXT.takeBack}
      </Button>
    </View>
  );
}
