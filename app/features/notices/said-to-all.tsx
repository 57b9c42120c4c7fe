/** What a notice says to everyone, its rule, and whether wrong rows stop good ones. */
import { useState } from 'react';
import type { NoticeView } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { isOfPaper } from '@gatepath/core/writing';
import { ActError, Choice, Button, Card, Note } from '../../ui/pieces';
import { Input } from '../../ui/input';
import { Switch } from '../../ui/switch';
import { Heading, Small } from '../../ui/text';
import { SaidFields, useSaid } from './said-fields';
import { asFacts, type Acts } from './home-row';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

const NO_RULE = 'none';

export function SaidToAll({ notice, acts: { set } }: { notice: NoticeView; acts: Acts }) {
  const on = useSaid();
  const [name, setName] = useState(notice.name);
  // Facts of the tenancies differ from home to home.
  const facts = asFacts(notice).filter((def) => isOfPaper(def.key) || def.key in notice.values);
  const changed = on.changed || name.trim() !== notice.name;
  const { rule, term } = notice;
  return (
    <Card style={{ flex: 1, minWidth: 0 }} testID="said-to-all">
      <Heading>{TEXT.whatEveryHomeReads}</Heading>
      <Input label={TEXT.nameOfTheNotice} value={name} onChangeText={setName} maxLength={120} testID="notice-name" />
      {facts.length ? <Small>{TEXT.whatIsFilledInHere}</Small> : <Small>{TEXT.nothingInThisKitsPapers}</Small>}
      <SaidFields facts={facts} values={notice.values} on={on} />
      <Button
        disabled={!changed || !name.trim() || !on.fits}
        busy={set.isPending}
        onPress={() => set.mutate({ name: name.trim(), values: on.said }, { onSuccess: on.clear })}
        fit
        testID="keep-said"
      >
        {TEXT.keepIt}
      </Button>
      <Stack gap={4}>
        <Small>{TEXT.rule}</Small>
        <Choice
          wrap
          label={TEXT.rule}
          value={rule?.id ?? NO_RULE}
          options={[
            ...notice.rules.map((r) => ({ value: r.id, label: r.name })),
            ...(rule && !notice.rules.some((r) => r.id === rule.id) ? [{ value: rule.id, label: rule.name }] : []),
            { value: NO_RULE, label: TEXT.noRule },
          ]}
          onChange={(id) => set.mutate({ ruleId: id === NO_RULE ? null : id })}
        />
      </Stack>
      {term?.sentence ? <Note tone="warn" title={term.sentence} /> : null}
      {term && !term.sentence ? (
        <Small>{TEXT.sentTodayItCountsAs(shortDay(term.delivered), shortDay(term.earliest, term.delivered))}</Small>
      ) : null}
      <Switch
        label={TEXT.sendNothingWhileARow}
        on={notice.allOrNone}
        onChange={(allOrNone) => set.mutate({ allOrNone })}
        testID="all-or-none"
      />
      <ActError of={set} />
    </Card>
  );
}
