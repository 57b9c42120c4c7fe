/** In whose name something is sent, where a colleague allowed it. */
import { useColleagues } from '../../api/colleague-hooks';
import { Choice } from '../../ui/pieces';

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
      label="Sent in the name of"
      value={value}
      options={[{ value: '', label: 'In my name' }, ...mayFor.map((m) => ({ value: m.id, label: `For ${m.name}` }))]}
      onChange={onChange}
    />
  );
}
