/** Choosing one file with the browser's own picker, opened by any control. */
import { useRef, type ReactElement } from 'react';

/**
 * Opens the file dialog of the browser from any button.
 *
 * @returns the hidden field, to be rendered anywhere, and the function that opens it
 */
export function useFilePick(o: {
  accept: string;
  /** For screen readers. */
  label: string;
  testID: string;
  onFile: (file: File) => void;
}): { field: ReactElement; open: () => void } {
  const input = useRef<HTMLInputElement>(null);
  const field = (
    <input
      ref={input}
      type="file"
      accept={o.accept}
      aria-label={o.label}
      data-testid={o.testID}
      style={{ display: 'none' }}
      onChange={(e) => {
        const file = e.target.files?.[0];
        if (file) o.onFile(file);
        // Choosing the same file again counts too.
        e.target.value = '';
      }}
    />
  );
  return { field, open: () => input.current?.click() };
}
