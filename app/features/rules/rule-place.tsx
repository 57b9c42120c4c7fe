/** The editor of a rule; beside it, in which of the firm's open deals it would require something. */
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { RuleBody, RuleTrial } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import {
  DATE_PHRASES,
  DATES_OF,
  DEAL_KINDS,
  factsByKey,
  KEY_DATES,
  KIND_WORDS,
  termWords,
  type Condition,
  type FactDef,
  type Rule,
  type Term,
} from '@gatepath/core/deal';
import { DOCUMENT_TYPES, TYPE_WORDS } from '@gatepath/core/reading';
import { count, SIDE_WORDS, SIDES, type Side } from '@gatepath/core/text';
import { useRuleActions, useRules, useTrial } from '../../api/deal-hooks';
import { useSettled, useWide } from '../../ui/hooks';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { NotReady, isReady } from '../../ui/not-ready';
import { ActError, Button, Card, Choice, IconButton, Note, Page, Trouble } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { ConditionEditor, FactMenu, startOf } from './condition-editor';
import { TEXT } from './words';
import { Actions, Columns, Row, Ruled, Stack } from '../../ui/layout';

const EMPTY: RuleBody = {
  kinds: ['listing', 'sale'],
  when: null,
  paper: 'disclosure',
  title: '',
  signers: ['seller'],
  due: null,
  reason: '',
  on: true,
};

