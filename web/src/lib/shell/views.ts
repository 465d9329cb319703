// The application's views, once: the menu and the keys read the same list.

export interface View {
  href: string;
  name: string;
  /** The key that opens it; empty where there is none. */
  key: string;
}

export const views: View[] = [
  { href: '/today', name: 'Today', key: '1' },
  { href: '/', name: 'Room', key: '2' },
  { href: '/sowing', name: 'Sowing', key: '3' },
  { href: '/seeds', name: 'Seeds', key: '4' },
  { href: '/power', name: 'Power', key: '5' },
  { href: '/log', name: 'Log', key: '6' },
  { href: '/setup', name: 'Setup', key: '' },
];
