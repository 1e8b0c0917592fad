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
