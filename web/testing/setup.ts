import { cleanup, configure } from '@testing-library/react';
import { afterEach, vi } from 'vitest';
import { tellHouseZone } from '@/ui/format';
import { navigation } from './navigation';

// Next gives the router by context; the tests look at where it was sent.
vi.mock('next/navigation', async () => {
  const { navigation: own } = await import('./navigation');
  return {
    useRouter: () => own.router,
    usePathname: () => own.path,
    useSearchParams: () => new URLSearchParams(own.query),
  };
});

// A guard against hanging, not a measure of speed: two cores may be busy with other tests.
configure({ asyncUtilTimeout: 20_000 });

// jsdom works a style out of all rules of the page, for each element that is looked at: half of the time these tests
// took. What stands on the element itself is all that they ask for.
const computed = window.getComputedStyle.bind(window);
vi.stubGlobal('getComputedStyle', (element: Element, pseudo?: string | null): CSSStyleDeclaration => {
  if (!(element instanceof HTMLElement || element instanceof SVGElement)) return computed(element, pseudo);
  const { style } = element;
  return new Proxy(style, {
    get(own, name) {
      if (name === 'getPropertyValue') return (property: string) => own.getPropertyValue(property);
      if (name === 'display') return own.display || (element.hasAttribute('hidden') ? 'none' : 'block');
      if (name === 'visibility') return own.visibility || 'visible';
      const value: unknown = Reflect.get(own, name, own);
      return typeof value === 'function' ? (value.bind(own) as unknown) : value;
    },
  });
});

// What jsdom lacks of a browser.
class Observer {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
vi.stubGlobal('ResizeObserver', Observer);
Blob.prototype.text ??= function text(this: Blob): Promise<string> {
  return new Promise((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.readAsText(this);
  });
};

// The house of the tests is in England.
tellHouseZone('Europe/London');

afterEach(() => {
  cleanup();
  navigation.reset();
});
