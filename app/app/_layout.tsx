import { Suspense, useState } from 'react';
import { useColorScheme } from 'react-native';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { PaperProvider } from 'react-native-paper';
import { SafeAreaProvider } from 'react-native-safe-area-context';
import { ApiError } from '../api/client';
import AtkinsonHyperlegible_400Regular from '../assets/fonts/AtkinsonHyperlegible_400Regular.woff2';
import AtkinsonHyperlegible_700Bold from '../assets/fonts/AtkinsonHyperlegible_700Bold.woff2';
import BricolageGrotesque_700Bold from '../assets/fonts/BricolageGrotesque_700Bold.woff2';
import { Boundary } from '../ui/boundary';
import { paperIcon } from '../ui/icon';
import { useSpaceKey } from '../ui/space-key';
import { makeTheme } from '../ui/theme';

export default function Root() {
  // Text shows in a system face until ours are loaded.
  useFonts({ AtkinsonHyperlegible_400Regular, AtkinsonHyperlegible_700Bold, BricolageGrotesque_700Bold });
  useSpaceKey();
  const dark = useColorScheme() === 'dark';
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: {
            staleTime: 5_000,
            // What the server refused it will refuse again; a lost connection may come back.
            retry: (n, error) => n < 3 && error instanceof ApiError && error.status === 0,
          },
        },
      }),
  );
  return (
    <SafeAreaProvider>
      <QueryClientProvider client={client}>
        <PaperProvider theme={makeTheme(dark)} settings={{ icon: paperIcon }}>
          <Boundary>
            <Suspense>
              <Slot />
            </Suspense>
          </Boundary>
        </PaperProvider>
      </QueryClientProvider>
    </SafeAreaProvider>
  );
}
