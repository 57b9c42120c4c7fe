import { yupResolver } from '@hookform/resolvers/yup';
import { router } from 'expo-router';
import { useController, useForm } from 'react-hook-form';
import { View } from 'react-native';
import { DEAL_KINDS, dealBody, type DealBody } from '@gatepath/contract';
import { useNewDeal } from '../../api/hooks';
import { Field, showFieldErrors } from '../../ui/field';
import { Button, Card, Choice, IconButton, Page, Trouble } from '../../ui/pieces';
import { Small, Title } from '../../ui/text';

const LABELS = { listing: 'Listing', sale: 'Sale', tenancy: 'Tenancy' } as const;

export function NewDeal() {
  const create = useNewDeal();
  const { control, handleSubmit, setError } = useForm({
    resolver: yupResolver(dealBody),
    defaultValues: { kind: 'listing' as const, address: '', city: '', parties: [] },
  });
  const kind = useController({ control, name: 'kind' });
  const submit = handleSubmit((body) =>
    create.mutate(body as DealBody, {
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
          value={kind.field.value as (typeof DEAL_KINDS)[number]}
          options={DEAL_KINDS.map((k) => ({ value: k, label: LABELS[k] }))}
          onChange={kind.field.onChange}
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
