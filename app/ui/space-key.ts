/** The space bar on boxes and switches: they answer it as the browser's own would. */
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
