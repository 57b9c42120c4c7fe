/** The firm's rules for notices: how long before its day each must be delivered, and when it counts as delivered. */
import { useState } from 'react';
import type { NoticeRulesView } from '@gatepath/contract';
import { count } from '@gatepath/core/text';
import { useNoticeRules } from '../../api/notice-hooks';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { NumberField } from '../../ui/number-field';
import { ActError, Button, Card, Choice, IconButton, Trouble } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { TEXT } from './words';
import { Actions, Row, Ruled, Stack } from '../../ui/layout';

type Rule = NoticeRulesView['rules'][number];
type After = Rule['term'];

const UNITS: { value: After['unit']; label: string }[] = [
  { value: 'days', label: 'days' },
  { value: 'business_days', label: TEXT.businessDays },
];
const WAYS: { way: keyof Rule['delivery']; label: string }[] = [
  { way: 'link', label: TEXT.sentByItsLink },
  { way: 'post', label: TEXT.postedAsALetter },
  { way: 'hand', label: TEXT.handedOver },
];

export function NoticeRulesCard() {
  const { rules, keep } = useNoticeRules();
  const [draft, setDraft] = useState<Rule[] | null>(null);
  const [open, setOpen] = useState<string | null>(null);
  if (!rules.data) return rules.isError ? <Trouble error={rules.error} retry={() => void rules.refetch()} /> : null;
  const shown = draft ?? rules.data.rules;
  const change = (rule: Rule) => setDraft(shown.map((r) => (r.id === rule.id ? rule : r)));
  const add = () => {
    const id = `rule-${Date.now()}`;
    const usual = { n: 1, unit: 'business_days' as const };
    const delivery = { link: usual, post: { ...usual, n: 3 }, hand: { n: 0, unit: 'days' as const } };
    setDraft([...shown, { id, name: TEXT.newRule, day: null, term: { n: 30, unit: 'days' }, delivery }]);
    setOpen(id);
  };
  return (
    <Card testID="notice-rules">
      <Heading>{TEXT.rulesForNotices}</Heading>
      <Small>{TEXT.theseAreSamplesCheckEach}</Small>
      {shown.map((rule) => (
        <RuleRow
          key={rule.id}
          rule={rule}
          days={rules.data.days}
          open={open === rule.id}
          onOpen={() => setOpen(open === rule.id ? null : rule.id)}
          onChange={change}
          onDrop={() => setDraft(shown.filter((r) => r.id !== rule.id))}
        />
      ))}
      <Actions>
        <Button icon="plus" onPress={add}>
          {TEXT.addARule}
        </Button>
        {draft ? (
          <>
            <Button
              kind="main"
              busy={keep.isPending}
              disabled={draft.some((r) => !r.name.trim())}
              onPress={() => keep.mutate({ rules: draft }, { onSuccess: () => setDraft(null) })}
              testID="keep-notice-rules"
            >
              {TEXT.saveRules}
            </Button>
            <Button kind="quiet" onPress={() => setDraft(null)}>
              {TEXT.cancel}
            </Button>
          </>
        ) : null}
      </Actions>
      <ActError of={keep} />
    </Card>
  );
}

const words = ({ n, unit }: After) => count(n, unit === 'days' ? TEXT.day : TEXT.businessDay);

interface RowProps {
  rule: Rule;
  days: NoticeRulesView['days'];
  open: boolean;
  onOpen: () => void;
  onChange: (rule: Rule) => void;
  onDrop: () => void;
}

function RuleRow({ rule, days, open, onOpen, onChange, onDrop }: RowProps) {
  const day = days.find((d) => d.key === rule.day)?.label;
  return (
    <Ruled gap={8}>
      <Row gap={8}>
        <Stack grow>
          <Strong>{rule.name}</Strong>
          <Small>
            {day ? TEXT.deliveredBeforeDay(words(rule.term), day.toLowerCase()) : TEXT.noNoticePeriod}
            {TEXT.countsAfterSendingAfterPosting(words(rule.delivery.link), words(rule.delivery.post))}
          </Small>
        </Stack>
        <IconButton name="pencil" label={TEXT.changeTheRule(rule.name)} on={open} onPress={onOpen} />
        <IconButton name="trash" label={TEXT.deleteTheRule(rule.name)} onPress={onDrop} />
      </Row>
      {open ? (
        <Stack gap={8}>
          <Input
            label={TEXT.name}
            value={rule.name}
            maxLength={60}
            onChangeText={(name) => onChange({ ...rule, name })}
          />
          <DropMenu
            anchor={(show) => (
              <Button onPress={show} fit>
                {day ? TEXT.countsBackFrom(day) : TEXT.notCountedBackFrom}
              </Button>
            )}
          >
            <MenuItem title={TEXT.noDay} onPress={() => onChange({ ...rule, day: null })} />
            {days.map((d) => (
              <MenuItem key={d.key} title={d.label} onPress={() => onChange({ ...rule, day: d.key })} />
            ))}
          </DropMenu>
          {rule.day ? (
            <AfterField
              label={TEXT.deliveredBeforeBy}
              value={rule.term}
              onChange={(term) => onChange({ ...rule, term })}
            />
          ) : null}
          {WAYS.map(({ way, label }) => (
            <AfterField
              key={way}
              label={TEXT.countsAsDeliveredWhenAfter(label)}
              value={rule.delivery[way]}
              onChange={(value) => onChange({ ...rule, delivery: { ...rule.delivery, [way]: value } })}
            />
          ))}
        </Stack>
      ) : null}
    </Ruled>
  );
}

function AfterField({ label, value, onChange }: { label: string; value: After; onChange: (value: After) => void }) {
  return (
    <Stack gap={4}>
      <NumberField label={label} value={value.n} min={0} max={365} onChange={(n) => onChange({ ...value, n })} />
      <Choice
        label={TEXT.daysOfWhichSort(label)}
        value={value.unit}
        options={UNITS}
        onChange={(unit) => onChange({ ...value, unit })}
      />
    </Stack>
  );
}
