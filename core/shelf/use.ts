/** Using a kit on a deal: its forms and slots become a draft with the deal's people. */
import { holdsGate } from '../packet/acts';
import { applyEdits, emptyDraft, type Draft } from '../packet/draft';
import { handEdits } from '../packet/edits';
import { acceptEdits, proposalsOf } from '../packet/proposals';
import { resolveMarks, type DocumentFacts } from '../packet/resolve';
import { NOBODY, type InitialsRule, type Mark, type PacketParty } from '../packet/types';
import { fillSlots, type FilledSlot, type Filling } from './fill';
import { sameSlot, slotsOf, slotsTogether, type Slot } from './slots';

/** A form as used in a packet: its draft, and what its one document looks like. */
export interface FormInUse {
  draft: Draft;
  document: DocumentFacts;
}

/** What a kit makes of a deal. */
export interface KitUse {
  /** The packet's draft; its documents still have the forms' ids. */
  draft: Draft;
  slots: FilledSlot[];
  /** People for whom a form has no line, with the documents on which room was found for them. */
  beyond: { partyId: string; documentIds: string[] }[];
}

/**
 * Returns the draft that a kit makes for the people of a deal. Slots are filled by side and number. People beyond the
 * lines of a form get places of the same kinds beside the last ones. Marks of unfilled slots are left out.
 *
 * @param people of the deal, as parties of a packet
 * @param newId makes an id
 */
export function draftOfKit(o: {
  kit: Draft;
  forms: readonly FormInUse[];
  people: readonly PacketParty[];
  newId: () => string;
}): KitUse {
  // A form's newer edition may have slots that the kit was made without.
  const slots = slotsTogether([o.kit, ...o.forms.map((f) => f.draft)]);
  const asOne = (slot: Slot) => slots.find((s) => sameSlot(s, slot)) ?? slot;
  const filling = fillSlots(slots, o.people, asOne);
  const forms = o.forms.map((f) => ({ ...f, filling: fillSlots(slotsOf(f.draft.parties), o.people, asOne) }));
  const parties = partiesOf(asOne, filling, forms);
  const draft: Draft = {
    ...emptyDraft(o.kit.name),
    subject: o.kit.subject,
    message: o.kit.message,
    schedule: o.kit.schedule,
    handOver: o.kit.handOver,
    readAlong: o.kit.readAlong ?? false,
    ...(o.kit.reports ? { reports: o.kit.reports } : {}),
    parties,
    documents: o.forms.map((f) => ({ id: f.document.id })),
    gates: gatesOf(o.kit, filling, parties, o.newId),
  };
  const beyond = new Map<string, string[]>();
  let made = draft;
  for (const form of forms) {
    const added = addForm(made, form, form.filling, o.newId);
    made = added.draft;
    for (const id of added.beyond) beyond.set(id, [...(beyond.get(id) ?? []), form.document.id]);
  }
  return {
    draft: made,
    slots: filling.slots,
    beyond: [...beyond].map(([partyId, documentIds]) => ({ partyId, documentIds })),
  };
}

/** Returns everyone who fills a slot of the kit or has something to do on one of its forms, with the slot's act. */
function partiesOf(asOne: (slot: Slot) => Slot, filling: Filling, forms: { filling: Filling }[]): PacketParty[] {
  const found = new Map<string, { person: PacketParty; slot: Slot }>();
  const add = (person: PacketParty, slot: Slot) => {
    if (!found.has(person.id)) found.set(person.id, { person, slot: asOne(slot) });
  };
  for (const { slots, beyond } of [filling, ...forms.map((f) => f.filling)]) {
    for (const { slot, people } of slots) for (const p of people) add(p, slot);
    for (const { person, like } of beyond) add(person, like);
  }
  return [...found.values()].map(({ person, slot }, ink) => ({
    ...person,
    ink,
    act: slot.act,
    ...(slot.note ? { note: slot.note } : {}),
    ...(slot.language && !person.language ? { language: slot.language } : {}),
    ...(slot.secondStep ? { secondStep: slot.secondStep } : {}),
    ...(slot.copyAt ? { copyAt: slot.copyAt } : {}),
  }));
}

/**
 * Returns the kit's gates with people in place of slots. People who act and are at no gate get one after all others.
 */
export function gatesOf(
  kit: Pick<Draft, 'gates'>,
  filling: Filling,
  parties: readonly PacketParty[],
  newId: () => string,
): Draft['gates'] {
  const acting = new Set(parties.filter(holdsGate).map((p) => p.id));
  const at = (slotId: string) => [
    ...(filling.slots.find((f) => f.slot.id === slotId)?.people ?? []),
    ...filling.beyond.filter((b) => b.like.id === slotId).map((b) => b.person),
  ];
  const placed = new Set<string>();
  const gates = kit.gates.flatMap((gate) => {
    const ids = [...new Set(gate.partyIds.flatMap(at).map((p) => p.id))].filter(
      (id) => acting.has(id) && !placed.has(id),
    );
    for (const id of ids) placed.add(id);
    return ids.length ? [{ ...gate, id: newId(), partyIds: ids }] : [];
  });
  const left = [...acting].filter((id) => !placed.has(id));
  return left.length ? [...gates, { id: newId(), partyIds: left }] : gates;
}

/**
 * Returns a draft with what a form has on its pages, for the people who fill its slots and those beyond its lines.
 *
 * @returns the draft, and the ids of the people beyond the lines for whom room was found
 */
export function addForm(
  draft: Draft,
  form: FormInUse,
  filling: Filling,
  newId: () => string,
): { draft: Draft; beyond: string[] } {
  const filled = { ...form, filling };
  const beyond: string[] = [];
  let made = withForm(draft, filled, newId);
  for (const { person, like } of filling.beyond) {
    const more = withPerson(made, filled, person, like, newId);
    if (more === made) continue;
    made = more;
    beyond.push(person.id);
  }
  return { draft: made, beyond };
}

