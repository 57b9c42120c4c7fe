/** What a device is called in the record. */
import { deviceOf } from './origin';

test.each([
  [
    'Mozilla/5.0 (iPhone; CPU iPhone OS 19_1 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/19.1 Mobile/15E148 Safari/604.1',
    'phone (Safari)',
  ],
  [
    'Mozilla/5.0 (Linux; Android 16; Pixel 9) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/150.0.0.0 Mobile Safari/537.36',
    'phone (Chrome)',
  ],
  [
    'Mozilla/5.0 (iPad; CPU OS 18_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.0 Mobile/15E148 Safari/604.1',
    'tablet (Safari)',
  ],
  [
    'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/150.0.0.0 Safari/537.36 Edg/150.0.0.0',
    'computer (Edge)',
  ],
  ['Mozilla/5.0 (X11; Linux x86_64; rv:150.0) Gecko/20100101 Firefox/150.0', 'computer (Firefox)'],
  ['curl/8.5.0', 'computer'],
  ['', null],
])('%s', (userAgent, device) => expect(deviceOf(userAgent)).toBe(device));

test('a name that was made up to hurt is looked at no longer than any other', () => {
  for (const bad of [
    'A'.repeat(1e6),
    'Mozilla/5.0 ('.repeat(1e5),
    `Android ${'; '.repeat(1e5)}`,
    'Version/'.repeat(1e5),
  ])
    expect(deviceOf(bad)).toMatch(/^(?:computer|phone|tablet)/);
});
