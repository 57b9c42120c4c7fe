/** One person a contract names: whether they become a party, and how they are reached. */
import { useState } from 'react';
import type { ChosenPerson } from '@gatepath/core/abstract';
import { SIDE_WORDS } from '@gatepath/core/text';
import { Input } from '../../ui/input';
import { Row, Ruled } from '../../ui/layout';
import { Button } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import type { ReadContract } from './read-contract';
import { Sources, sourceWords } from './sources';
import { TEXT } from './words';

interface Props {
  view: ReadContract;
  person: ChosenPerson;
  onChange: (more: Partial<ChosenPerson>) => void;
}

export function PersonRow({ view, person, onChange }: Props) {
  const [editing, setEditing] = useState(false);
  const [seen, setSeen] = useState(false);
  const read = person.read === null ? undefined : view.abstract.people[person.read];
  const sources = read?.sources ?? [];
  const { name } = person;
  return (
    <Ruled gap={4} testID="contract-person">
      <Row gap={8} justify="between">
        <Small>{SIDE_WORDS[person.side]}</Small>
        <Row>
          <Button
            kind="quiet"
            label={seen ? TEXT.hideWhere(name) : TEXT.seeWhere(name)}
            onPress={() => setSeen(!seen)}
            testID="see-person"
          >
            {seen ? TEXT.hideIt : TEXT.seeIt}
          </Button>
          <Button kind="quiet" label={TEXT.changeOf(name)} onPress={() => setEditing(!editing)}>
            {editing ? TEXT.done : TEXT.change}
          </Button>
          <Button
            kind="quiet"
            label={person.on ? TEXT.removeOf(name) : TEXT.addOf(name)}
            onPress={() => onChange({ on: !person.on })}
          >
            {person.on ? TEXT.remove : TEXT.add}
          </Button>
        </Row>
      </Row>
      <Strong style={person.on ? undefined : { opacity: 0.6 }}>{name}</Strong>
      {person.capacity ? <Small>{person.capacity}</Small> : null}
      {person.on ? <Book person={person} known={read?.known.length ?? 0} /> : null}
      {read && !read.certain && !person.on ? <Small tone="warn">{TEXT.notCertainPerson}</Small> : null}
      {person.on || sources.length === 0 ? null : <Small>{TEXT.leftOut}</Small>}
      {sources.length ? <Small>{sourceWords(sources)}</Small> : null}
      {editing ? (
        <>
          <Input
            label={SIDE_WORDS[person.side]}
            value={name}
            maxLength={120}
            onChangeText={(t) => onChange({ name: t })}
          />
          <Input
            label={TEXT.noEmail}
            value={person.email}
            maxLength={254}
            inputMode="email"
            onChangeText={(email) => onChange({ email, personId: null })}
          />
        </>
      ) : null}
      {seen ? <Sources view={view} sources={sources} /> : null}
    </Ruled>
  );
}

/** Who of the address book a person is. */
function Book({ person, known }: { person: ChosenPerson; known: number }) {
  if (person.personId && person.email) return <Small tone="good">{TEXT.inBook(person.email)}</Small>;
  return known > 1 ? <Small tone="warn">{TEXT.severalInBook(known)}</Small> : null;
}
