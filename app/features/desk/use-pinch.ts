/** Zooming the page with two fingers, or Ctrl and the wheel. */
import { useEffect, useRef, type RefObject } from 'react';
import type { View } from 'react-native';
import { elementOf } from '../../ui/web';

const LEAST = 1;
const MOST = 4;

export function usePinch(area: RefObject<View | null>, zoom: number, setZoom: (zoom: number) => void): void {
  const now = useRef({ zoom, setZoom });
  now.current = { zoom, setZoom };
  useEffect(() => {
    const el = elementOf(area);
    if (!el) return;
    const set = (z: number) => now.current.setZoom(Math.round(Math.min(MOST, Math.max(LEAST, z)) * 100) / 100);
    let from: { apart: number; zoom: number } | null = null;
    const apart = (t: TouchList) => Math.hypot(t[0]!.clientX - t[1]!.clientX, t[0]!.clientY - t[1]!.clientY);
    const start = (e: TouchEvent) => {
      from = e.touches.length === 2 ? { apart: apart(e.touches), zoom: now.current.zoom } : null;
    };
    const move = (e: TouchEvent) => {
      if (!from || e.touches.length !== 2) return;
      // The page's own zoom would make everything larger, the bars included.
      e.preventDefault();
      set((from.zoom * apart(e.touches)) / Math.max(1, from.apart));
    };
    const end = () => {
      from = null;
    };
    const wheel = (e: WheelEvent) => {
      if (!e.ctrlKey) return;
      e.preventDefault();
      set(now.current.zoom * Math.exp(-e.deltaY / 300));
    };
    el.addEventListener('touchstart', start, { passive: true });
    el.addEventListener('touchmove', move, { passive: false });
    el.addEventListener('touchend', end);
    el.addEventListener('touchcancel', end);
    el.addEventListener('wheel', wheel, { passive: false });
    return () => {
      el.removeEventListener('touchstart', start);
      el.removeEventListener('touchmove', move);
      el.removeEventListener('touchend', end);
      el.removeEventListener('touchcancel', end);
      el.removeEventListener('wheel', wheel);
    };
  }, [area]);
}
