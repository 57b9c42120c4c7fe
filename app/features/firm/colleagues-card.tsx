/** Colleagues who may send in one's own name. */
import { useColleagues } from '../../api/colleague-hooks';
import { ActError, Card } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Heading, Small } from '../../ui/text';
import { TEXT } from './words';

export function ColleaguesCard() {
  const { colleagues, set } = useColleagues();
  const { others = [], lets = [] } = colleagues.data ?? {};
  if (!others.length) return null;
  return (
    <Card testID="colleagues">
      <Heading>{TEXT.whoMaySendForYou}</Heading>
      <Small>{TEXT.theySendPacketsInYour}</Small>
      {others.map((m) => (
        <Switch
          key={m.id}
          label={m.name}
          on={lets.includes(m.id)}
          onChange={(on) => set.mutate(on ? [...lets, m.id] : lets.filter((id) => id !== m.id))}
          testID={`lets-${m.name}`}
        />
      ))}
      <ActError of={set} />
    </Card>
  );
}
