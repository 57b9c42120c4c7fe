/** The firm's address book, by name. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable } from 'react-native';
import { SearchBar } from '../../ui/search-bar';
import type { PersonSummary } from '@gatepath/contract';
import { count } from '@gatepath/core/text';
import { usePeople } from '../../api/deal-hooks';
import { ListActs } from '../imports/list-acts';
import { ListPage } from '../../ui/list-page';
import { Card } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { TEXT } from './words';

export function PeoplePlace() {
  const [search, setSearch] = useState('');
  const people = usePeople(search);
  const header = (
    <>
      <Title>{TEXT.people}</Title>
      <ListActs list="people" />
      <SearchBar placeholder={TEXT.findANameCompany} value={search} onChangeText={setSearch} testID="find-people" />
    </>
  );
  return (
    <ListPage
      header={header}
      what={TEXT.theAddressBook}
      more={TEXT.showMorePeople}
      list={people}
      render={(p) => <PersonCard person={p} />}
      empty={
        <Card>
          <Heading>{search ? TEXT.noOneFound : TEXT.noOneYet}</Heading>
          <Body>{search ? TEXT.noOneHasInTheir(search) : TEXT.everyoneYouAdd}</Body>
        </Card>
      }
    />
  );
}

function PersonCard({ person: p }: { person: PersonSummary }) {
  return (
    <Pressable
      role="link"
      testID="person-card"
      aria-label={`${p.name}, ${count(p.deals, 'deal')}`}
      onPress={() => router.push(`/people/${p.id}`)}
    >
      <Card gap={4} style={{ paddingVertical: 12 }}>
        <Strong>{p.name}</Strong>
        <Small numberOfLines={1}>
          {[p.company, p.email || TEXT.noEmailAddress, p.phone].filter(Boolean).join(' · ')}
        </Small>
        <Small>{count(p.deals, 'deal')}</Small>
      </Card>
    </Pressable>
  );
}
