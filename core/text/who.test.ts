/** Who somebody is to whoever sends. */
import { whoOf } from './who';

const who = (name: string, email: string, phone: string | null = null) => whoOf({ name, email, phone });

test('a name at an address, however it is written; the phone only where there is no address', () => {
  expect(who(' Wren Alder ', 'Wren@Example.com')).toEqual({ called: 'wren alder', mailbox: 'wren@example.com' });
  expect(who('Wren Alder', '', ' +1 555-0142 ').mailbox).toBe('+1 555-0142');
  expect(who('Wren Alder', 'wren@example.com', '555').mailbox).toBe('wren@example.com');
  expect(who('Wren Alder', ' ', null).mailbox).toBeNull();
});

test('two people with one mailbox are two', () => {
  expect(who('Wren Alder', 'home@example.com')).not.toEqual(who('Callum Alder', 'home@example.com'));
});
