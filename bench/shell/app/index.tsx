import { useState } from 'react';
import { useMutation, useQuery } from '@tanstack/react-query';
import { ScrollView } from 'react-native';
import { Button, Card, Checkbox, Dialog, Portal, Text, TextInput } from 'react-native-paper';

const ask = async (init?: RequestInit) => (await fetch('/answer', init)).text();

/** One page that asks the server something, shows it, and sends something back. */
export default function Index() {
  const answer = useQuery({ queryKey: ['answer'], queryFn: () => ask() });
  const send = useMutation({ mutationFn: (body: string) => ask({ method: 'POST', body }) });
  const [text, setText] = useState('');
  const [sure, setSure] = useState(false);
  return (
    <ScrollView>
      <Card>
        <Card.Content>
          <Text testID="answer">{answer.data}</Text>
          <TextInput label="Text" value={text} onChangeText={setText} />
          <Checkbox.Item label="Sure" status={sure ? 'checked' : 'unchecked'} onPress={() => setSure(!sure)} />
          <Button onPress={() => send.mutate(text)}>Send</Button>
        </Card.Content>
      </Card>
      <Portal>
        <Dialog visible={send.isError}>
          <Dialog.Content>
            <Text>{String(send.error)}</Text>
          </Dialog.Content>
        </Dialog>
      </Portal>
    </ScrollView>
  );
}
