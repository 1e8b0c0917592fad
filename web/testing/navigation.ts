/** Where a tested part is, and where it asked to go. */
class Navigation {
  path = '/';
  query = '';
  went: string[] = [];
  refreshed = 0;
  readonly router = {
    push: (href: string): void => void this.went.push(href),
    replace: (href: string): void => void this.went.push(href),
    refresh: (): void => void this.refreshed++,
    back: (): void => void this.went.push('back'),
  };

  reset(): void {
    this.path = '/';
    this.query = '';
    this.went = [];
    this.refreshed = 0;
  }
}

export const navigation = new Navigation();
