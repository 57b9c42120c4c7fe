/** A paper that came back filled in elsewhere: page by page what is filled, what is empty, and what comes of it. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import {
  urlOf,
  type CheckedPlaceView,
  type DealView,
  type DocumentView,
  type PaperCheckView,
} from '@gatepath/contract';
import { count, sideLabel, type Side } from '@gatepath/core/text';
import { ApiError, call } from '../../api/client';
import { keys, useDeal } from '../../api/hooks';
import { Input } from '../../ui/input';
import { usePalette } from '../../ui/hooks';
import { NotReady, isReady } from '../../ui/not-ready';
import { Button, Card, Loading, Note, Page, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { Sheet } from '../pages/sheet';

const checkKey = (dealId: string, documentId: string) => [...keys.deal(dealId), 'check', documentId];

/** The check of a paper; null while none was begun. It is part of its deal, so that news of the deal asks for it anew. */
function useCheck(dealId: string, documentId: string) {
  return useQuery({
    queryKey: checkKey(dealId, documentId),
    queryFn: async (): Promise<PaperCheckView | null> => {
      try {
        return await call('paperCheck', { params: { documentId } });
      } catch (error) {
        if (error instanceof ApiError && error.status === 404) return null;
        throw error;
      }
    },
    refetchInterval: (query) => (query.state.data?.status === 'checking' ? 1_500 : false),
  });
}

type Act =
  | { what: 'begin'; blankId: string | null }
  | { what: 'say'; id: string; said: 'yes' | 'no' | null }
  | { what: 'end'; how: 'meets' | 'kept'; reason: string }
  | { what: 'back' };

function useCheckActs(dealId: string, documentId: string) {
  const client = useQueryClient();
  const params = { documentId };
  return useMutation({
    mutationFn: (act: Act): Promise<PaperCheckView> => {
      switch (act.what) {
        case 'begin':
          return call('checkPaper', { params, body: { blankId: act.blankId } });
        case 'say':
          return call('sayOfPlaces', { params, body: { places: [{ id: act.id, said: act.said }] } });
        case 'end':
          return call('endCheck', { params, body: { how: act.how, reason: act.reason } });
        case 'back':
          return call('sendBack', { params });
      }
    },
    onSuccess: (view, act) => {
      client.setQueryData(checkKey(dealId, documentId), view);
      if (act.what === 'end' || act.what === 'back') void client.invalidateQueries({ queryKey: keys.deal(dealId) });
      if (act.what === 'back' && view.packetId) router.push(`/packets/${view.packetId}`);
    },
  });
}

type Acts = ReturnType<typeof useCheckActs>;

/** The screen of one paper that came back. */
export function CameBack() {
  const { dealId, documentId } = useLocalSearchParams<{ dealId: string; documentId: string }>();
  const deal = useDeal(dealId);
  const check = useCheck(dealId, documentId);
  const acts = useCheckActs(dealId, documentId);
  if (!isReady(deal)) return <NotReady query={deal} what="the deal" />;
  if (check.isError) return <NotReady query={check} what="the check" />;
  const doc = deal.data.documents.find((d) => d.id === documentId);
  if (!doc) return <Note tone="stop" title="This paper is no longer in the deal." />;
  const view = check.data ?? null;
  return (
    <Page>
      <Title>{`What came back: ${doc.name}`}</Title>
      {acts.isError ? <Trouble error={acts.error} /> : null}
      {check.isPending ? <Loading what="the check" /> : null}
      {view === null && !check.isPending ? <Begin deal={deal.data} doc={doc} acts={acts} /> : null}
      {view?.status === 'checking' ? (
        <View role="status" testID="checking">
          <Body>Each printed place is looked at. This takes about a second a page.</Body>
        </View>
      ) : null}
      {view?.status === 'failed' ? <Note tone="stop" title={view.problem ?? 'It could not be checked.'} /> : null}
      {view?.status === 'ready' ? <Found deal={deal.data} doc={doc} view={view} acts={acts} /> : null}
    </Page>
  );
}

