/** The end of a small form: do it, or cancel. */
import { Button, Trouble } from './pieces';
import { Actions } from './layout';
import { TEXT } from './words';

interface Props {
  /** The label of the act. */
  label: string;
  onDo: () => void;
  onLeave: () => void;
  leave?: string;
  busy?: boolean;
  disabled?: boolean;
  stops?: boolean;
  /** Why it failed the last time. */
  error?: unknown;
  testID?: string;
}

export function DoOrLeave({ label, onDo, onLeave, leave = TEXT.cancel, busy, disabled, stops, error, testID }: Props) {
  return (
    <>
      {error ? <Trouble error={error} /> : null}
      <Actions>
        <Button kind={stops ? 'stop' : 'main'} busy={busy} disabled={disabled} onPress={onDo} testID={testID}>
          {label}
        </Button>
        <Button onPress={onLeave}>{leave}</Button>
      </Actions>
    </>
  );
}
