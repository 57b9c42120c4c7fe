/** What lies over the desk: dialogs and sheets. They are drawn elsewhere, so the desk goes along. */
import type { ReactNode } from 'react';
import { Portal } from 'react-native-paper';
import { DeskContext, useDeskStore } from './use-desk';

export function DeskPortal({ children }: { children: ReactNode }) {
  const desk = useDeskStore();
  return (
    <Portal>
      <DeskContext.Provider value={desk}>{children}</DeskContext.Provider>
    </Portal>
  );
}