/** Which empty form it was: what is printed there is no gap filled. */
function Begin({ deal, doc, acts }: { deal: DealView; doc: DocumentView; acts: Acts }) {
  const forms = deal.documents.filter((d) => d.id !== doc.id && d.status === 'ready');
  return (
    <Card>
      <Heading>Which paper was it before it was signed?</Heading>
      <Body>With the empty paper at hand even a small stroke is told from print.</Body>
      {doc.status === 'ready' ? null : <Small>This paper is still being read. It can be checked in a moment.</Small>}
      {forms.map((form) => (
        <Button
          key={form.id}
          disabled={acts.isPending || doc.status !== 'ready'}
          onPress={() => acts.mutate({ what: 'begin', blankId: form.id })}
          testID="blank"
        >
          {form.name}
        </Button>
      ))}
      <Button
        kind="quiet"
        disabled={acts.isPending || doc.status !== 'ready'}
        onPress={() => acts.mutate({ what: 'begin', blankId: null })}
        testID="no-blank"
      >
        I do not have it: check this paper alone
      </Button>
    </Card>
  );
}

const stateOf = (p: CheckedPlaceView) => p.said ?? p.filled;
const isHands = (p: CheckedPlaceView) =>
  p.kind === 'signature' || p.kind === 'initials' || (p.kind === 'date' && p.signed !== false);

function Found({ deal, doc, view, acts }: { deal: DealView; doc: DocumentView; view: PaperCheckView; acts: Acts }) {
  const hands = view.places.filter(isHands);
  const others = view.places.filter((p) => !isHands(p));
  const empty = hands.filter((p) => stateOf(p) === 'no');
  const doubtful = hands.filter((p) => stateOf(p) === 'doubtful');
  const pages = [...new Set(hands.map((p) => p.page ?? p.formPage))].sort((a, b) => a - b);
  return (
    <>
      <Outcome deal={deal} view={view} acts={acts} empty={empty} doubtful={doubtful} hands={hands.length} />
      {pages.map((page) => (
        <Card key={page}>
          <Heading>{`Page ${page}`}</Heading>
          {hands
            .filter((p) => (p.page ?? p.formPage) === page)
            .map((p) => (
              <PlaceRow key={p.id} doc={doc} place={p} acts={acts} ended={view.ended !== null} />
            ))}
        </Card>
      ))}
      {others.length ? (
        <Small>{`${count(others.length, 'other place')}, such as names and sums: ${others.filter((p) => stateOf(p) === 'yes').length} filled.`}</Small>
      ) : null}
    </>
  );
}

/** What the check comes to, and what can be done about it. */
// eslint-disable-next-line max-lines-per-function -- one card from top to bottom
function Outcome(o: {
  deal: DealView;
  view: PaperCheckView;
  acts: Acts;
  empty: CheckedPlaceView[];
  doubtful: CheckedPlaceView[];
  hands: number;
}) {
  const { view, acts, empty, doubtful } = o;
  const [reason, setReason] = useState('');
  if (view.ended)
    return (
      <Note
        tone="good"
        testID="check-ended"
        title={
          {
            meets: 'It is whole: it counts as signed elsewhere.',
            kept: `It is kept as it is: ${view.reason ?? ''}`,
            sent_back: 'A packet asks for what is missing.',
          }[view.ended]
        }
        action={
          view.packetId ? (
            <Button kind="quiet" onPress={() => router.push(`/packets/${view.packetId}`)}>
              Open the packet
            </Button>
          ) : null
        }
      />
    );
  return (
    <Card>
      <View role="status" testID="gaps-sum" style={{ gap: 4 }}>
        <Strong>
          {empty.length
            ? `${count(empty.length, 'place is', 'places are')} empty`
            : doubtful.length
              ? 'No place is empty for certain'
              : 'Every place of a hand is filled'}
        </Strong>
        <Small>
          {`${o.hands} signatures, initials and days of signing were looked at${doubtful.length ? `; ${count(doubtful.length, 'is', 'are')} doubtful: look at each and say` : ''}.`}
        </Small>
      </View>
      {!empty.length && !doubtful.length && o.hands ? (
        <Button
          kind="main"
          disabled={acts.isPending}
          onPress={() => acts.mutate({ what: 'end', how: 'meets', reason: '' })}
          testID="check-meets"
        >
          It is whole: count it as signed
        </Button>
      ) : null}
      {empty.length ? (
        <Button
          kind="main"
          disabled={acts.isPending || doubtful.length > 0}
          onPress={() => acts.mutate({ what: 'back' })}
          testID="send-back"
        >
          {`Send it back for the ${count(empty.length, 'place')} missing`}
        </Button>
      ) : null}
      <Input
        label="Or keep it as it is, because"
        value={reason}
        onChangeText={setReason}
        maxLength={500}
        testID="keep-reason"
      />
      <Button
        disabled={acts.isPending || !reason.trim()}
        onPress={() => acts.mutate({ what: 'end', how: 'kept', reason })}
        testID="check-keep"
      >
        Keep it as it is
      </Button>
    </Card>
  );
}

