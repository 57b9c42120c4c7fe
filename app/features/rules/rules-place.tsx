/** The firm's rules: what its deals need, why, and by when; and the firm's own facts that rules may ask about. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { conditionWords, factsByKey, termWords, type FactDef, type Rule } from '@gatepath/core/deal';
import { count, listWords, SIDE_WORDS } from '@gatepath/core/text';
import { useRuleActions, useRules } from '../../api/deal-hooks';
import { newId } from '../../api/client';
import { usePalette } from '../../ui/hooks';
import { Input } from '../../ui/input';
import { NotReady, isReady } from '../../ui/not-ready';
import { ActError, Button, Card, Choice, IconButton, Note, Page } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

const SETS = [
  { id: 'sale', title: TEXT.listingsAndSales, kinds: ['listing', 'sale'] },
  { id: 'tenancy', title: TEXT.tenancies, kinds: ['tenancy'] },
] as const;

export function RulesPlace() {
  const rules = useRules();
  if (!isReady(rules)) return <NotReady query={rules} what={TEXT.theRules} />;
  const { rules: all, ownFacts } = rules.data;
  const samples = all.filter((r) => r.sample);
  return (
    <Page>
      <Row gap={12} justify="between">
        <Title>{TEXT.rules}</Title>
        <Button kind="main" icon="plus" onPress={() => router.push('/rules/new')} testID="new-rule">
          {TEXT.newRule}
        </Button>
      </Row>
      <Body>{TEXT.aRuleLooks}</Body>
      {samples.length ? (
        <Note tone="warn" title={TEXT.cameAsSamples(count(samples.length, 'rule'))}>
          {TEXT.theyShowHowRules}
        </Note>
      ) : null}
      {SETS.map((set) => (
        <RuleSet
          key={set.id}
          title={set.title}
          rules={all.filter((r) => r.kinds.some((k) => (set.kinds as readonly string[]).includes(k)))}
          ownFacts={ownFacts}
        />
      ))}
      <OwnFacts facts={ownFacts} />
    </Page>
  );
}

function RuleSet({ title, rules, ownFacts }: { title: string; rules: Rule[]; ownFacts: FactDef[] }) {
  const p = usePalette();
  const { turn } = useRuleActions();
  const facts = factsByKey(ownFacts);
  const allOn = rules.every((r) => r.on);
  return (
    <Card testID="rule-set">
      <Row gap={8}>
        <Stack grow>
          <Heading>{title}</Heading>
        </Stack>
        {rules.length ? (
          <Button
            kind="quiet"
            busy={turn.isPending}
            onPress={() => turn.mutate({ ids: rules.map((r) => r.id), on: !allOn })}
          >
            {allOn ? TEXT.turnAllOff : TEXT.turnAll}
          </Button>
        ) : null}
      </Row>
      <ActError of={turn} />
      {rules.length ? null : <Small>{TEXT.noRuleAppliesToThese}</Small>}
      {rules.map((r, i) => (
        <View key={r.id} style={{ borderTopWidth: i ? 1 : 0, borderColor: p.rule, paddingVertical: 6 }}>
          <RuleRow rule={r} facts={facts} onTurn={(on) => turn.mutate({ ids: [r.id], on })} />
        </View>
      ))}
    </Card>
  );
}

function RuleRow({
  rule: r,
  facts,
  onTurn,
}: {
  rule: Rule;
  facts: Map<string, FactDef>;
  onTurn: (on: boolean) => void;
}) {
  const p = usePalette();
  return (
    <Row gap={8} testID="rule-row">
      <Pressable
        role="link"
        aria-label={TEXT.changeThisRule(r.title)}
        onPress={() => router.push(`/rules/${r.id}`)}
        style={{ flex: 1, gap: 2, minHeight: 44, opacity: r.on ? 1 : 0.65 }}
      >
        <Row gap={8} wrap>
          <Strong>{r.title}</Strong>
          {r.sample ? (
            <View style={{ borderWidth: 1, borderColor: p.ochre, borderRadius: 6, paddingHorizontal: 6 }}>
              <Small tone="warn">{TEXT.sample}</Small>
            </View>
          ) : null}
        </Row>
        <Small>{r.when ? TEXT.whenOf(conditionWords(r.when, facts)) : TEXT.whenAlways}</Small>
        <Small>
          {[
            r.due ? TEXT.due(termWords(r.due)) : TEXT.noDueDate,
            r.signers.length
              ? TEXT.signedBy(listWords(r.signers.map((s) => SIDE_WORDS[s].toLowerCase())))
              : TEXT.noOneSigns,
          ].join('; ')}
        </Small>
      </Pressable>
      <View style={{ width: 74 }}>
        <Switch label={r.on ? 'on' : 'off'} on={r.on} onChange={onTurn} testID={`rule-on-${r.paper}`} />
      </View>
    </Row>
  );
}

const TYPES = [
  { value: 'flag', label: TEXT.yesOrNo },
  { value: 'number', label: TEXT.figure },
  { value: 'money', label: TEXT.money },
  { value: 'year', label: TEXT.year },
  { value: 'day', label: TEXT.day },
  { value: 'choice', label: TEXT.choice },
  { value: 'text', label: TEXT.words },
] as const;

const TYPE_LABELS = Object.fromEntries(TYPES.map((t) => [t.value, t.label.toLowerCase()]));

/** Facts the firm adds to the usual ones. */
function OwnFacts({ facts }: { facts: FactDef[] }) {
  const [adding, setAdding] = useState(false);
  const { facts: save } = useRuleActions();
  const keep = (list: FactDef[], onSuccess?: () => void) => save.mutate({ facts: list }, { onSuccess });
  return (
    <Card testID="own-facts">
      <Heading>{TEXT.factsOfYourOwn}</Heading>
      <Small>{TEXT.inAdditionToTheFacts}</Small>
      {facts.map((f) => (
        <Row key={f.key}>
          <Body grow>{`${f.label}, ${TYPE_LABELS[f.type] ?? f.type}`}</Body>
          <IconButton
            name="trash"
            label={TEXT.removeOf(f.label)}
            onPress={() => keep(facts.filter((x) => x.key !== f.key))}
          />
        </Row>
      ))}
      <ActError of={save} />
      {adding ? (
        <OwnFactForm
          busy={save.isPending}
          onCancel={() => setAdding(false)}
          onSave={(f) => keep([...facts, f], () => setAdding(false))}
        />
      ) : (
        <Button icon="plus" onPress={() => setAdding(true)} fit testID="add-own-fact">
          {TEXT.addAFact}
        </Button>
      )}
    </Card>
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function OwnFactForm({
  busy,
  onSave,
  onCancel,
}: {
  busy: boolean;
  onSave: (f: FactDef) => void;
  onCancel: () => void;
}) {
  const [label, setLabel] = useState('');
  const [type, setType] = useState<FactDef['type']>('flag');
  const [choices, setChoices] = useState('');
  const [where, setWhere] = useState<'sale' | 'tenancy' | 'both'>('both');
  const options = choices
    .split(',')
    .map((c) => c.trim())
    .filter(Boolean)
    .map((c, i) => ({ value: `o${i + 1}`, label: c.slice(0, 60) }));
  const kinds: FactDef['kinds'] =
    where === 'both' ? ['listing', 'sale', 'tenancy'] : where === 'sale' ? ['listing', 'sale'] : ['tenancy'];
  const ready = label.trim() !== '' && (type !== 'choice' || options.length > 1);
  return (
    <Stack gap={8}>
      <Input label={TEXT.whatTheFactIsCalled} value={label} onChangeText={setLabel} maxLength={60} testID="own-label" />
      <Choice label={TEXT.whatKindOfAnswer} value={type} options={[...TYPES]} wrap onChange={setType} />
      {type === 'choice' ? (
        <Input label={TEXT.itsChoicesWithCommasBetween} value={choices} onChangeText={setChoices} maxLength={600} />
      ) : null}
      <Choice
        label={TEXT.inWhichDeals}
        value={where}
        wrap
        options={[
          { value: 'both', label: TEXT.inAllDeals },
          { value: 'sale', label: TEXT.listingsAndSales },
          { value: 'tenancy', label: TEXT.tenancies },
        ]}
        onChange={setWhere}
      />
      <Row gap={8} align="stretch">
        <Button
          kind="main"
          disabled={!ready}
          busy={busy}
          onPress={() =>
            onSave({
              key: `own.${newId()}`,
              label: label.trim(),
              type,
              kinds,
              ...(type === 'choice' ? { options } : {}),
            })
          }
          testID="save-own-fact"
        >
          {TEXT.addTheFact}
        </Button>
        <Button onPress={onCancel}>{TEXT.cancel}</Button>
      </Row>
    </Stack>
  );
}
