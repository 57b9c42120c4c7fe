/** Makes the space bar work on boxes and switches as on the browser's own. */
import { useEffect } from 'react';

const ROLES = ['checkbox', 'switch'];

export function useSpaceKey(): void {
  useEffect(() => {
    if (typeof document === 'undefined') return;
    const press = (e: KeyboardEvent) => {
      const el = e.target;
      if (e.key !== ' ' || e.repeat || !(el instanceof HTMLElement) || !ROLES.includes(el.getAttribute('role') ?? ''))
        return;
      // Otherwise the page would scroll.
      e.preventDefault();
      el.click();
    };
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  }, []);
}
