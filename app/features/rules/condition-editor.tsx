/** A condition over facts, edited part by part; problems are shown below the part they are in. */
import {
  COMPARES,
  compareWords,
  isOrdered,
  type Compare,
  type Comparison,
  type Condition,
  type FactDef,
  type FactValue,
} from '@gatepath/core/deal';
import { usePalette } from '../../ui/hooks';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, IconButton } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { FactField } from '../facts/fact-field';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

interface Fault {
  at: string;
  words: string;
}

interface Props {
  condition: Condition;
  facts: FactDef[];
  faults: Fault[];
  /** Its position in the whole condition: "0.1"; empty for the whole. */
  at?: string;
  onChange: (condition: Condition) => void;
  /** Takes it away. */
  onDrop: () => void;
}

/** Maximum depth at which parts are added; deeper ones are shown. */
const DEEPEST = 3;

const GROUPS = {
  all: TEXT.allOfTheseHold,
  any: TEXT.atLeastOneOfThese,
  not: TEXT.thisDoesNotHold,
} as const;
type Group = keyof typeof GROUPS;

const groupOf = (c: Condition): Group | null => ('all' in c ? 'all' : 'any' in c ? 'any' : 'not' in c ? 'not' : null);
const partsOf = (c: Condition): Condition[] => ('all' in c ? c.all : 'any' in c ? c.any : 'not' in c ? [c.not] : []);

function withParts(group: Group, parts: Condition[]): Condition {
  if (group === 'all') return { all: parts };
  if (group === 'any') return { any: parts };
  const [first] = parts;
  return { not: parts.length === 1 && first ? first : { all: parts } };
}

