/** What a notice says to everybody, the rule it is held to, and whether wrong rows hold up right ones. */
import { useState } from 'react';
import { View } from 'react-native';
import type { NoticeView } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { isOfPaper } from '@gatepath/core/writing';
import { Choice, Button, Card, Note, Trouble } from '../../ui/pieces';
import { Input } from '../../ui/input';
import { Switch } from '../../ui/switch';
import { Heading, Small } from '../../ui/text';
import { SaidFields, useSaid } from './said-fields';
import { asFacts, type Acts } from './home-row';

const NO_RULE = 'none';

export function SaidToAll({ notice, acts: { set } }: { notice: NoticeView; acts: Acts }) {
  const on = useSaid();
  const [name, setName] = useState(notice.name);
  // What tenancies know of themselves is not the same for all.
  const facts = asFacts(notice).filter((def) => isOfPaper(def.key) || def.key in notice.values);
  const changed = on.changed || name.trim() !== notice.name;
  const { rule, term } = notice;
  return (
    <Card style={{ flex: 1, gap: 10, minWidth: 0 }} testID="said-to-all">
      <Heading>What every home reads</Heading>
      <Input label="Name of the notice" value={name} onChangeText={setName} maxLength={120} testID="notice-name" />
      {facts.length ? (
        <Small>What is filled in here is the same for every home. What is left open comes from each row.</Small>
      ) : (
        <Small>Nothing in this kit’s papers differs from home to home.</Small>
      )}
      <SaidFields facts={facts} values={notice.values} on={on} />
      <Button
        disabled={!changed || !name.trim() || !on.fits}
        busy={set.isPending}
        onPress={() => set.mutate({ name: name.trim(), values: on.said }, { onSuccess: on.clear })}
        style={{ alignSelf: 'flex-start' }}
        testID="keep-said"
      >
        Keep it
      </Button>
      <View style={{ gap: 4 }}>
        <Small>Rule</Small>
        <Choice
          wrap
          label="Rule"
          value={rule?.id ?? NO_RULE}
          options={[
            ...notice.rules.map((r) => ({ value: r.id, label: r.name })),
            ...(rule && !notice.rules.some((r) => r.id === rule.id) ? [{ value: rule.id, label: rule.name }] : []),
            { value: NO_RULE, label: 'No rule' },
          ]}
          onChange={(id) => set.mutate({ ruleId: id === NO_RULE ? null : id })}
        />
      </View>
      {term?.sentence ? <Note tone="warn" title={term.sentence} /> : null}
      {term && !term.sentence ? (
        <Small>{`Sent today, it counts as delivered on ${shortDay(term.delivered)}: it can take effect from ${shortDay(term.earliest, term.delivered)} on.`}</Small>
      ) : null}
      <Switch
        label="Send nothing while a row is wrong"
        on={notice.allOrNone}
        onChange={(allOrNone) => set.mutate({ allOrNone })}
        testID="all-or-none"
      />
      {set.isError ? <Trouble error={set.error} /> : null}
    </Card>
  );
}
