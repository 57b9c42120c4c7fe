/** Looking for a time zone by a town. */
import { yupResolver } from '@hookform/resolvers/yup';
import { setupBody, type SetupBody } from '@gatepath/contract';
import { fireEvent, screen } from '@testing-library/react';
import { useForm } from 'react-hook-form';
import { Text } from 'react-native';
import { show } from '../test/office';
import { ZoneField, zonesLike } from './zone-field';

test('a town finds its zone, in whatever case, also by the part of the world', () => {
  expect(zonesLike('new york')[0]).toBe('America/New_York');
  expect(zonesLike('america chicago')).toEqual(['America/Chicago']);
  expect(zonesLike('Los_Ang')).toEqual(['America/Los_Angeles']);
  // The town that begins so comes before one that only has it somewhere.
  expect(zonesLike('lon')[0]).toMatch(/London|Longyearbyen/);
  expect([zonesLike(''), zonesLike('nowhere at all'), zonesLike('[a-z]+')]).toEqual([[], [], []]);
  expect(zonesLike('a').length).toBe(6);
});

function Form() {
  const { control, watch } = useForm<SetupBody>({
    resolver: yupResolver(setupBody),
    defaultValues: { firmName: '', timeZone: 'UTC', name: '', email: '', password: '' },
  });
  return (
    <>
      <ZoneField control={control} name="timeZone" />
      <Text>{`chosen ${watch('timeZone')}`}</Text>
    </>
  );
}

test('what is offered is taken with a touch, and the clock there is told', () => {
  show(<Form />, () => null);
  screen.getByText(/there now/);
  fireEvent.change(screen.getByTestId('field-timeZone'), { target: { value: 'denver' } });
  screen.getByText('Type the name of a large city near you.');
  fireEvent.click(screen.getByText('America/Denver'));
  screen.getByText('chosen America/Denver');
  expect(screen.queryByRole('button')).toBeNull();
});
