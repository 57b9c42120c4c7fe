import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { Searchbar } from 'react-native-paper';
import type { DealSummary } from '@gatepath/contract';
import { isOver, KIND_WORDS, STATUS_WORDS } from '@gatepath/core/deal';
import { useDeals } from '../../api/hooks';
import { PathStrip } from '../packet/path-strip';
import { packetLine } from '../packet/words';
import { usePalette } from '../../ui/hooks';
import { ListPage, itemsOf } from '../../ui/list-page';
import { Button, Card } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';

export function DealsPlace() {
  const [search, setSearch] = useState('');
  const deals = useDeals(search);
  const header = (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', gap: 12 }}>
        <Title>Deals</Title>
        <Button kind="main" icon="plus" onPress={() => router.push('/deals/new')} testID="new-deal">
          New deal
        </Button>
      </View>
      {itemsOf(deals).length > 3 || search ? (
        <Searchbar
          icon="magnify"
          clearIcon="close"
          placeholder="Find a street or town"
          value={search}
          onChangeText={setSearch}
          inputStyle={{ fontSize: 16 }}
        />
      ) : null}
    </>
  );
  return (
    <ListPage
      header={header}
      what="the deals"
      more="Show older deals"
      list={deals}
      render={(deal) => <DealCard deal={deal} />}
      empty={
        <Card>
          <Heading>{search ? 'Nothing found' : 'No deals yet'}</Heading>
          <Body>
            {search
              ? `No deal has “${search}” in its street or town.`
              : 'A deal is one listing, sale or tenancy at one address. Open one, add its people and papers, then send them to be signed.'}
          </Body>
        </Card>
      }
    />
  );
}

function DealCard({ deal }: { deal: DealSummary }) {
  const p = usePalette();
  const { readiness: r } = deal;
  return (
    <Card testID="deal-card" style={{ gap: 10 }}>
      <Pressable
        role="link"
        onPress={() => router.push(`/deals/${deal.id}`)}
        style={{ minHeight: 44, justifyContent: 'center' }}
      >
        <Strong style={{ fontSize: 18 }}>{deal.address}</Strong>
        <Small>
          {[`${KIND_WORDS[deal.kind]}, ${STATUS_WORDS[deal.status]}`, deal.city, ...deal.tags]
            .filter(Boolean)
            .join(' · ')}
        </Small>
        {r.of && !isOver(deal.status) ? (
          <Small style={{ color: r.late.length ? p.wine : r.met === r.of ? p.moss : p.ochre }}>{r.sentence}</Small>
        ) : null}
      </Pressable>
      {deal.packets.length === 0 ? <Small>No packet yet.</Small> : null}
      {deal.packets.map((packet) => (
        <Pressable
          key={packet.id}
          role="link"
          onPress={() => router.push(`/packets/${packet.id}`)}
          style={{ borderTopWidth: 1, borderColor: p.rule, paddingTop: 10, gap: 6, minHeight: 44 }}
        >
          <Body>{packet.name}</Body>
          <PathStrip packet={packet} />
          <Small
            style={{
              color:
                packet.status === 'at_gate'
                  ? p.brick
                  : packet.status === 'executed'
                    ? p.moss
                    : packet.status === 'drafting'
                      ? p.slate
                      : p.wine,
            }}
          >
            {packetLine(packet)}
          </Small>
        </Pressable>
      ))}
    </Card>
  );
}
