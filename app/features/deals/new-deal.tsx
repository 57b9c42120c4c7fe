import { yupResolver } from '@hookform/resolvers/yup';
import { router } from 'expo-router';
import { useController, useForm } from 'react-hook-form';
import { View } from 'react-native';
import { dealBody, type DealBody } from '@gatepath/contract';
import { DEAL_KINDS, FOR_WHOM_OF, KIND_WORDS, type DealKind, type ForWhom } from '@gatepath/core/deal';
import { itemAt } from '@gatepath/core/sure';
import { useNewDeal } from '../../api/hooks';
import { Field, showFieldErrors } from '../../ui/field';
import { Button, Card, Choice, IconButton, Page, Trouble } from '../../ui/pieces';
import { Small, Title } from '../../ui/text';

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
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <IconButton name="arrow-left" label="Back to the deals" onPress={() => router.navigate('/deals')} />
        <Title>New deal</Title>
      </View>
      <Card style={{ gap: 14 }}>
        <Small>What kind of deal is it?</Small>
        <Choice
          label="Kind of deal"
          value={kind.field.value as DealKind}
          options={DEAL_KINDS.map((k) => ({ value: k, label: KIND_WORDS[k] }))}
          onChange={(k) => {
            kind.field.onChange(k);
            if (!FOR_WHOM_OF[k].includes(forWhom.field.value as ForWhom))
              forWhom.field.onChange(itemAt(FOR_WHOM_OF[k], 0));
          }}
        />
        <Small>For whom do you act?</Small>
        <Choice
          label="For whom you act"
          value={forWhom.field.value as ForWhom}
          wrap
          options={sides.map((value) => ({ value, label: value === 'both' ? 'Both sides' : `The ${value}` }))}
          onChange={forWhom.field.onChange}
        />
        <Field control={control} name="address" label="Street address" autoComplete="off" />
        <Field control={control} name="city" label="Town" autoComplete="off" onSubmit={() => void submit()} />
        {create.isError ? <Trouble error={create.error} /> : null}
        <Button kind="main" onPress={() => void submit()} busy={create.isPending} testID="open-deal">
          Open the deal
        </Button>
      </Card>
    </Page>
  );
}