export function RulePlace() {
  const { ruleId } = useLocalSearchParams<{ ruleId: string }>();
  const rules = useRules();
  if (!isReady(rules)) return <NotReady query={rules} what={TEXT.theRule} />;
  const rule = rules.data.rules.find((r) => r.id === ruleId) ?? null;
  if (!rule && ruleId !== 'new')
    return (
      <Page>
        <Title>{TEXT.thisRuleIsGone}</Title>
        <Body>{TEXT.someoneHasDeleted}</Body>
        <Button onPress={() => router.replace('/rules')} fit>
          {TEXT.seeTheRules}
        </Button>
      </Page>
    );
  return <RuleEditor key={ruleId} rule={rule} ownFacts={rules.data.ownFacts} />;
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function RuleEditor({ rule, ownFacts }: { rule: Rule | null; ownFacts: FactDef[] }) {
  const wide = useWide();
  const [body, setBody] = useState<RuleBody>(() => (rule ? bodyOf(rule) : EMPTY));
  const { save, drop } = useRuleActions();
  const settled = useSettled(body, 400);
  const trial = useTrial(settled);
  const faults = trial.data?.faults ?? [];
  const set = (change: Partial<RuleBody>) => setBody((b) => ({ ...b, ...change }));
  const back = () => router.replace('/rules');
  const ready = faults.length === 0 && body.title.trim() !== '' && body.reason.trim() !== '';
  return (
    <Page max={wide ? 1080 : 760}>
      <Row gap={4}>
        <IconButton name="arrow-left" label={TEXT.backToTheRules} onPress={back} />
        <Title>{rule ? rule.title : TEXT.newRule}</Title>
      </Row>
      {rule?.sample ? (
        <Note tone="warn" title={TEXT.thisRuleCameAs}>
          {TEXT.itIsNotLegalAdvice}
        </Note>
      ) : null}
      <Columns wide={wide}>
        <Stack gap={16} style={{ flex: wide ? 3 : undefined }}>
          <Card gap={12}>
            <Asks body={body} faults={faults} set={set} />
          </Card>
          <Card gap={12}>
            <When body={body} ownFacts={ownFacts} faults={faults} set={set} />
          </Card>
          <Card gap={12}>
            <Due body={body} faults={faults} set={set} />
          </Card>
        </Stack>
        <Stack gap={16} style={{ flex: wide ? 2 : undefined }}>
          <TrialCard trial={trial.data} />
          {trial.isError ? <Trouble error={trial.error} retry={() => void trial.refetch()} /> : null}
          <ActError of={save} />
          <ActError of={drop} />
          <Actions>
            <Button
              kind="main"
              disabled={!ready}
              busy={save.isPending}
              onPress={() => save.mutate({ id: rule?.id ?? null, body }, { onSuccess: back })}
              testID="save-rule"
            >
              {TEXT.saveRule}
            </Button>
            <Button onPress={back}>{TEXT.cancel}</Button>
            {rule ? (
              <Button
                kind="quiet"
                icon="trash"
                busy={drop.isPending}
                onPress={() => drop.mutate(rule.id, { onSuccess: back })}
                testID="drop-rule"
              >
                {TEXT.deleteRule}
              </Button>
            ) : null}
          </Actions>
        </Stack>
      </Columns>
    </Page>
  );
}

const bodyOf = ({ kinds, when, paper, title, signers, due, reason, on }: Rule): RuleBody => ({
  kinds,
  when,
  paper,
  title,
  signers,
  due,
  reason,
  on,
});

interface PartProps {
  body: RuleBody;
  faults: RuleTrial['faults'];
  set: (change: Partial<RuleBody>) => void;
}

function Faults({ of, faults }: { of: RuleTrial['faults'][number]['part']; faults: RuleTrial['faults'] }) {
  return (
    <>
      {faults
        .filter((f) => f.part === of)
        .map((f) => (
          <Small key={f.words} testID="fault" tone="stop">
            {f.words}
          </Small>
        ))}
    </>
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function Asks({ body, faults, set }: PartProps) {
  const toggle = <T,>(list: readonly T[], one: T, on: boolean) => (on ? [...list, one] : list.filter((x) => x !== one));
  return (
    <>
      <Heading>{TEXT.whatItAsks}</Heading>
      <Stack gap={4}>
        <Small>{TEXT.typeOfPaper}</Small>
        <DropMenu
          anchor={(open) => (
            <Button
              icon="chevron-down"
              onPress={open}
              label={TEXT.typeOfPaperChange(TYPE_WORDS[body.paper])}
              fit
              testID="rule-paper"
            >
              {TYPE_WORDS[body.paper]}
            </Button>
          )}
        >
          {DOCUMENT_TYPES.map((paper) => (
            <MenuItem
              key={paper}
              title={TYPE_WORDS[paper]}
              testID={`paper-${paper}`}
              onPress={() => set({ paper, ...(body.title.trim() ? {} : { title: TYPE_WORDS[paper] }) })}
            />
          ))}
        </DropMenu>
        <Faults of="paper" faults={faults} />
      </Stack>
      <Input
        label={TEXT.whatThePaperIsCalled}
        value={body.title}
        maxLength={120}
        onChangeText={(title) => set({ title })}
        testID="rule-title"
      />
      <Input
        label={TEXT.whyInAFewWords}
        value={body.reason}
        maxLength={200}
        onChangeText={(reason) => set({ reason })}
        placeholder={TEXT.builtBefore}
        testID="rule-reason"
      />
      <View>
        <Small>{TEXT.inWhichDeals}</Small>
        {DEAL_KINDS.map((k) => (
          <Switch
            key={k}
            label={`${KIND_WORDS[k]}s`.replace('ys', 'ies')}
            on={body.kinds.includes(k)}
            onChange={(on) => set({ kinds: toggle(body.kinds, k, on) })}
            testID={`rule-kind-${k}`}
          />
        ))}
        <Faults of="kinds" faults={faults} />
      </View>
      <View>
        <Small>{body.signers.length ? TEXT.whoSigns : TEXT.whoSignsItNoOne}</Small>
        <Row align="stretch" wrap>
          {SIDES.filter((s) => s !== 'other').map((s: Side) => (
            <View key={s} style={{ width: '50%' }}>
              <Switch
                label={SIDE_WORDS[s]}
                on={body.signers.includes(s)}
                onChange={(on) => set({ signers: toggle(body.signers, s, on) })}
                testID={`rule-signer-${s}`}
              />
            </View>
          ))}
        </Row>
      </View>
    </>
  );
}

function When({ body, ownFacts, faults, set }: PartProps & { ownFacts: FactDef[] }) {
  const facts = [...factsByKey(ownFacts).values()].filter((f) => f.kinds.some((k) => body.kinds.includes(k)));
  const when = (body.when ?? null) as Condition | null;
  return (
    <>
      <Heading>{TEXT.when}</Heading>
      {when ? (
        <ConditionEditor
          condition={when}
          facts={facts}
          faults={faults.filter((f) => f.part === 'when')}
          onChange={(c) => set({ when: c })}
          onDrop={() => set({ when: null })}
        />
      ) : (
        <>
          <Body>{TEXT.alwaysInEveryDeal}</Body>
          <View style={{ alignSelf: 'flex-start' }}>
            <FactMenu
              facts={facts}
              words={TEXT.onlyWhen}
              testID="add-condition"
              onPick={(def) => set({ when: { all: [startOf(def)] } })}
            />
          </View>
        </>
      )}
    </>
  );
}

const START: Term = { n: 3, unit: 'business_days', way: 'after', roll: true, from: 'accepted' };

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function Due({ body, faults, set }: PartProps) {
  const due = (body.due ?? null) as Term | null;
  const dates = KEY_DATES.filter((d) => body.kinds.every((k) => DATES_OF[k].includes(d)));
  const put = (change: Partial<Term>) => due && set({ due: { ...due, ...change } });
  return (
    <>
      <Heading>{TEXT.byWhen}</Heading>
      {due ? (
        <>
          <Strong>{TEXT.due(termWords(due))}</Strong>
          <Input
            label={TEXT.howManyDays}
            value={String(due.n)}
            inputMode="numeric"
            maxLength={4}
            onChangeText={(t) => /^\d{0,4}$/.test(t) && put({ n: Number(t) })}
            testID="rule-days"
          />
          <Choice
            label={TEXT.howTheDaysAreCounted}
            value={due.unit}
            wrap
            options={[
              { value: 'business_days', label: TEXT.businessDays },
              { value: 'days', label: TEXT.calendarDays },
            ]}
            onChange={(unit) => put({ unit })}
          />
          <Choice
            label={TEXT.beforeOrAfter}
            value={due.way}
            options={[
              { value: 'after', label: TEXT.after },
              { value: 'before', label: TEXT.before },
            ]}
            onChange={(way) => put({ way })}
          />
          <DropMenu
            anchor={(open) => (
              <Button icon="chevron-down" onPress={open} fit testID="rule-from">
                {DATE_PHRASES[due.from]}
              </Button>
            )}
          >
            {dates.map((d) => (
              <MenuItem key={d} title={DATE_PHRASES[d]} testID={`from-${d}`} onPress={() => put({ from: d })} />
            ))}
          </DropMenu>
          <Switch
            label={TEXT.neverOnAWeekend}
            hint={due.way === 'after' ? TEXT.suchADayMoves : TEXT.suchADayMovesBack}
            on={due.roll}
            onChange={(roll) => put({ roll })}
          />
          <Faults of="due" faults={faults} />
          <Button kind="quiet" onPress={() => set({ due: null })} fit>
            {TEXT.noDueDate}
          </Button>
        </>
      ) : (
        <>
          <Body>{TEXT.itHasNoDueDate}</Body>
          <Button
            onPress={() => set({ due: { ...START, from: dates[0] ?? 'accepted' } })}
            fit
            disabled={!dates.length}
            testID="add-due"
          >
            {TEXT.setADueDate}
          </Button>
        </>
      )}
    </>
  );
}

/** In which of the firm's open deals the rule would require something. */
function TrialCard({ trial }: { trial: RuleTrial | undefined }) {
  if (!trial) return null;
  const wrong = trial.faults.some((f) => ['kinds', 'when', 'due'].includes(f.part));
  return (
    <Card testID="trial">
      <Heading>{TEXT.inYourOpenDeals}</Heading>
      {wrong ? (
        <Small>{TEXT.fixWhatIsMarked}</Small>
      ) : (
        <>
          <Body>
            {trial.of
              ? TEXT.itWouldRequireThePaper(trial.asks, count(trial.of, TEXT.openDeal))
              : TEXT.thereIsNoOpenDeal}
          </Body>
          {trial.unknown ? <Small tone="warn">{TEXT.inAFactItDepends(trial.unknown)}</Small> : null}
          {trial.deals.map((d) => (
            <Ruled key={d.id}>
              <Body>{d.address}</Body>
              <Small>
                {d.hangsOn.length
                  ? TEXT.notKnown(d.hangsOn.join(', '))
                  : d.due
                    ? TEXT.dueOf(shortDay(d.due))
                    : TEXT.noDayYet}
              </Small>
            </Ruled>
          ))}
        </>
      )}
    </Card>
  );
}
