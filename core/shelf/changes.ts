/** The differences between two editions of a form or kit, in sentences. */
import { calledOf } from '../packet/called';
import type { Draft } from '../packet/draft';
import type { Mark, PacketParty } from '../packet/types';
import { count, listWords } from '../text';

type Item = { id: string };

/** Returns which items of a list were added, removed, and changed. */
function compared<T extends Item>(before: readonly T[], after: readonly T[], same: (a: T, b: T) => boolean) {
  const was = new Map(before.map((x) => [x.id, x]));
  const is = new Map(after.map((x) => [x.id, x]));
  return {
    came: after.filter((x) => !was.has(x.id)),
    went: before.filter((x) => !is.has(x.id)),
    other: after.filter((x) => {
      const old = was.get(x.id);
      return old !== undefined && !same(old, x);
    }),
  };
}

const alike = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * Returns the changes from one draft to another, one sentence each; none if a packet would look the same.
 *
 * @param nameOf the name of a document or, in a kit, of a form
 */
export function changesBetween(before: Draft, after: Draft, nameOf: (id: string) => string): string[] {
  return [
    ...(before.name === after.name ? [] : [`It is called “${after.name}” now, and was “${before.name}”.`]),
    ...papers(before, after, nameOf),
    ...roles(before, after),
    ...marks(before, after),
    ...initials(before, after),
    ...(alike(gates(before), gates(after)) ? [] : ['The order changed.']),
    ...(before.subject === after.subject && before.message === after.message ? [] : ['Subject or message changed.']),
    ...(alike(before.schedule, after.schedule) ? [] : ['Nudges or the last day changed.']),
    ...((before.readAlong ?? false) === (after.readAlong ?? false) && before.handOver === after.handOver
      ? []
      : ['Who may read along or hand over changed.']),
    ...(alike(before.reports ?? [], after.reports ?? []) ? [] : ['Who is notified changed.']),
  ];
}

function papers(before: Draft, after: Draft, nameOf: (id: string) => string): string[] {
  const { came, went } = compared(before.documents, after.documents, () => true);
  const order = (d: Draft, of: Draft) =>
    d.documents.map((x) => x.id).filter((id) => of.documents.some((y) => y.id === id));
  const names = (list: Item[]) => listWords(list.map((d) => nameOf(d.id)));
  // One for one: the paper was changed.
  if (came.length === 1 && went.length === 1 && after.documents.length === 1) return ['The paper was changed.'];
  return [
    ...(came.length ? [`${names(came)} ${came.length === 1 ? 'was' : 'were'} added.`] : []),
    ...(went.length ? [`${names(went)} ${went.length === 1 ? 'was' : 'were'} removed.`] : []),
    ...(alike(order(before, after), order(after, before)) ? [] : ['The order of the papers changed.']),
  ];
}

function roles(before: Draft, after: Draft): string[] {
  const doing = ({ act, note, secondStep, language, copyAt }: PacketParty) => [act, note, secondStep, language, copyAt];
  const { came, went, other } = compared(before.parties, after.parties, (a, b) => alike(doing(a), doing(b)));
  const names = (list: PacketParty[]) => listWords(list.map(calledOf));
  return [
    ...(came.length ? [`New: ${names(came)}.`] : []),
    ...(went.length ? [`No longer there: ${names(went)}.`] : []),
    ...other.map((p) => `${calledOf(p)} has a different act.`),
  ];
}

/** Returns changes of marks. A changed paper gives its marks another document, which is not a change of theirs. */
function marks(before: Draft, after: Draft): string[] {
  const bare = ({ rect: _rect, page: _page, documentId: _doc, placeId: _place, ...rest }: Mark) => rest;
  const place = ({ rect, page }: Mark) => [page, rect];
  const { came, went } = compared(before.marks, after.marks, () => true);
  const moved = compared(before.marks, after.marks, (a, b) => alike(place(a), place(b))).other;
  const other = compared(before.marks, after.marks, (a, b) => alike(bare(a), bare(b))).other;
  const say = (list: Mark[], what: string) => (list.length ? [`${count(list.length, 'mark')} ${what}.`] : []);
  return [
    ...say(came, 'more'),
    ...say(went, 'taken away'),
    ...say(moved, 'moved'),
    ...say(other, 'changed in what they ask'),
  ];
}

function initials(before: Draft, after: Draft): string[] {
  const who = (d: Draft) => new Set(d.rules.flatMap((r) => r.partyIds));
  const names = (d: Draft, ids: string[]) =>
    listWords(ids.flatMap((id) => d.parties.find((p) => p.id === id) ?? []).map(calledOf));
  const [was, is] = [who(before), who(after)];
  const more = [...is].filter((id) => !was.has(id));
  const less = [...was].filter((id) => !is.has(id) && after.parties.some((p) => p.id === id));
  return [
    ...(more.length ? [`${names(after, more)} ${more.length === 1 ? 'initials' : 'initial'} every page now.`] : []),
    ...(less.length
      ? [`${names(after, less)} no longer ${less.length === 1 ? 'initials' : 'initial'} every page.`]
      : []),
  ];
}

const gates = (d: Draft) => d.gates.map((g) => [g.partyIds, g.need ?? 'all']);