export function ConditionEditor(props: Props) {
  return groupOf(props.condition) ? (
    <GroupEditor {...props} />
  ) : (
    <FactRow {...props} condition={props.condition as Comparison} />
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function GroupEditor({ condition, facts, faults, at = '', onChange, onDrop }: Props) {
  const p = usePalette();
  const group = groupOf(condition) ?? 'all';
  const parts = partsOf(condition);
  const depth = at ? at.split('.').length : 0;
  const put = (i: number, part: Condition) =>
    onChange(
      withParts(
        group,
        parts.map((x, n) => (n === i ? part : x)),
      ),
    );
  const drop = (i: number) => {
    const left = parts.filter((_, n) => n !== i);
    if (left.length || group === 'not') return left.length ? onChange(withParts(group, left)) : onDrop();
    onDrop();
  };
  const add = (part: Condition) => onChange(withParts(group, [...parts, part]));
  return (
    <Stack
      role="group"
      aria-label={GROUPS[group]}
      testID={`group-${at || 'top'}`}
      gap={8}
      style={{ borderLeftWidth: 3, borderColor: p.rule, paddingLeft: 12 }}
    >
      <Row gap={8}>
        <DropMenu
          anchor={(open) => (
            <Button kind="quiet" icon="chevron-down" onPress={open} label={TEXT.change(GROUPS[group])}>
              {GROUPS[group]}
            </Button>
          )}
        >
          {(['all', 'any', 'not'] as const).map((g) => (
            <MenuItem
              key={g}
              title={GROUPS[g]}
              testID={`group-kind-${g}`}
              onPress={() => onChange(withParts(g, parts))}
            />
          ))}
        </DropMenu>
        <Stack grow />
        <IconButton name="close" label={TEXT.remove(GROUPS[group])} onPress={onDrop} />
      </Row>
      <Faults at={at} faults={faults} />
      {parts.map((part, i) => (
        <ConditionEditor
          key={i}
          condition={part}
          facts={facts}
          faults={faults}
          at={at ? `${at}.${i}` : String(i)}
          onChange={(c) => put(i, c)}
          onDrop={() => drop(i)}
        />
      ))}
      {group === 'not' ? null : (
        <Row gap={8} align="stretch" wrap>
          <FactMenu
            facts={facts}
            words={TEXT.addAFact}
            testID={`add-fact-${at || 'top'}`}
            onPick={(def) => add(startOf(def))}
          />
          {depth < DEEPEST ? (
            <DropMenu
              anchor={(open) => (
                <Button kind="quiet" icon="plus" onPress={open}>
                  {TEXT.addAGroup}
                </Button>
              )}
            >
              {(['all', 'any', 'not'] as const).map((g) => (
                <MenuItem
                  key={g}
                  title={GROUPS[g]}
                  onPress={() => facts[0] && add(withParts(g, [startOf(facts[0])]))}
                />
              ))}
            </DropMenu>
          ) : null}
        </Row>
      )}
    </Stack>
  );
}

/** Returns the first version of a comparison with a fact. */
export function startOf(def: FactDef): Comparison {
  if (def.type === 'flag') return { fact: def.key, compare: 'is', value: true };
  if (def.type === 'choice') return { fact: def.key, compare: 'is', value: def.options?.[0]?.value ?? '' };
  return { fact: def.key, compare: isOrdered(def) ? 'before' : 'is' };
}

export function FactMenu({
  facts,
  words,
  testID,
  onPick,
}: {
  facts: FactDef[];
  words: string;
  testID?: string;
  onPick: (def: FactDef) => void;
}) {
  return (
    <DropMenu
      anchor={(open) => (
        <Button icon="chevron-down" onPress={open} testID={testID}>
          {words}
        </Button>
      )}
    >
      {facts.map((f) => (
        <MenuItem key={f.key} title={f.label} testID={`pick-${f.key}`} onPress={() => onPick(f)} />
      ))}
    </DropMenu>
  );
}

function FactRow({
  condition: c,
  facts,
  faults,
  at = '',
  onChange,
  onDrop,
}: Omit<Props, 'condition'> & { condition: Comparison }) {
  const def = facts.find((f) => f.key === c.fact);
  const compares = COMPARES.filter((x) => def && (isOrdered(def) || (x !== 'before' && x !== 'at_least')));
  const withCompare = (compare: Compare): Comparison => {
    if (compare === 'unknown') return { fact: c.fact, compare };
    return { fact: c.fact, compare, ...(c.value === undefined ? {} : { value: c.value }) };
  };
  const withValue = (value: FactValue | null): Comparison => ({
    fact: c.fact,
    compare: c.compare,
    ...(value === null ? {} : { value }),
  });
  return (
    <Stack testID={`part-${at || 'top'}`} gap={8}>
      <Row gap={8} wrap>
        <FactMenu facts={facts} words={def?.label ?? TEXT.chooseAFact} onPick={(d) => onChange(startOf(d))} />
        {def ? (
          <DropMenu
            anchor={(open) => (
              <Button icon="chevron-down" onPress={open} label={TEXT.changeOf(def.label, compareWords(c.compare, def))}>
                {compareWords(c.compare, def)}
              </Button>
            )}
          >
            {compares.map((x) => (
              <MenuItem
                key={x}
                title={compareWords(x, def)}
                testID={`compare-${x}`}
                onPress={() => onChange(withCompare(x))}
              />
            ))}
          </DropMenu>
        ) : null}
        <Stack grow />
        <IconButton name="close" label={TEXT.removeOf(def?.label ?? TEXT.thisPart)} onPress={onDrop} />
      </Row>
      {def && c.compare !== 'unknown' ? (
        <FactField
          key={`${c.fact} ${c.compare}`}
          def={{ ...def, label: `${def.label} ${compareWords(c.compare, def)}` }}
          value={c.value ?? null}
          onChange={(w) => onChange(withValue('value' in w ? w.value : null))}
        />
      ) : null}
      <Faults at={at} faults={faults} />
    </Stack>
  );
}

function Faults({ at, faults }: { at: string; faults: Fault[] }) {
  return (
    <>
      {faults
        .filter((f) => f.at === at)
        .map((f) => (
          <Small key={f.words} testID="fault" tone="stop">
            {f.words}
          </Small>
        ))}
    </>
  );
}
