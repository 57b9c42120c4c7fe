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

export function PeoplePlace() {
  const [search, setSearch] = useState('');
  const people = usePeople(search);
  const header = (
    <>
      <Title>People</Title>
      <ListActs list="people" />
      <SearchBar
        placeholder="Find a name, company or address"
        value={search}
        onChangeText={setSearch}
        testID="find-people"
      />
    </>
  );
  return (
    <ListPage
      header={header}
      what="the address book"
      more="Show more people"
      list={people}
      render={(p) => <PersonCard person={p} />}
      empty={
        <Card>
          <Heading>{search ? 'No one found' : 'No one yet'}</Heading>
          <Body>
            {search
              ? `No one has “${search}” in their name, company or address.`
              : 'Everyone you add to a deal appears here, with their deals, papers and messages on one page.'}
          </Body>
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
      <Card style={{ gap: 2, paddingVertical: 12 }}>
        <Strong>{p.name}</Strong>
        <Small numberOfLines={1}>
          {[p.company, p.email || 'no email address', p.phone].filter(Boolean).join(' · ')}
        </Small>
        <Small>{count(p.deals, 'deal')}</Small>
      </Card>
    </Pressable>
  );
}
