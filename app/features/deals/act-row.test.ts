import { actLabel } from './act-row';

test.each([
  ['Fill in', 'Fill in: association', 'Fill in: association'],
  ['Add', 'Add the seller’s disclosure, 26 Lock Hill', 'Add: the seller’s disclosure, 26 Lock Hill'],
  ['Prepare', 'Put the pet addendum into a packet', 'Prepare: Put the pet addendum into a packet'],
  ['Answer', 'Answer', 'Answer'],
])('a button “%s” for “%s” says its words once', (button, title, label) => {
  expect(actLabel(button, title)).toBe(label);
});
