/** Which papers a person signs who is added to a packet at a gate, and whether they initial every page. */
import { Switch } from '../../ui/switch';
import { Small } from '../../ui/text';
import { TEXT } from './words';

interface Props {
  documents: { id: string; name: string }[];
  /** Ids of the papers they sign. */
  signed: string[];
  onSigned: (ids: string[]) => void;
  initials: boolean;
  onInitials: (on: boolean) => void;
}

export function SignsWhat({ documents, signed, onSigned, initials, onInitials }: Props) {
  return (
    <>
      {documents.map((d) => (
        <Switch
          key={d.id}
          label={TEXT.signs(d.name)}
          on={signed.includes(d.id)}
          onChange={(on) => onSigned(on ? [...signed, d.id] : signed.filter((x) => x !== d.id))}
        />
      ))}
      <Switch label={TEXT.initialsEveryPageOfThem} on={initials} onChange={onInitials} />
      <Small>{TEXT.theirPlacesAreAddedWhere}</Small>
    </>
  );
}
