/** In whose name something is sent, if a colleague permits it. */
import { useColleagues } from '../../api/colleague-hooks';
import { Choice } from '../../ui/pieces';
import { TEXT } from './words';

interface Props {
  /** The colleague's id; empty for one's own name. */
  value: string;
  onChange: (id: string) => void;
}

export function InNameOf({ value, onChange }: Props) {
  const { colleagues } = useColleagues();
  const mayFor = colleagues.data?.mayFor ?? [];
  if (!mayFor.length) return null;
  return (
    <Choice
      wrap
      label={TEXT.sentInTheName}
      value={value}
      options={[
        { value: '', label: TEXT.inMyName },
        ...mayFor.map((m) => ({ value: m.id, label: TEXT.forParty(m.name) })),
      ]}
      onChange={onChange}
    />
  );
}
