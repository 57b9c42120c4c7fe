import { yupResolver } from '@hookform/resolvers/yup';
import { router } from 'expo-router';
import { useController, useForm } from 'react-hook-form';
import { dealBody, type DealBody } from '@gatepath/contract';
import { DEAL_KINDS, FOR_WHOM_OF, KIND_WORDS, type DealKind, type ForWhom } from '@gatepath/core/deal';
import { itemAt } from '@gatepath/core/sure';
import { useNewDeal } from '../../api/hooks';
import { Field, showFieldErrors } from '../../ui/field';
import { ActError, Button, Card, Choice, IconButton, Page } from '../../ui/pieces';
import { Heading, Small, Title } from '../../ui/text';
import { ContractCard } from '../incoming/contract-drop';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

const START: DealBody = { kind: 'listing', forWhom: 'seller', address: '', city: '', parties: [] };

export function NewDeal() {
  const create = useNewDeal();
  const { control, handleSubmit, setError } = useForm({
    resolver: yupResolver(dealBody),
    defaultValues: START,
  });
  const kind = useController({ control, name: 'kind' });
  const forWhom = useController({ control, name: 'forWhom' });
  const sides = FOR_WHOM_OF[kind.field.value as DealKind];
  const submit = handleSubmit((body) =>
    create.mutate(body, {
      onSuccess: (deal) => router.replace(`/deals/${deal.id}`),
      onError: (e) => showFieldErrors(e, setError),
    }),
  );
  return (
    <Page max={520}>
      <Row gap={4}>
        <IconButton name="arrow-left" label={TEXT.backToTheDeals} onPress={() => router.navigate('/deals')} />
        <Title>{TEXT.newDeal}</Title>
      </Row>
      <ContractCard />
      <Card gap={12}>
        <Heading>{TEXT.orTypeItIn}</Heading>
        <Small>{TEXT.whatKindOfDeal}</Small>
        <Choice
          label={TEXT.kindOfDeal}
          value={kind.field.value as DealKind}
          options={DEAL_KINDS.map((k) => ({ value: k, label: KIND_WORDS[k] }))}
          onChange={(k) => {
            kind.field.onChange(k);
            if (!FOR_WHOM_OF[k].includes(forWhom.field.value as ForWhom))
              forWhom.field.onChange(itemAt(FOR_WHOM_OF[k], 0));
          }}
        />
        <Small>{TEXT.forWhomDoYouAct}</Small>
        <Choice
          label={TEXT.forWhomYouAct}
          value={forWhom.field.value as ForWhom}
          wrap
          options={sides.map((value) => ({ value, label: value === 'both' ? TEXT.bothSides : TEXT.the(value) }))}
          onChange={forWhom.field.onChange}
        />
        <Field control={control} name="address" label={TEXT.streetAddress} autoComplete="off" />
        <Field control={control} name="city" label={TEXT.town} autoComplete="off" onSubmit={() => void submit()} />
        <ActError of={create} />
        <Button onPress={() => void submit()} busy={create.isPending} testID="open-deal">
          {TEXT.openTheDeal}
        </Button>
      </Card>
    </Page>
  );
}
