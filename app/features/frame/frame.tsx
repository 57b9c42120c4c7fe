import { Redirect, Slot, usePathname, useRouter } from 'expo-router';
import { Pressable, View } from 'react-native';
import { useSession } from '../../api/hooks';
import { Brand } from '../../ui/brand';
import { usePalette, useWide } from '../../ui/hooks';
import { NotReady, isReady } from '../../ui/not-ready';
import { Body } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { CommandButton, CommandLine } from './command-line';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

const PLACES = [
  { href: '/today', label: TEXT.today },
  { href: '/deals', label: TEXT.deals },
  { href: '/shelf', label: TEXT.shelf },
  { href: '/people', label: TEXT.people },
  { href: '/mailroom', label: TEXT.mailroom },
  { href: '/firm', label: TEXT.firm },
] as const;

/** The navigation of a signed-in member: below on a phone, above on a wide screen. */
export function OfficeFrame() {
  const session = useSession();
  const p = usePalette();
  const wide = useWide();
  if (!isReady(session)) return <NotReady query={session} what={TEXT.gatePath} />;
  if (!session.data.firm) return <Redirect href="/setup" />;
  if (!session.data.member) return <Redirect href="/sign-in" />;
  return (
    <View style={{ flex: 1, backgroundColor: p.paper }}>
      {wide ? <Places /> : null}
      <Stack grow>
        <Slot />
      </Stack>
      {wide ? null : <Places />}
      <CommandLine />
    </View>
  );
}

/** The places themselves. */
export function Places() {
  const p = usePalette();
  const wide = useWide();
  return (
    <Row
      role="navigation"
      style={{
        backgroundColor: p.sheet,
        borderColor: p.rule,
        borderTopWidth: wide ? 0 : 1,
        borderBottomWidth: wide ? 1 : 0,
        paddingHorizontal: wide ? 24 : 0,
        justifyContent: wide ? 'flex-start' : 'space-around',
        gap: wide ? 12 : 0,
        minHeight: 62,
      }}
    >
      {wide ? (
        <View style={{ marginRight: 24 }}>
          <Brand />
        </View>
      ) : null}
      {PLACES.map((place) => (
        <NavLink key={place.href} {...place} />
      ))}
      {wide ? <CommandButton /> : null}
    </Row>
  );
}

function NavLink({ href, label }: (typeof PLACES)[number]) {
  const p = usePalette();
  const wide = useWide();
  const router = useRouter();
  const path = usePathname();
  // Notices are the third list of the shelf.
  const on = path.startsWith(href) || (href === '/shelf' && path.startsWith('/notices'));
  return (
    <Pressable
      role="link"
      aria-current={on ? 'page' : undefined}
      onPress={() => router.navigate(href)}
      style={{ minHeight: 60, minWidth: wide ? 72 : 60, alignItems: 'center', justifyContent: 'center', gap: 6 }}
    >
      <View style={{ width: on ? 28 : 8, height: 6, borderRadius: 3, backgroundColor: on ? p.brick : p.rule }} />
      <Body tone={on ? 'act' : 'plain'} style={{ fontFamily: on ? FONT.bold : FONT.text, fontSize: wide ? 15 : 14 }}>
        {label}
      </Body>
    </Pressable>
  );
}
