/** Which papers somebody signs who comes to it under way, and whether they initial every page. */
import { Switch } from '../../ui/switch';
import { Small } from '../../ui/text';

interface Props {
  documents: { id: string; name: string }[];
  /** Ids of those they sign. */
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
          label={`Signs ${d.name}`}
          on={signed.includes(d.id)}
          onChange={(on) => onSigned(on ? [...signed, d.id] : signed.filter((x) => x !== d.id))}
        />
      ))}
      <Switch label="Initials every page of them" on={initials} onChange={onInitials} />
      <Small>Their places are added where the pages have room, near the existing signatures.</Small>
    </>
  );
}
