/**
 * One row of "Most helpful next": what to do, why, and a button that does it. After that the row says what was done, with
 * a button that undoes it.
 */
import type { Later } from '../../ui/later';
import { Button } from '../../ui/pieces';
import { Body, Small, Strong } from '../../ui/text';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

interface Props {
  title: string;
  detail: string;
  /** Beside the detail, in its own color: "due Thu, Dec 3". */
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
  return (
    <Row testID={testID} gap={12} style={{ minHeight: 58, paddingVertical: 6 }}>
      <Stack grow>
        <Strong>{title}</Strong>
        <Small numberOfLines={2}>
          {detail}
          {due ? <Small tone={due.late ? 'stop' : 'warn'}>{`${detail ? ' · ' : ''}${due.words}`}</Small> : null}
        </Small>
      </Stack>
      <Button kind={main ? 'main' : 'plain'} onPress={onPress} busy={busy} label={actLabel(button, title)}>
        {button}
      </Button>
    </Row>
  );
}

/** An act that was just done, with undo. */
export function DoneRow({ done, onTakeBack }: { done: Later; onTakeBack: () => void }) {
  return (
    <Row role="status" testID="done-row" gap={12} style={{ minHeight: 58 }}>
      <Body grow>{done.said}</Body>
      <Button kind="quiet" onPress={onTakeBack} label={TEXT.undo(done.said)}>
        {TEXT.takeBack}
      </Button>
    </Row>
  );
}
