/** Name and email address, as asked for wherever a person is added or corrected in a packet at a gate. */
import { Input } from '../../ui/input';
import { TEXT } from './words';

interface Props<T extends { name: string; email: string }> {
  value: T;
  onChange: (value: T) => void;
  /** Begins the test ids: `fix` gives `fix-name` and `fix-email`. */
  testID: string;
}

export function NameAndEmail<T extends { name: string; email: string }>({ value, onChange, testID }: Props<T>) {
  return (
    <>
      <Input
        label={TEXT.name}
        value={value.name}
        maxLength={120}
        onChangeText={(name) => onChange({ ...value, name })}
        testID={`${testID}-name`}
      />
      <Input
        label={TEXT.email}
        value={value.email}
        inputMode="email"
        autoCapitalize="none"
        onChangeText={(email) => onChange({ ...value, email })}
        testID={`${testID}-email`}
      />
    </>
  );
}