const KIND_WORDS = {
  signature: 'Signature',
  initials: 'Initials',
  date: 'Date',
  name: 'Name',
  text: 'Text',
  checkbox: 'Box',
};
const ROLE_SIDES: Partial<Record<CheckedPlaceView['role'], Side>> = {
  seller: 'seller',
  buyer: 'buyer',
  landlord: 'landlord',
  tenant: 'tenant',
  guarantor: 'guarantor',
  broker: 'listing_broker',
  buyer_broker: 'buyer_broker',
  manager: 'manager',
};

/** "Initials, Seller 2" */
function nameOf(p: CheckedPlaceView): string {
  const side = ROLE_SIDES[p.role];
  return side ? `${KIND_WORDS[p.kind]}, ${sideLabel(side, p.ordinal ?? 1)}` : KIND_WORDS[p.kind];
}

/** How wide the picture of a place is, in pixels, and how much of the page around it is shown, in points. */
const WIDTH = 300;
const AROUND = { x: 60, y: 22 };

function PlaceRow({
  doc,
  place,
  acts,
  ended,
}: {
  doc: DocumentView;
  place: CheckedPlaceView;
  acts: Acts;
  ended: boolean;
}) {
  const p = usePalette();
  const state = stateOf(place);
  const words = {
    yes: 'Filled',
    no: place.page === null ? 'Its page did not come back' : 'Empty',
    doubtful: 'Doubtful',
  }[state];
  const color = { yes: p.moss, no: p.wine, doubtful: p.ochre }[state];
  const say = (said: 'yes' | 'no') => acts.mutate({ what: 'say', id: place.id, said });
  return (
    <View testID={`place-${state}`} style={{ gap: 6, borderTopWidth: 1, borderColor: p.rule, paddingTop: 10 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <View style={{ flex: 1 }}>
          <Strong>{nameOf(place)}</Strong>
          <Small style={{ color }}>{place.said ? `${words}, as you said` : words}</Small>
        </View>
        {ended || place.page === null ? null : (
          <View style={{ flexDirection: 'row' }}>
            {state === 'yes' ? null : (
              <Button kind="quiet" label={`${nameOf(place)} is filled`} onPress={() => say('yes')} testID="say-yes">
                It is filled
              </Button>
            )}
            {state === 'no' ? null : (
              <Button kind="quiet" label={`${nameOf(place)} is empty`} onPress={() => say('no')} testID="say-no">
                It is empty
              </Button>
            )}
          </View>
        )}
      </View>
      {place.page === null ? null : <PlacePicture doc={doc} page={place.page} place={place} color={color} />}
    </View>
  );
}

/** The place as it lies on its page, with what is around it. */
function PlacePicture(o: { doc: DocumentView; page: number; place: CheckedPlaceView; color: string }) {
  const p = usePalette();
  const size = o.doc.pages[o.page - 1];
  if (!size) return null;
  const { rect } = o.place;
  const scale = Math.min(1.6, WIDTH / (rect.w + 2 * AROUND.x));
  const height = (rect.h + 2 * AROUND.y) * scale;
  const left = Math.min(0, Math.max(WIDTH - size.width * scale, WIDTH / 2 - (rect.x + rect.w / 2) * scale));
  const top = Math.min(0, height / 2 - (rect.y + rect.h / 2) * scale);
  return (
    <View style={{ width: WIDTH, maxWidth: '100%', height, overflow: 'hidden', borderWidth: 1, borderColor: p.rule }}>
      <View style={{ marginLeft: left, marginTop: top }}>
        <Sheet
          page={size}
          url={urlOf('documentPage', { documentId: o.doc.id, page: o.page })}
          width={size.width * scale}
          label={`${nameOf(o.place)} on page ${o.page}`}
        >
          <View
            style={{
              position: 'absolute',
              left: rect.x * scale - 2,
              top: rect.y * scale - 2,
              width: rect.w * scale + 4,
              height: rect.h * scale + 4,
              borderWidth: 2,
              borderColor: o.color,
              borderRadius: 3,
            }}
          />
        </Sheet>
      </View>
    </View>
  );
}
