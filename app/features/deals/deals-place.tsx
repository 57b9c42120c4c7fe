import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable } from 'react-native';
import { SearchBar } from '../../ui/search-bar';
import type { DealSummary } from '@gatepath/contract';
import { isOver, KIND_WORDS, STATUS_WORDS } from '@gatepath/core/deal';
import { useDeals, type DealAsk } from '../../api/hooks';
import { ContractZone } from '../incoming/contract-drop';
import { ListActs } from '../imports/list-acts';
import { DealFilters, FIRST_ASK, isNarrowed } from './deal-filters';
import { DealsTable } from './deals-table';
import { PathStrip } from '../packet-status/path-strip';
import { packetLine } from '../packet-status/words';
import { usePalette, useSettled, useWide } from '../../ui/hooks';
import { ListPage, itemsOf } from '../../ui/list-page';
import { useOlder } from '../../ui/older';
import { Button, Card, Loading, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** The list of deals; a contract dropped on it opens a deal. */
export function DealsPlace() {
  return (
    <ContractZone>
      <DealsList />
    </ContractZone>
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function DealsList() {
  const wide = useWide();
  const [ask, setAsk] = useState<DealAsk>(FIRST_ASK);
  const search = ask.search ?? '';
  const settled = useSettled(search, 150);
  const { search: _, ...rest } = ask;
  const deals = useDeals(settled ? { ...rest, search: settled } : rest);
  const items = itemsOf(deals);
  const asked = search !== '' || isNarrowed(ask);
  const many = items.length > 3 || asked;
  const bar = (
    <SearchBar
      placeholder={TEXT.findAStreetOrTown}
      value={search}
      onChangeText={(text) => setAsk(text ? { ...rest, search: text } : rest)}
      style={wide ? { flex: 1, maxWidth: 420 } : undefined}
    />
  );
  const next = useOlder(deals);
  const add = (
    <Button kind="main" icon="plus" onPress={() => router.push('/deals/new')} testID="new-deal">
      {TEXT.newDeal}
    </Button>
  );
  const header = (
    <>
      <Row gap={16} justify="between">
        <Title>{TEXT.deals}</Title>
        {wide && many ? bar : null}
        {wide ? <Stack grow /> : null}
        {wide ? <ListActs list="deals" /> : null}
        {add}
      </Row>
      {many && !wide ? bar : null}
      {many ? <DealFilters ask={ask} onAsk={setAsk} /> : null}
      {wide ? null : <ListActs list="deals" />}
    </>
  );
  const empty = (
    <Card>
      <Heading>{asked ? TEXT.nothingFound : TEXT.noDealsYet}</Heading>
      <Body>
        {search ? TEXT.noDealHasInIts(search) : asked ? TEXT.noDealMatchesTheseFilters : TEXT.aDealIsOneListing}
      </Body>
    </Card>
  );
  if (!wide)
    return (
      <ListPage
        header={header}
        what={TEXT.theDeals}
        more={TEXT.showOlderDeals}
        list={deals}
        render={(deal) => <DealCard deal={deal} />}
        empty={empty}
      />
    );
  return (
    <DealsTable
      deals={items}
      ask={ask}
      onAsk={setAsk}
      header={
        <Stack gap={12}>
          {header}
          {deals.isPending ? <Loading what={TEXT.theDeals} /> : null}
          {deals.isError ? <Trouble error={deals.error} retry={() => void deals.refetch()} /> : null}
        </Stack>
      }
      empty={deals.isSuccess ? empty : null}
      footer={
        deals.hasNextPage ? (
          <Button onPress={next} busy={deals.isFetchingNextPage}>
            {TEXT.showOlderDeals}
          </Button>
        ) : null
      }
      onEnd={next}
    />
  );
}

function DealCard({ deal }: { deal: DealSummary }) {
  const p = usePalette();
  const { readiness: r } = deal;
  return (
    <Card testID="deal-card">
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
          <Small tone={r.late.length ? 'stop' : r.met === r.of ? 'good' : 'warn'}>{r.sentence}</Small>
        ) : null}
      </Pressable>
      {deal.packets.length === 0 ? <Small>{TEXT.noPacketYetSentence}</Small> : null}
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
            tone={
              packet.status === 'at_gate'
                ? 'act'
                : packet.status === 'executed'
                  ? 'good'
                  : packet.status === 'drafting'
                    ? 'plain'
                    : 'stop'
            }
          >
            {packetLine(packet)}
          </Small>
        </Pressable>
      ))}
    </Card>
  );
}
