/** One person of a deal: side, name, address, phone, whom they sign for. For adding and correcting. */
import { yupResolver } from '@hookform/resolvers/yup';
import { useForm, useController, useWatch } from 'react-hook-form';
import { partyBody, type PartyBody } from '@gatepath/contract';
import type { Side } from '@gatepath/core/text';
import { Field, showFieldErrors } from '../../ui/field';
import { Button, Trouble } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { SideField } from './side-field';
import { Suggestions } from './suggestions';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

interface Props {
  start: Partial<PartyBody> & { side: Side };
  saveLabel: string;
  onSave: (body: PartyBody) => Promise<unknown>;
  onCancel?: () => void;
  error?: unknown;
}

const NOBODY = { name: '', email: '', phone: '', company: '', capacity: '', personId: null };

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function PartyForm({ start, saveLabel, onSave, onCancel, error }: Props) {
  const { control, handleSubmit, setError, reset, getValues } = useForm({
    resolver: yupResolver(partyBody),
    defaultValues: {
      side: start.side,
      name: start.name ?? '',
      email: start.email ?? '',
      phone: start.phone ?? '',
      company: start.company ?? '',
      capacity: start.capacity ?? '',
      personId: start.personId ?? null,
    },
  });
  const name = useWatch({ control, name: 'name' });
  const picked = useWatch({ control, name: 'personId' });
  const side = useController({ control, name: 'side' });
  const submit = handleSubmit(async (body) => {
    try {
      await onSave({ ...body, phone: body.phone || null });
      reset({ ...NOBODY, side: getValues('side') });
    } catch (e) {
      showFieldErrors(e, setError);
    }
  });
  return (
    <Stack gap={8}>
      <Row gap={8}>
        <Small>{TEXT.side}</Small>
        <SideField value={side.field.value as Side} onChange={side.field.onChange} />
      </Row>
      <Field control={control} name="name" label={TEXT.name} autoComplete="off" />
      {picked ? null : (
        <Suggestions
          name={name}
          onPick={(x) =>
            reset({
              side: getValues('side'),
              name: x.name,
              email: x.email,
              phone: x.phone ?? '',
              company: x.company,
              capacity: '',
              personId: x.id,
            })
          }
        />
      )}
      <Field control={control} name="email" label={TEXT.email} keyboard="email-address" autoComplete="off" />
      <Field control={control} name="phone" label={TEXT.phoneOptional} keyboard="phone-pad" autoComplete="off" />
      <Field control={control} name="company" label={TEXT.signsForACompanyOptional} autoComplete="off" />
      <Field
        control={control}
        name="capacity"
        label={TEXT.inWhatCapacityTrustee}
        autoComplete="off"
        onSubmit={() => void submit()}
      />
      {error ? <Trouble error={error} /> : null}
      <Row gap={8} align="stretch">
        <Button kind="main" onPress={() => void submit()} testID="save-party">
          {saveLabel}
        </Button>
        {onCancel ? <Button onPress={onCancel}>{TEXT.cancel}</Button> : null}
      </Row>
    </Stack>
  );
}
