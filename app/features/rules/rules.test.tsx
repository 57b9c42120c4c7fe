/** Rules, written: a condition part by part, its mistakes where they stand, and what it would ask for. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { factsByKey, sampleRules, type Condition } from '@gatepath/core/deal';
import { show } from '../../test/office';
import { ConditionEditor } from './condition-editor';
import { RulePlace } from './rule-place';
import { RulesPlace } from './rules-place';

const mockWent = jest.fn();
let mockRule = 'new';
jest.mock('expo-router', () => ({
  router: { push: (to: string) => mockWent(to) as unknown, replace: (to: string) => mockWent(to) as unknown },
  useLocalSearchParams: () => ({ ruleId: mockRule }),
}));
beforeEach(() => mockWent.mockClear());

const FACTS = [...factsByKey().values()];
const write = (id: string, value: string) => fireEvent.change(screen.getByTestId(id), { target: { value } });
const rules = sampleRules();
const trial = {
  faults: [],
  of: 4,
  asks: 1,
  unknown: 1,
  deals: [{ id: 'd', address: '7 Weir Terrace', due: '2026-12-03', hangsOn: [] }],
};
const server = ({ url }: { url: string }) => (url === '/api/rules/trial' ? trial : { rules, ownFacts: [] });

test('rules are read as sentences, marked as samples, and turned off', async () => {
  const asked = show(<RulesPlace />, () => ({ rules, ownFacts: [] }));
  const [row] = (await screen.findAllByTestId('rule-row')).filter((r) => r.textContent?.includes('Lead paint'));
  expect(row!.textContent).toContain('When: Year built is before 1978');
  expect(row!.textContent).toContain('Due 3 business days after the offer is accepted; signed by seller and buyer');
  expect(row!.textContent).toContain('sample');
  fireEvent.click(screen.getAllByTestId('rule-on-lead_paint')[0]!);
  await waitFor(() => expect(asked.at(-1)?.body).toEqual({ ids: ['sample-sale-lead_paint'], on: false }));
});

test('a fact of the firm’s own is added with its choices', async () => {
  const asked = show(<RulesPlace />, () => ({ rules: [], ownFacts: [] }));
  fireEvent.click(await screen.findByTestId('add-own-fact'));
  write('own-label', 'Mooring');
  fireEvent.click(screen.getByTestId('choice-choice'));
  fireEvent.change(screen.getByLabelText('Its choices, with commas between'), { target: { value: 'private, shared' } });
  fireEvent.click(screen.getByTestId('save-own-fact'));
  await waitFor(() => expect(asked.at(-1)?.method).toBe('PUT'));
  expect(asked.at(-1)!.body).toMatchObject({
    facts: [
      {
        label: 'Mooring',
        type: 'choice',
        options: [
          { value: 'o1', label: 'private' },
          { value: 'o2', label: 'shared' },
        ],
      },
    ],
  });
});

test('a rule is tried as it is written, and kept whole', async () => {
  mockRule = 'sample-sale-lead_paint';
  const asked = show(<RulePlace />, server);
  await screen.findByText('It would require the paper in 1 of 4 open deals.');
  screen.getByText('7 Weir Terrace');
  write('rule-days', '5');
  write('rule-title', 'Lead paper');
  await screen.findByText('Due 5 business days after the offer is accepted');
  fireEvent.click(screen.getByTestId('save-rule'));
  await waitFor(() => expect(mockWent).toHaveBeenCalledWith('/rules'));
  const kept = asked.find((a) => a.method === 'PUT')!;
  expect(kept.url).toBe('/api/rules/sample-sale-lead_paint');
  expect(kept.body).toMatchObject({
    title: 'Lead paper',
    when: { fact: 'year_built', compare: 'before', value: 1978 },
    due: { n: 5, unit: 'business_days', way: 'after', from: 'accepted' },
  });
});

test('one that is wrong says where, and is not kept', async () => {
  mockRule = 'new';
  const faults = [{ part: 'due', at: '', words: 'A tenancy does not have this date: it is listed.' }];
  show(<RulePlace />, ({ url }) =>
    url === '/api/rules/trial' ? { faults, of: 0, asks: 0, unknown: 0, deals: [] } : { rules: [], ownFacts: [] },
  );
  await screen.findByTestId('trial');
  write('rule-title', 'T');
  write('rule-reason', 'R');
  fireEvent.click(screen.getByTestId('add-due'));
  expect(screen.getByTestId('fault').textContent).toBe('A tenancy does not have this date: it is listed.');
  expect(screen.getByTestId('save-rule').getAttribute('aria-disabled')).toBe('true');
});

test('a rule that somebody took away is told so', async () => {
  mockRule = 'gone';
  show(<RulePlace />, server);
  await screen.findByText('This rule was deleted');
});

const told: Condition[] = [];
function Editor({ start }: { start: Condition }) {
  const [c, setC] = useState<Condition | null>(start);
  if (!c) return <p>nothing</p>;
  return (
    <ConditionEditor
      condition={c}
      facts={FACTS}
      faults={[{ at: '1', words: 'Say with what it is compared.' }]}
      onChange={(x) => {
        told.push(x);
        setC(x);
      }}
      onDrop={() => setC(null)}
    />
  );
}

test('values are written into their part, parts are taken away, and the last one takes the whole', () => {
  show(
    <Editor
      start={{
        all: [
          { fact: 'year_built', compare: 'before', value: 1978 },
          { fact: 'units', compare: 'at_least' },
        ],
      }}
    />,
  );
  expect(screen.getByTestId('part-1').textContent).toContain('Say with what it is compared.');
  expect(screen.getByTestId('part-0').textContent).not.toContain('Say with');
  write('fact-units', '3');
  expect(told.at(-1)).toEqual({
    all: [
      { fact: 'year_built', compare: 'before', value: 1978 },
      { fact: 'units', compare: 'at_least', value: 3 },
    ],
  });
  fireEvent.click(screen.getByLabelText('Remove: Year built'));
  expect(told.at(-1)).toEqual({ all: [{ fact: 'units', compare: 'at_least', value: 3 }] });
  fireEvent.click(screen.getByLabelText('Remove: Homes in the building'));
  screen.getByText('nothing');
});
