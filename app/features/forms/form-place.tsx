/** A form at the desk: the same as for packets, with roles instead of people. */
import { Redirect, useLocalSearchParams } from 'expo-router';
import { useMemo } from 'react';
import type { PacketView, ShelfItemView } from '@gatepath/contract';
import { FORM_RULES } from '@gatepath/core/checks';
import { NO_FACTS } from '@gatepath/core/merge';
import { useSession } from '../../api/hooks';
import { useShelfItem } from '../../api/shelf-hooks';
import { NotReady, isReady } from '../../ui/not-ready';
import { DeskScreen } from '../desk/desk';
import type { DeskSetup } from '../desk/desk-setup';
import { CommandLine } from '../frame/command-line';
import { FormPart, PutOnShelf } from '../shelf/form-part';
import { SHELF_HOME } from '../shelf/home';
import { WrittenPlace } from './written-place';
import { NotOwn } from '../shelf/sharing';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

const FORM_SETUP: DeskSetup = { what: 'form', home: SHELF_HOME, rules: FORM_RULES };

/** Returns a form as the desk takes a packet: in no deal, with nobody in it. */
const asPacket = (form: ShelfItemView, timeZone: string): PacketView => ({
  id: form.id,
  dealId: '',
  dealName: TEXT.form,
  timeZone,
  name: form.name,
  status: 'drafting',
  draft: form.draft,
  version: form.version,
  documents: form.documents,
  facts: NO_FACTS,
  dealParties: [],
  holidays: [],
  kin: [],
  later: null,
  sent: null,
});

export function FormPlace() {
  const { formId } = useLocalSearchParams<{ formId: string }>();
  const session = useSession();
  const item = useShelfItem(session.data?.member ? formId : '');
  const zone = session.data?.firm?.timeZone ?? 'UTC';
  const packet = useMemo(() => (item.data ? asPacket(item.data, zone) : null), [item.data, zone]);
  if (!isReady(session)) return <NotReady query={session} what={TEXT.gatePath} />;
  if (!session.data.member) return <Redirect href="/sign-in" />;
  if (!isReady(item) || !packet) return <NotReady query={item} what={TEXT.theForm} />;
  if (!item.data.own) return <NotOwn item={item.data} />;
  const { written } = item.data;
  if (written)
    return (
      <Stack grow>
        <WrittenPlace key={item.data.id} item={{ ...item.data, written }} />
        <CommandLine />
      </Stack>
    );
  return (
    <Stack grow>
      <DeskScreen key={item.data.id} packet={packet} setup={FORM_SETUP} finish={<PutOnShelf />} PathPart={FormPart} />
      <CommandLine />
    </Stack>
  );
}
