import { View } from 'react-native';
import { GatePost } from './gate';
import { Body } from './text';
import { FONT } from './theme';
import { TEXT } from './words';
import { Row } from './layout';

/** The product's name beside an open gate. */
export function Brand() {
  return (
    <Row gap={8}>
      <View aria-hidden>
        <GatePost state="passed" n={1} size={28} />
      </View>
      <Body style={{ fontFamily: FONT.heading, fontSize: 20 }}>{TEXT.gatePath}</Body>
    </Row>
  );
}