/** Adds to the draft what a form has on its pages, for the people who fill its slots. */
function withForm(draft: Draft, form: FormInUse & { filling: Filling }, newId: () => string): Draft {
  const people = new Map(form.filling.slots.map((f) => [f.slot.id, f.people]));
  // A form that was typeset for these people has their marks already.
  for (const { people: all } of form.filling.slots) for (const p of all) people.set(p.id, [p]);
  const grouped = groups(newId);
  const marks: Mark[] = [];
  for (const m of form.draft.marks) {
    // Marks on another paper of the form are on none that is sent.
    if (m.documentId !== form.document.id) continue;
    const first = m.partyId === NOBODY ? { id: NOBODY } : people.get(m.partyId)?.[0];
    if (first) marks.push(grouped({ ...m, id: newId(), documentId: form.document.id, partyId: first.id }));
  }
  const rules = form.draft.rules
    .filter((r) => r.documentId === form.document.id)
    .flatMap((r) => ruleFor(r, form, newId));
  let made: Draft = { ...draft, marks: [...draft.marks, ...marks], rules: [...draft.rules, ...rules] };
  // Marks for everyone of a side are there once: the others get copies beside them.
  for (const { slot, people: all } of form.filling.slots)
    for (const person of all.slice(1)) made = withSameMarks(made, form, all[0]?.id ?? '', person.id, slot, newId);
  return { ...made, passed: [...made.passed, ...form.draft.passed] };
}

/**
 * Returns a function that keeps the choices of one question together, and apart from those of the same form used
 * twice.
 */
function groups(newId: () => string): (m: Mark) => Mark {
  const made = new Map<string, string>();
  return (m) => {
    if (!m.group) return m;
    const group = made.get(m.group) ?? newId();
    made.set(m.group, group);
    return { ...m, group };
  };
}

/** Returns an initials rule for everyone in the rule's slots and for people beyond them. */
function ruleFor(rule: InitialsRule, form: FormInUse & { filling: Filling }, newId: () => string): InitialsRule[] {
  const of = (slotId: string) => [
    ...(form.filling.slots.find((f) => f.slot.id === slotId)?.people ?? []),
    ...form.filling.beyond.filter((b) => b.like.id === slotId).map((b) => b.person),
  ];
  const partyIds = [...new Set(rule.partyIds.flatMap(of).map((p) => p.id))];
  if (!partyIds.length) return [];
  return [
    {
      ...rule,
      id: newId(),
      documentId: form.document.id,
      partyIds,
      except: rule.except.flatMap((e) => of(e.partyId).map((p) => ({ page: e.page, partyId: p.id }))),
      // Only one can stand where it was moved to.
      moved: rule.moved.flatMap((m) =>
        of(m.partyId)
          .slice(0, 1)
          .map((p) => ({ ...m, partyId: p.id })),
      ),
    },
  ];
}

/** Adds marks like those of a slot's person for another person, in free space beside them. */
function withSameMarks(
  draft: Draft,
  form: FormInUse,
  fromId: string,
  toId: string,
  slot: Slot,
  newId: () => string,
): Draft {
  const ofSlot = new Set(form.draft.marks.filter((m) => m.partyId === slot.id).map((m) => placeOf(m)));
  const like = draft.marks.filter(
    (m) => m.partyId === fromId && m.documentId === form.document.id && ofSlot.has(placeOf(m)),
  );
  if (!like.length) return draft;
  const { marks } = resolveMarks(draft, [form.document]);
  return applyEdits(draft, handEdits(like, toId, [form.document], marks, newId));
}

const placeOf = (m: Mark) => `${m.page} ${m.kind} ${m.rect.x} ${m.rect.y}`;

/** Adds places for a person beyond the lines of a form: in the printed arrangement, or beside the last person's. */
function withPerson(
  draft: Draft,
  form: FormInUse & { filling: Filling },
  person: PacketParty,
  like: Slot,
  newId: () => string,
): Draft {
  const doc = form.document;
  const { marks } = resolveMarks(draft, [doc]);
  const proposals = proposalsOf(draft, [doc], marks);
  const taken = new Set(proposals.filter((p) => p.state === 'accepted').map((p) => p.id));
  const extra = proposals.filter(
    (p) => p.beside !== undefined && taken.has(p.beside) && p.partyId === person.id && p.state === 'open',
  );
  const signs = form.draft.marks.some((m) => m.partyId === like.id && m.kind === 'signature');
  if (extra.length && (!signs || extra.some((p) => p.kind === 'signature')))
    return applyEdits(draft, acceptEdits(extra, draft.parties));
  const fromId = form.filling.slots.find((f) => f.slot.id === like.id)?.people[0]?.id;
  return fromId ? withSameMarks(draft, form, fromId, person.id, like, newId) : draft;
}

/** Returns the draft with documents of the deal in place of its forms' documents. */
export function withDocuments(draft: Draft, idOf: (formDocumentId: string) => string): Draft {
  const place = (id: string) => {
    const [documentId, ...rest] = id.split('.');
    return [idOf(documentId ?? ''), ...rest].join('.');
  };
  return {
    ...draft,
    documents: draft.documents.map((d) => ({ id: idOf(d.id) })),
    marks: draft.marks.map((m) => ({
      ...m,
      documentId: idOf(m.documentId),
      ...(m.placeId ? { placeId: place(m.placeId) } : {}),
    })),
    rules: draft.rules.map((r) => ({ ...r, documentId: idOf(r.documentId) })),
    passed: draft.passed.map((p) => ({ id: place(p.id) })),
  };
}
