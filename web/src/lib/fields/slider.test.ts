import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { direction, drag, steps, type Dragged } from './slider';

const key = (name: string) =>
  ({ key: name, preventDefault: vi.fn(), stopPropagation: vi.fn() }) as unknown as KeyboardEvent;

describe('arrow keys', () => {
  it('take steps along one line, and are spent', () => {
    const up = key('ArrowUp');
    expect([steps(up), steps(key('ArrowLeft')), steps(key('PageDown'), 7)]).toEqual([1, -1, -7]);
    expect(up.preventDefault).toHaveBeenCalledOnce();
    const other = key('Enter');
    expect(steps(other)).toBeUndefined();
    expect(other.preventDefault).not.toHaveBeenCalled();
  });

  it('lead somewhere on a plane', () => {
    expect(direction(key('ArrowDown'))).toEqual({ x: 0, y: -1 });
    expect(direction(key('a'))).toBeUndefined();
  });
});

describe('a drag', () => {
  let listeners: Record<string, (event: PointerEvent) => void> = {};
  beforeEach(() => {
    vi.stubGlobal('window', {
      addEventListener: (name: string, to: (event: PointerEvent) => void) => (listeners[name] = to),
      removeEventListener: (name: string) => delete listeners[name],
    });
  });
  afterEach(() => {
    listeners = {};
    vi.unstubAllGlobals();
  });
  const at = (clientX: number, clientY: number) => ({ clientX, clientY }) as PointerEvent;

  it('is followed until it is let go', () => {
    const seen: Dragged[] = [];
    const ended = vi.fn();
    drag(at(10, 10), (dragged) => seen.push(dragged), ended);
    listeners.pointermove!(at(15, 4));
    expect(seen.map(({ dx, dy }) => [dx, dy])).toEqual([[5, 6]]);
    listeners.pointerup!(at(15, 4));
    expect(ended.mock.calls[0]![0]).toBe(true);
    expect(listeners).toEqual({});
  });

  it('that goes nowhere is a tap', () => {
    const moved = vi.fn();
    const ended = vi.fn();
    drag(at(0, 0), moved, ended, 5);
    listeners.pointermove!(at(2, 2));
    listeners.pointerup!(at(2, 2));
    expect(moved).not.toHaveBeenCalled();
    expect(ended.mock.calls[0]![0]).toBe(false);
  });
});
