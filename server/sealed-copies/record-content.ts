/** What the signing record of one document says, in one language. Times are in the deal's zone. */
import { type Hand, type PacketParty, hasDocument, holdsGate, approves, receives } from '@gatepath/core/packet';
import { type PacketEvent, type PacketState, documentsOf, inReadingOrder } from '@gatepath/core/routing';
import { calendarDay, say, sideIn, timeIn, type WordKey, type WordParams, type Words } from '@gatepath/core/words';
import type { RecordContent } from '../pdf-sealing/record';
import { progressOf } from '@gatepath/core/routing';

/** Returns the signing record of a packet, section by section, in one language. */
// eslint-disable-next-line max-lines-per-function -- the signing record in its order, section by section
export function recordOf(
  words: Words,
  state: PacketState,
  events: PacketEvent[],
  documentId: string,
  packetHash: string,
  firmName: string,
): RecordContent {
  const { plan } = state;
  const doc = documentsOf(state).find((d) => d.id === documentId)!;
  const zone = plan.timeZone;
  const tell = (key: WordKey, params?: WordParams) => say(words, key, params);
  const time = (iso: string) => timeIn(words, iso, zone);
  const fillAt = new Map([...state.fills].map(([id, f]) => [id, f.at]));
  const onDoc = inReadingOrder(plan).filter((m) => m.documentId === documentId);
  const history = new History(words, events, zone);
  const changes = state.corrections.filter((c) => c.redline.documentId === documentId);
  return {
    title: tell('record.title'),
    packetName: plan.packetName,
    dealName: plan.dealName,
    facts: [
      [tell('record.document'), tell('record.pages', { name: doc.name, n: doc.pages.length })],
      [tell('record.document_fingerprint'), doc.sha256],
      [tell('record.packet_fingerprint'), packetHash],
      [tell('record.executed'), time(state.endedAt!)],
      [tell('record.sent_by'), firmName],
      [tell('record.times'), tell('record.times_in', { zone })],
    ],
    explains: tell('record.explains'),
    sections: [
      {
        heading: tell('record.people'),
        people: plan.parties.map((p) => ({
          name: `${p.name}, ${sideIn(words, p)}`,
          lines: partyLines(words, p, state, events, time),
        })),
      },
      {
        heading: tell('record.acts'),
        acts: plan.parties
          .map((p) => ({
            name: p.name,
            items: onDoc
              .filter((m) => m.partyId === p.id && fillAt.has(m.id))
              .map((m) =>
                tell('record.item', {
                  page: m.page,
                  kind: tell(`kind.${m.kind}`),
                  time: shortTime(fillAt.get(m.id)!, zone),
                }),
              ),
          }))
          .filter((a) => a.items.length),
      },
      ...(changes.length
        ? [
            {
              heading: tell('record.changes'),
              lines: changes.map((c) => `${time(c.at)}   ${change(words, c.by, c.redline, doc.name)}`),
            },
          ]
        : []),
      { heading: tell('record.history'), lines: events.flatMap((e) => history.line(e)) },
    ],
  };
}

/** Returns an instant as "2026-11-23 12:00:00" in a time zone, which is short enough for three columns. */
function shortTime(iso: string, timeZone: string): string {
  return new Intl.DateTimeFormat('sv-SE', {
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    timeZone,
  }).format(new Date(iso));
}

function change(
  words: Words,
  by: string,
  r: { kind: 'strike' | 'insert'; page: number; text: string },
  document: string,
): string {
  return say(words, r.kind === 'strike' ? 'record.h.struck' : 'record.h.inserted', {
    by,
    words: r.text,
    page: r.page,
    document,
  });
}

function partyLines(
  words: Words,
  p: PacketParty,
  state: PacketState,
  events: PacketEvent[],
  time: (iso: string) => string,
): string[] {
  const tell = (key: WordKey, params?: WordParams) => say(words, key, params);
  const s = progressOf(state, p.id);
  const only = state.plan.documents.filter((d) => hasDocument(p, d.id));
  const limited = only.length < state.plan.documents.length;
  const documents = limited ? tell('record.only', { documents: only.map((d) => d.name).join(', ') }) : null;
  const company = p.company ? tell('record.company', { company: p.company }) : null;
  const capacity = p.capacity ? tell('record.capacity', { capacity: p.capacity }) : null;
  if (s.status === 'dropped') return [p.email, tell('record.dropped', { reason: s.reason ?? '' })].filter(Boolean);
  if (!holdsGate(p))
    return [p.email, company, capacity, tell('record.gets_copy'), documents].filter((l): l is string => !!l);
  // The last event of a kind: after a handing over, or a change, it is the one that counts.
  const from = (type: string) => {
    const e = events.findLast((x) => x.body.type === type && 'partyId' in x.body && x.body.partyId === p.id);
    const where = [
      e?.origin?.ip && tell('record.from', { ip: e.origin.ip }),
      e?.origin?.device && tell('record.on', { device: e.origin.device }),
    ].filter(Boolean);
    return where.length ? ` ${where.join(' ')}` : '';
  };
  const acts = [...state.fills.values()].filter((f) => f.partyId === p.id).length;
  const done = s.doneAt && {
    n: acts,
    time: time(s.doneAt),
    where: from('party_done'),
  };
  return [
    p.email,
    company,
    capacity,
    documents,
    ...s.before.map((b) => tell('record.before', { name: b.name, email: b.email, time: time(b.at), reason: b.reason })),
    s.askedAt && tell('record.asked', { time: time(s.askedAt) }),
    s.hostName && tell('record.hosted', { host: s.hostName }),
    s.openedAt && tell('record.opened', { time: time(s.openedAt), where: from('opened') }),
    s.proved && tell(`record.proved_${s.proved.step}`, { time: time(s.proved.at) }),
    s.agreedAt && tell('record.agreed', { time: time(s.agreedAt), where: from('agreed') }),
    s.hand && handWords(words, s.hand.hand),
    s.arrivedAt && tell('record.arrived', { time: time(s.arrivedAt) }),
    s.letter && tell(`record.letter_${s.letter.way}`, { day: calendarDay(words, s.letter.day, true) }),
    s.delivered &&
      tell(s.delivered.day ? 'record.delivered_on' : 'record.delivered', {
        day: s.delivered.day ? calendarDay(words, s.delivered.day, true) : '',
      }),
    done && !receives(p) && (approves(p) ? tell('record.approved', done) : tell('record.finished', done)),
    s.status === 'excused' && tell('record.excused'),
  ].filter((l): l is string => !!l);
}

