// What people call things besides what the interface calls them: found, never shown.
const OTHERS: Record<string, string> = {
  courgette: 'zucchini',
  aubergine: 'eggplant brinjal',
  beetroot: 'beet',
  rocket: 'arugula',
  swede: 'rutabaga',
  'pak choi': 'bok choy',
  'broad bean': 'fava',
  coriander: 'cilantro',
  'spring onion': 'scallion bunching onion',
  chard: 'swiss chard silverbeet',
  'lamb’s lettuce': 'corn salad mache',
  'pot marigold': 'calendula',
  chilli: 'chile chili hot pepper',
  pepper: 'capsicum bell pepper',
  'french bean': 'green bean snap bean',
};

/** The other names of a crop, to be searched. */
export function otherNames(name: string): string {
  const known = Object.entries(OTHERS).filter(([own]) => name.toLowerCase().includes(own));
  return known.map(([, others]) => others).join(' ');
}
