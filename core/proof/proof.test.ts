import { createHash } from 'node:crypto';
import fc from 'fast-check';
import type { PacketEvent } from '../routing/types';
import { canonicalJson, chainHash, CHAIN_START, firstBreak, type ChainedEvent } from './index';

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex');

test('canonical JSON as in the example of RFC 8785', () => {
  const example = {
    numbers: [Number('333333333.33333329'), 1e30, 4.5, 2e-3, 0.000000000000000000000000001],
    string: '\u20ac$\u000f\u000aA\'\u0042\u0022\u005c\\"\u002f',
    literals: [null, true, false],
  };
  expect(canonicalJson(example)).toBe(
    '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\\u000f\\nA\'B\\"\\\\\\\\\\"/"}',
  );
  expect(() => canonicalJson({ x: NaN })).toThrow('no number');
});

test('canonical JSON does not depend on the order of keys and reads back the same', () => {
  fc.assert(
    fc.property(fc.dictionary(fc.string(), fc.jsonValue()), (o) => {
      const turned = Object.fromEntries(Object.entries(o).reverse());
      expect(canonicalJson(turned)).toBe(canonicalJson(o));
      expect(JSON.parse(canonicalJson(o))).toEqual(JSON.parse(JSON.stringify(o)));
    }),
  );
});

function chain(n: number): ChainedEvent<PacketEvent>[] {
  const out: ChainedEvent<PacketEvent>[] = [];
  let prevHash = CHAIN_START;
  for (let seq = 1; seq <= n; seq++) {
    const event: PacketEvent = {
      packetId: 'p',
      seq,
      at: `t${seq}`,
      actor: { kind: 'system' },
      origin: null,
      body: { type: 'gate_opened', gate: seq },
    };
    const hash = chainHash(prevHash, event, sha256);
    out.push({ event, prevHash, hash });
    prevHash = hash;
  }
  return out;
}

test('a chain that was touched anywhere breaks there', () => {
  expect(firstBreak(chain(6), sha256)).toBeNull();
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 5 }), fc.constantFrom('at', 'gate', 'drop', 'hash'), (i, how) => {
      const events = structuredClone(chain(6));
      const e = events[i]!;
      if (how === 'at') e.event.at += 'x';
      if (how === 'gate') e.event.body = { type: 'gate_opened', gate: 99 };
      if (how === 'hash') e.hash = sha256('other');
      if (how === 'drop') events.splice(i, 1);
      const broken = firstBreak(events, sha256);
      if (how === 'drop' && i === 5) expect(broken).toBeNull();
      else expect(broken).toBe(i + 1);
    }),
  );
});