function handWords(words: Words, hand: Hand): string {
  if (hand.form === 'typed')
    return say(words, 'record.hand_typed', { signature: hand.signature, initials: hand.initials });
  return say(words, hand.form === 'drawn' ? 'record.hand_drawn' : 'record.hand_picture');
}

/** The packet's history as lines; names are as they were at each point. */
class History {
  private readonly names = new Map<string, string>();
  private readonly documents = new Map<string, string>();

  constructor(
    private readonly words: Words,
    events: PacketEvent[],
    private readonly zone: string,
  ) {
    const first = events[0]?.body;
    if (first?.type !== 'sent') return;
    for (const p of first.plan.parties) this.names.set(p.id, p.name);
    for (const d of first.plan.documents) this.documents.set(d.id, d.name);
  }

  line(e: PacketEvent): string[] {
    const text = this.text(e);
    if (e.body.type === 'party_added') this.names.set(e.body.party.id, e.body.party.name);
    if (e.body.type === 'document_added') this.documents.set(e.body.document.id, e.body.document.name);
    if (e.body.type === 'party_corrected' || e.body.type === 'handed_over')
      this.names.set(e.body.partyId, e.body.contact.name);
    return text ? [`${timeIn(this.words, e.at, this.zone)}   ${text}`] : [];
  }

  // eslint-disable-next-line max-lines-per-function -- one case for each event
  private text(e: PacketEvent): string | null {
    const b = e.body;
    const tell = (key: WordKey, params?: WordParams) => say(this.words, key, params);
    const name = 'partyId' in b && b.partyId ? (this.names.get(b.partyId) ?? '') : '';
    const by =
      e.actor.kind !== 'member'
        ? ''
        : e.actor.for
          ? tell('record.for', { by: e.actor.name, other: e.actor.for.name })
          : e.actor.name;
    const day = (d: string) => calendarDay(this.words, d, true);
    switch (b.type) {
      case 'sent':
        return tell('record.h.sent', { by, n: b.plan.gates.length });
      case 'gate_opened':
        return tell('record.h.gate_opened', { n: b.gate + 1 });
      case 'gate_passed':
        return tell('record.h.gate_passed', { n: b.gate + 1 });
      case 'agreed':
        return tell('record.h.agreed', { name, agreement: b.agreement });
      case 'hosted':
        return tell('record.h.hosted', { name, host: b.hostName });
      case 'handed_over':
        return tell('record.h.handed_over', { name, to: b.contact.name, reason: b.reason });
      case 'party_added':
        return tell('record.h.party_added', { by, name: b.party.name });
      case 'document_added':
        return tell('record.h.document_added', { by, document: b.document.name });
      case 'corrected':
        return change(this.words, by, b.redline, this.documents.get(b.redline.documentId) ?? '');
      case 'extended':
        return tell('record.h.extended', { by, day: day(b.lastDay) });
      case 'lapsed':
        return tell('record.h.lapsed', { day: day(b.lastDay) });
      case 'executed':
        return tell('record.h.executed');
      case 'party_dropped':
        return tell('record.h.party_dropped', { by, name, reason: b.reason });
      case 'act_changed':
        return tell('record.h.act_changed', { by, name, act: b.act });
      case 'marks_changed':
        return tell('record.h.marks_changed', { by, name, put: b.put.length, gone: b.dropped.length });
      case 'reading_changed':
        return tell(b.allowed ? 'record.h.reading_on' : 'record.h.reading_off', { by });
      case 'path_changed':
        return tell('record.h.path_changed', { by });
      case 'party_corrected':
        return tell('record.h.party_corrected', { by, name });
      case 'letter_went':
        return tell(`record.h.letter_${b.way}`, { by, name, day: day(b.day) });
      case 'delivered':
        return tell('record.h.delivered', { name });
      case 'unlocked':
        return tell('record.h.unlocked', { by, name });
      case 'question_answered':
        return tell('record.h.question_answered', { by, name });
      case 'asked':
      case 'shown':
      case 'opened':
      case 'proved':
      case 'party_done':
      case 'excused':
      case 'arrived':
      case 'asked_again':
      case 'nudged':
      case 'link_renewed':
      case 'bounced':
      case 'locked':
      case 'question_asked':
        return tell(`record.h.${b.type}`, { name });
      default:
        return null;
    }
  }
}
