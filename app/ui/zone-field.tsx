/** A time zone, searched by the name of a city; the browser's own by default. */
import { useState } from 'react';
import { useController, type Control, type FieldValues, type Path } from 'react-hook-form';
import { Pressable, View } from 'react-native';
import { HelperText } from 'react-native-paper';
import { usePalette } from './hooks';
import { Input } from './input';
import { Body, Small } from './text';
import { TEXT } from './words';

/** Maximum number of zones offered. */
const OFFERED = 6;

// Older browsers do not list them: what is typed is accepted, and the server validates it.
const ZONES: readonly string[] = 'supportedValuesOf' in Intl ? Intl.supportedValuesOf('timeZone') : [];

const readable = (zone: string) => zone.replace(/_/g, ' ').toLowerCase();

/**
 * Returns zones whose names contain every word that was typed; first those that begin with them.
 *
 * @example zonesLike('new york') // ['America/New_York']
 */
export function zonesLike(written: string): string[] {
  const words = readable(written)
    .split(/[\s/,]+/)
    .filter(Boolean);
  if (!words.length) return [];
  const town = (zone: string) => readable(zone).split('/').pop() ?? '';
  return ZONES.filter((zone) => words.every((w) => readable(zone).includes(w)))
    .sort((a, b) => Number(town(b).startsWith(words[0] ?? '')) - Number(town(a).startsWith(words[0] ?? '')))
    .slice(0, OFFERED);
}

/** Returns the current time in a zone; null if there is no such zone. */
function clockIn(zone: string): string | null {
  try {
    return new Intl.DateTimeFormat('en-US', { timeZone: zone, hour: 'numeric', minute: '2-digit' }).format(new Date());
  } catch {
    return null;
  }
}

export function ZoneField<T extends FieldValues>({ control, name }: { control: Control<T>; name: Path<T> }) {
  const p = usePalette();
  const { field, fieldState } = useController({ control, name });
  const [looking, setLooking] = useState(false);
  const value = String(field.value ?? '');
  const clock = clockIn(value);
  const error = fieldState.error?.message;
  const offered = looking && !clock ? zonesLike(value) : [];
  return (
    <View>
      <Input
        label={TEXT.timeZone}
        testID={`field-${name}`}
        value={value}
        onChangeText={(text) => {
          setLooking(true);
          field.onChange(text);
        }}
        onBlur={field.onBlur}
        error={!!error}
        autoComplete="off"
        aria-invalid={!!error}
      />
      <View role="group" aria-label={TEXT.matchingTimeZones}>
        {offered.map((zone) => (
          <Pressable
            key={zone}
            role="button"
            onPress={() => field.onChange(zone)}
            style={{
              minHeight: 46,
              paddingHorizontal: 14,
              flexDirection: 'row',
              alignItems: 'center',
              justifyContent: 'space-between',
              borderBottomWidth: 1,
              borderColor: p.rule,
            }}
          >
            <Body>{zone.replace(/_/g, ' ')}</Body>
            <Small>{clockIn(zone)}</Small>
          </Pressable>
        ))}
      </View>
      <HelperText type={error ? 'error' : 'info'}>
        {error ?? (clock ? TEXT.itIsThereNowDates(clock) : TEXT.typeTheName)}
      </HelperText>
    </View>
  );
}
