import { act, renderHook } from '@testing-library/react';
import { useOpenRow } from './open-row';

test('a row stays open as one before it is taken out, and closes with itself', () => {
  const { result } = renderHook(() => useOpenRow());
  const open = () => [0, 1, 2, 3].filter((at) => result.current.isOpen(at));
  act(() => result.current.toggle(2));
  act(() => result.current.removed(3));
  expect(open()).toEqual([2]);
  act(() => result.current.removed(0));
  expect(open()).toEqual([1]);
  act(() => result.current.removed(1));
  expect(open()).toEqual([]);
  act(() => result.current.show(3));
  act(() => result.current.toggle(3));
  expect(open()).toEqual([]);
});
