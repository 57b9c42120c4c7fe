/** A returned paper: page by page what is filled, what is empty, and what can be done. */
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import {
  urlOf,
  type ReviewedPlaceView,
  type DealView,
  type DocumentView,
  type PaperReviewView,
} from '@gatepath/contract';
import { sideOfRole } from '@gatepath/core/reading';
import { isOfHand, stateOf } from '@gatepath/core/returned';
import { count, listWords, sideLabel } from '@gatepath/core/text';
import { useDeal } from '../../api/hooks';
import { useShelf } from '../../api/shelf-hooks';
import { Input } from '../../ui/input';
import { usePalette } from '../../ui/hooks';
import { NotReady, isReady } from '../../ui/not-ready';
import { ActError, Button, Card, Loading, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { Crop } from '../pages/crop';
import { cameSigned, PaperSignatures } from './paper-signatures';
import { useReview, useReviewActs, type Acts } from './use-review';
import { TEXT } from './words';
import { Row, Ruled, Stack } from '../../ui/layout';

/** The screen of one returned paper. */
export function CameBack() {
  const { dealId, documentId } = useLocalSearchParams<{ dealId: string; documentId: string }>();
  const deal = useDeal(dealId);
  const check = useReview(dealId, documentId);
  const acts = useReviewActs(dealId, documentId);
  if (!isReady(deal)) return <NotReady query={deal} what={TEXT.theDeal} />;
  if (check.isError) return <NotReady query={check} what={TEXT.theCheck} />;
  const doc = deal.data.documents.find((d) => d.id === documentId);
  if (!doc) return <Note tone="stop" title={TEXT.thisPaperIsNoLonger} />;
  const view = check.data ?? null;
  return (
    <Page>
      <Title>{TEXT.whatCameBack(doc.name)}</Title>
      {cameSigned(doc) ? <PaperSignatures doc={doc} /> : null}
      <ActError of={acts} />
      {check.isPending ? <Loading what={TEXT.theCheck} /> : null}
      {view === null && !check.isPending ? <Begin deal={deal.data} doc={doc} acts={acts} /> : null}
      {view?.status === 'checking' ? (
        <View role="status" testID="checking">
          <Body>{TEXT.eachPrintedPlaceIsBeing}</Body>
        </View>
      ) : null}
      {view?.status === 'failed' ? <Note tone="stop" title={view.problem ?? TEXT.itCouldNotBeChecked} /> : null}
      {view?.status === 'ready' ? <Found deal={deal.data} doc={doc} view={view} acts={acts} /> : null}
    </Page>
  );
}

/** Number of forms of the shelf that are offered. */
const FORMS_SHOWN = 6;

/** Asks which empty form it was: what is printed there is not filled in. */
function Begin({ deal, doc, acts }: { deal: DealView; doc: DocumentView; acts: Acts }) {
  const forms = deal.documents.filter((d) => d.id !== doc.id && d.status === 'ready' && !d.replacedBy);
  const shelf = useShelf('form', '');
  // Those of the same type first.
  const onShelf = (shelf.data?.pages.flatMap((x) => x.items) ?? [])
    .flatMap(({ id, name, type, documentId }) =>
      documentId ? [{ id, name, documentId, same: type === doc.type }] : [],
    )
    .sort((a, b) => Number(b.same) - Number(a.same))
    .slice(0, FORMS_SHOWN);
  const begin = (blankId: string | null) => acts.mutate({ what: 'begin', blankId });
  const wait = acts.isPending || doc.status !== 'ready';
  return (
    <Card>
      <Heading>{TEXT.whichBlankPaperIsThis}</Heading>
      <Body>{TEXT.withTheBlankPaper}</Body>
      {doc.status === 'ready' ? null : <Small>{TEXT.thisPaperIsStillBeing}</Small>}
      {forms.map((form) => (
        <Button key={form.id} disabled={wait} onPress={() => begin(form.id)} testID="blank">
          {form.name}
        </Button>
      ))}
      {onShelf.length ? <Strong>{TEXT.orAFormFrom}</Strong> : null}
      {onShelf.map((form) => (
        <Button key={form.id} disabled={wait} onPress={() => begin(form.documentId)} testID="blank-form">
          {form.name}
        </Button>
      ))}
      <Button kind="quiet" disabled={wait} onPress={() => begin(null)} testID="no-blank">
        {TEXT.iDoNotHave}
      </Button>
    </Card>
  );
}

function Found({ deal, doc, view, acts }: { deal: DealView; doc: DocumentView; view: PaperReviewView; acts: Acts }) {
  const hands = view.places.filter(isOfHand);
  const others = view.places.filter((p) => !isOfHand(p));
  const empty = hands.filter((p) => stateOf(p) === 'no');
  const doubtful = hands.filter((p) => stateOf(p) === 'doubtful');
  const pages = [...new Set(hands.map((p) => p.page ?? p.formPage))].sort((a, b) => a - b);
  return (
    <>
      <Outcome deal={deal} view={view} acts={acts} empty={empty} doubtful={doubtful} hands={hands.length} />
      {pages.map((page) => (
        <Card key={page}>
          <Heading>{TEXT.pageNumber(page)}</Heading>
          {hands
            .filter((p) => (p.page ?? p.formPage) === page)
            .map((p) => (
              <PlaceRow key={p.id} doc={doc} place={p} acts={acts} ended={view.ended !== null} />
            ))}
        </Card>
      ))}
      {others.length ? (
        <Small>
          {TEXT.suchAsNamesAndSums(
            count(others.length, TEXT.otherPlace),
            others.filter((p) => stateOf(p) === 'yes').length,
          )}
        </Small>
      ) : null}
    </>
  );
}

/** The result of the review, and what can be done about it. */
function Outcome(o: {
  deal: DealView;
  view: PaperReviewView;
  acts: Acts;
  empty: ReviewedPlaceView[];
  doubtful: ReviewedPlaceView[];
  hands: number;
}) {
  const { view, acts, empty, doubtful } = o;
  const gone = [...new Set(empty.filter((p) => p.page === null).map((p) => p.formPage))];
  const [reason, setReason] = useState('');
  if (view.ended) return <Ended view={view} ended={view.ended} acts={acts} />;
  return (
    <Card>
      <Sum empty={empty.length} doubtful={doubtful.length} hands={o.hands} />
      {!empty.length && !doubtful.length && o.hands ? (
        <Button
          kind="main"
          disabled={acts.isPending}
          onPress={() => acts.mutate({ what: 'end', how: 'meets', reason: '' })}
          testID="check-meets"
        >
          {TEXT.completeCountItAsSigned}
        </Button>
      ) : null}
      {gone.length ? (
        <Small testID="pages-gone">
          {TEXT.ofTheFormDidNot(gone.length > 1 ? TEXT.pages : TEXT.page, listWords(gone.map(String)))}
        </Small>
      ) : null}
      {empty.length && !gone.length ? (
        <Button
          kind="main"
          disabled={acts.isPending || doubtful.length > 0}
          onPress={() => acts.mutate({ what: 'back' })}
          testID="send-back"
        >
          {empty.length === 1 ? TEXT.sendItBackForWhat : TEXT.sendItBack(empty.length)}
        </Button>
      ) : null}
      <Input label={TEXT.orAcceptItAs} value={reason} onChangeText={setReason} maxLength={500} testID="keep-reason" />
      <Button
        disabled={acts.isPending || !reason.trim()}
        onPress={() => acts.mutate({ what: 'end', how: 'kept', reason })}
        testID="check-keep"
      >
        {TEXT.acceptItAs}
      </Button>
    </Card>
  );
}

/** How many places are empty or uncertain, of how many that count. */
function Sum({ empty, doubtful, hands }: { empty: number; doubtful: number; hands: number }) {
  return (
    <Stack role="status" testID="gaps-sum" gap={4}>
      <Strong>
        {empty
          ? TEXT.emptyCount(count(empty, TEXT.placeIs, TEXT.placesAre))
          : doubtful
            ? TEXT.noPlaceIsCertainlyEmpty
            : TEXT.everySignatureInitialsAndDate}
      </Strong>
      <Small>
        {TEXT.lookedAt(
          count(hands, TEXT.signatureInitialsOrDayOf, TEXT.signaturesInitialsAndDaysOf),
          doubtful ? TEXT.uncertainDecideEachOne(count(doubtful, 'is', 'are')) : '',
        )}
      </Small>
    </Stack>
  );
}

/** How the review ended, with its packet and another review. */
function Ended({
  view,
  ended,
  acts,
}: {
  view: PaperReviewView;
  ended: NonNullable<PaperReviewView['ended']>;
  acts: Acts;
}) {
  const titles = {
    meets: TEXT.completeItCountsAsSigned,
    kept: TEXT.acceptedAs(view.reason ?? ''),
    sent_back: TEXT.aPacketAsksForWhat,
  };
  return (
    <Note
      tone="good"
      testID="check-ended"
      title={titles[ended]}
      action={
        <Row align="stretch" wrap>
          {view.packetId ? (
            <Button kind="quiet" onPress={() => router.push(`/packets/${view.packetId}`)}>
              {TEXT.openThePacket}
            </Button>
          ) : null}
          <Button
            kind="quiet"
            disabled={acts.isPending}
            onPress={() => acts.mutate({ what: 'begin', blankId: view.blankId })}
            testID="check-again"
          >
            {TEXT.reviewItAgain}
          </Button>
        </Row>
      }
    />
  );
}

const KIND_WORDS = {
  signature: TEXT.signature,
  initials: TEXT.initials,
  date: TEXT.date,
  name: TEXT.name,
  text: TEXT.text,
  checkbox: TEXT.box,
};
/** Returns the name of a place: "Initials, Seller 2". */
function nameOf(p: ReviewedPlaceView): string {
  const side = sideOfRole(p.role);
  return side ? `${KIND_WORDS[p.kind]}, ${sideLabel(side, p.ordinal ?? 1)}` : KIND_WORDS[p.kind];
}

function PlaceRow({
  doc,
  place,
  acts,
  ended,
}: {
  doc: DocumentView;
  place: ReviewedPlaceView;
  acts: Acts;
  ended: boolean;
}) {
  const p = usePalette();
  const state = stateOf(place);
  const words = {
    yes: TEXT.filled,
    no: place.page === null ? TEXT.itsPageDidNotCome : TEXT.emptyPlace,
    doubtful: TEXT.uncertain,
  }[state];
  const color = { yes: p.moss, no: p.wine, doubtful: p.ochre }[state];
  const say = (said: 'yes' | 'no') => acts.mutate({ what: 'say', id: place.id, said });
  return (
    <Ruled testID={`place-${state}`} gap={8}>
      <Row gap={8}>
        <Stack grow>
          <Strong>{nameOf(place)}</Strong>
          <Small style={{ color }}>{place.said ? TEXT.setByYou(words) : words}</Small>
        </Stack>
        {ended || place.page === null ? null : (
          <Row align="stretch">
            {state === 'yes' ? null : (
              <Button
                kind="quiet"
                label={TEXT.markAsFilledOf(nameOf(place))}
                onPress={() => say('yes')}
                testID="say-yes"
              >
                {TEXT.markAsFilled}
              </Button>
            )}
            {state === 'no' ? null : (
              <Button kind="quiet" label={TEXT.markAsEmptyOf(nameOf(place))} onPress={() => say('no')} testID="say-no">
                {TEXT.markAsEmpty}
              </Button>
            )}
          </Row>
        )}
      </Row>
      {place.page === null ? null : <PlacePicture doc={doc} page={place.page} place={place} color={color} />}
    </Ruled>
  );
}

/** A place on its page, with what is around it. */
function PlacePicture(o: { doc: DocumentView; page: number; place: ReviewedPlaceView; color: string }) {
  const size = o.doc.pages[o.page - 1];
  if (!size) return null;
  const { rect } = o.place;
  return (
    <Crop
      page={size}
      url={urlOf('documentPage', { documentId: o.doc.id, page: o.page })}
      rect={rect}
      label={TEXT.onPage(nameOf(o.place), o.page)}
    >
      {(scale) => (
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
      )}
    </Crop>
  );
}
