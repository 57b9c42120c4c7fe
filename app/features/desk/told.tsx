/** Members who are notified like the sender. */
import { useFirm, useSession } from '../../api/hooks';
import { Card } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Heading, Small } from '../../ui/text';
import type { DraftHandle } from './use-draft';
import { TEXT } from './words';

interface Props {
  /** Their ids. */
  value: readonly string[];
  onChange: (ids: string[]) => void;
}

/** A switch for each member but the sender. */
export function Told({ value, onChange }: Props) {
  const members = useFirm().data?.members ?? [];
  const own = useSession().data?.member?.id;
  return members
    .filter((m) => m.id !== own || value.includes(m.id))
    .map((m) => (
      <Switch
        key={m.id}
        label={m.name}
        on={value.includes(m.id)}
        onChange={(on) => onChange(on ? [...value, m.id] : value.filter((id) => id !== m.id))}
        testID={`told-${m.name}`}
      />
    ));
}

export function ToldCard({ on: { draft, edit } }: { on: Pick<DraftHandle, 'draft' | 'edit'> }) {
  const members = useFirm().data?.members ?? [];
  if (members.length < 2) return null;
  return (
    <Card gap={4} testID="told">
      <Heading>{TEXT.whoElseIsNotified}</Heading>
      <Small>{TEXT.theyGetTheSameNotices}</Small>
      <Told value={draft.reports ?? []} onChange={(value) => edit([{ op: 'set', field: 'reports', value }])} />
    </Card>
  );
}
