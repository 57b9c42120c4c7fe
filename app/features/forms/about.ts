/** What the editor's nodes know: the roles of the form and the available tags. */
import { createContext, useContext } from 'react';
import type { PacketParty } from '@gatepath/core/packet';
import { SIDE_WORDS, SIDES } from '@gatepath/core/text';
import type { TagDef } from '@gatepath/core/writing';
import { TEXT } from './words';

export interface AboutForm {
  roles: readonly PacketParty[];
  tags: readonly TagDef[];
}

const About = createContext<AboutForm>({ roles: [], tags: [] });
export const AboutProvider = About.Provider;
export const useAbout = () => useContext(About);

export const roleName = (about: AboutForm, slot: string) =>
  about.roles.find((r) => r.id === slot)?.name ?? TEXT.aRoleThatIsGone;
export const tagLabel = (about: AboutForm, key: string) =>
  about.tags.find((t) => t.key === key)?.label ?? TEXT.aTagThatIsGone;

/** Sides for which a part can be repeated. */
export const EACH_SIDES = SIDES.filter((s) => s !== 'other');
/** Returns for whom a part is repeated: "each tenant". */
export const eachWords = (side: (typeof SIDES)[number]) => TEXT.each(SIDE_WORDS[side].toLowerCase());
